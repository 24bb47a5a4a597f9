<script setup lang="ts">
import { useRoute } from 'vue-router';

import { useStudio } from '@/api/useStudio';

/** Says that this is the demo, or that the studio isn’t set up yet. */
const { studio } = useStudio();
const route = useRoute();
</script>

<template>
  <aside
    v-if="studio?.demo && route.name !== 'pack' && route.name !== 'set-up'"
    class="band no-print"
    aria-label="The demo"
    data-test="demo-band"
  >
    Demo studio: nothing is really booked.
    <RouterLink to="/set-up" class="plain">Set up my own studio</RouterLink>
  </aside>
  <aside
    v-else-if="studio && !studio.set_up && route.name !== 'studio'"
    class="band no-print"
    aria-label="Not set up yet"
    data-test="set-up-band"
  >
    This studio isn’t set up yet.
    <RouterLink to="/studio/name" class="plain">Set up your studio</RouterLink>
  </aside>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.band {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin: 0;
  padding: 0 20px;
  border-bottom: 1px solid var(--sedge);
  color: var(--peat-soft);
  font-size: var(--type-small);
}
.plain {
  display: inline-flex;
  min-height: 44px;
  align-items: center;
  padding: 0;
  border: 0;
  background: none;
  color: var(--water);
  font-weight: 600;
  text-decoration: underline;
}
@include at.phone {
  .band {
    padding-inline: 12px;
  }
}
</style>
