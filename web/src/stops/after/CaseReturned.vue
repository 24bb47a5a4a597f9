<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import type { ShelfRequest } from '@/api/types';
import TextField from '@/parts/TextField.vue';
import { sent } from '@/places/shelf/amounts';
import { useShelf } from '@/places/shelf/useShelf';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** A travel case that comes back: it goes on the shelf, for the next shipment that it takes. */
const { id, draft, caseBack } = useShipment();
const shelf = useShelf();
const units = useUnits();

const keep = computed(() => caseBack.value?.keep ?? undefined);
/** A case that was built for this shipment has its id on the shelf, so that it is put there once. */
const item = computed(() => draft.choices.case_from || id);
const there = computed(() => shelf.items.value?.find((one) => one.id === item.value));
const name = ref(`Case for ${draft.title}`.slice(0, 60));
const place = ref('');
const isBack = computed(() => (there.value?.left ?? 0) > 0);

async function putThere(): Promise<void> {
  const known = there.value;
  if (known?.id) await shelf.count(known.id, known.left, sent(known, known.left + 1));
  else if (keep.value)
    await shelf.put({
      id,
      kind: 'case',
      name: name.value,
      place: place.value,
      left: 1,
      ...keep.value,
    } as ShelfRequest);
}
</script>

<template>
  <section
    v-if="shelf.items.value && (keep || there)"
    aria-label="The travel case"
    class="panel"
    data-test="case-returned"
  >
    <div class="heading-row"><h2>The travel case</h2></div>
    <p v-if="isBack" v-say>
      It is back: {{ there?.name }}{{ there?.place ? `, ${there.place}` : '' }}.
      <RouterLink to="/materials/cartons">See it on the shelf</RouterLink>
    </p>
    <template v-else>
      <p>
        It comes back. On the shelf it is offered for every piece that it takes<template v-if="keep && !there"
          >: {{ units.size(keep.length_mm, keep.width_mm, keep.depth_mm) }} between its linings,
          {{ kilograms(keep.empty_g) }} empty</template
        >.
      </p>
      <template v-if="!there">
        <TextField v-model="name" label="Write on it" name="case-name" :error="shelf.errors.value['name']" />
        <TextField
          v-model="place"
          label="Where it stands"
          name="case-place"
          :error="shelf.errors.value['place']"
        />
      </template>
      <p v-if="shelf.trouble.value" v-say class="soft">{{ shelf.trouble.value }}</p>
      <BButton class="no-print" variant="outline-secondary" @click="putThere"
        >It is back: put it on the shelf</BButton
      >
    </template>
  </section>
</template>

<style scoped>
.panel {
  padding: 12px 16px 16px;
  margin-top: 12px;
}
p {
  margin: 0 0 8px;
}
</style>
