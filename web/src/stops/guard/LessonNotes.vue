<script setup lang="ts">
import { computed } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { worded } from '@/words/grammar';
import { OUTCOMES } from '@/words/vocabulary';
import { useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

/** What was learned from earlier parcels of a like kind. */
const { id, plan, version } = useShipment();
const { data: lessons } = useRead({
  queryKey: computed(() => ['lessons', id, plan.value?.odds.class]),
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/shipments/{id}/lessons', { params: { path: { id } }, signal })),
  enabled: computed(() => version.value > 0 && plan.value !== undefined),
});
</script>

<template>
  <section
    v-if="lessons && lessons.length > 0"
    class="lessons"
    aria-label="Learned before"
    data-test="lessons"
  >
    <h2>Learned from {{ lessons.length === 1 ? 'a like piece' : 'like pieces' }}</h2>
    <ul>
      <li v-for="lesson in lessons" :key="lesson.shipment">
        {{ lesson.says }}
        <span class="soft">
          <RouterLink :to="{ name: 'after', params: { id: lesson.shipment } }">{{
            lesson.title
          }}</RouterLink><template v-if="lesson.outcome">, {{ worded(OUTCOMES, lesson.outcome) }}</template
          ><template v-if="lesson.failed">, its {{ lesson.failed }} gave way</template
          ><template v-if="lesson.on">, sent {{ dayAndYear(lesson.on) }}</template>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.lessons {
  margin: 0 0 12px;
  padding: 8px 12px;
  border-left: 4px solid var(--water);
  background: var(--paper);
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-text);
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
