<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormCheckboxGroup } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed, onMounted, ref, shallowRef } from 'vue';

import type { OpenedPanel, ShelfItem } from '@/api/types';
import { counted } from '@/words/grammar';
import TextField from '@/parts/TextField.vue';
import { useUnits } from '@/units/useUnits';

import type { Shelf } from './useShelf';

/** A carton that is opened into raw card: the bad panels are ticked, the others go on the shelf. */
const { item, shelf } = defineProps<{ item: ShelfItem; shelf: Shelf }>();
const emit = defineEmits<{ done: [says: string]; close: [] }>();
const units = useUnits();
const panels = shallowRef<OpenedPanel[]>([]);
const bad = ref<string[]>([]);
const place = ref(item.place);
const options = computed(() =>
  panels.value
    .filter(({ kept }) => kept)
    .map(({ name, width_mm, height_mm }) => ({
      value: name,
      text: `${name}, ${units.size(width_mm, height_mm)}`,
    })),
);
const small = computed(() => panels.value.length - options.value.length);
const good = computed(() => options.value.length - bad.value.length);

onMounted(async () => {
  panels.value = (await shelf.open(item.id ?? '', [], '', true)) ?? [];
});
async function open(): Promise<void> {
  const done = await shelf.open(item.id ?? '', bad.value, place.value, false);
  if (done)
    emit('done', `${item.name || 'The carton'} is opened: ${counted(good.value, 'panel')} on the shelf.`);
}
</script>

<template>
  <section class="panel open" aria-label="Open into raw card">
    <h2>Open {{ item.name || 'it' }} into raw card</h2>
    <p v-if="panels.length > 0 && options.length === 0">
      None of its panels is large enough to keep. The house rules say from which size an offcut is kept.
    </p>
    <template v-else>
      <p>Tick crushed, wet or torn parts to leave them out. Creases are already left out.</p>
      <BFormCheckboxGroup v-model="bad" :options="options" name="bad" stacked />
      <p v-if="small > 0" class="soft">{{ counted(small, 'other panel') }}, too small to keep.</p>
      <TextField v-model="place" label="Put them" name="open-place" />
      <BButton variant="primary" :disabled="good === 0" @click="open"
        >Open it: keep {{ counted(good, 'panel') }}</BButton
      >
    </template>
    <BButton variant="link" @click="emit('close')">Leave it whole</BButton>
  </section>
</template>

<style scoped>
.open {
  padding: 8px 16px 12px;
}
h2 {
  margin: 0;
  font-size: var(--type-strong);
}
</style>
