<script setup lang="ts">
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api, Refused } from '@/api/client';
import type { Cutting, DxfRead } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { counted } from '@/words/grammar';
import ChoiceField from '@/parts/ChoiceField.vue';
import FileText from '@/parts/FileText.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';

/** A blank that was drawn elsewhere: its layers are named, and it is laid out on sheets. */
const router = useRouter();
const { studio } = useStudio();

type Means = 'outline' | 'score' | '';
const MEANS = [
  { value: 'outline', text: 'Its edge, and what is cut out' },
  { value: 'score', text: 'Where it is scored' },
];
const dxf = ref('');
const read = shallowRef<DxfRead>();
const means = ref<Record<string, Means>>({});
const name = ref('');
const material = ref('');
const count = ref<number | null>(1);
const errors = ref<Record<string, string>>({});
const trouble = ref('');
const busy = ref(false);
const leaving = ref(false);

const layers = computed(() => {
  const found = new Map<string, number>();
  for (const { layer } of read.value?.lines ?? []) found.set(layer, (found.get(layer) ?? 0) + 1);
  return [...found].map(([layer, lines]) => ({ layer, lines }));
});
const boards = computed(() =>
  (studio.value?.catalogue.boards ?? []).map(({ id, name: text }) => ({ value: id, text })),
);
const linesOf = (what: Means) =>
  (read.value?.lines ?? [])
    .filter(({ layer }) => means.value[layer] === what)
    .map(({ from, to }) => [from, to]);
/** What is known of layers by their names, until somebody says otherwise. */
function guess(layer: string): Means {
  if (/score|fold|crease|bend/i.test(layer)) return 'score';
  return /cut|edge|outline|^0$/i.test(layer) ? 'outline' : '';
}
watch(dxf, () => {
  read.value = undefined;
  errors.value = {};
});

async function doing(what: () => Promise<void>): Promise<void> {
  errors.value = {};
  trouble.value = '';
  busy.value = true;
  try {
    await what();
  } catch (error) {
    if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
    else trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  } finally {
    busy.value = false;
  }
}
const look = () =>
  doing(async () => {
    const found = await answer(api.POST('/api/v1/documents/dxf', { body: { dxf: dxf.value } }));
    read.value = found;
    means.value = Object.fromEntries(found.lines.map(({ layer }) => [layer, guess(layer)]));
  });
const layOut = () =>
  doing(async () => {
    const blank = {
      name: name.value,
      material: material.value,
      count: count.value ?? 0,
      outline_mm: linesOf('outline'),
      scores_mm: linesOf('score'),
    };
    const { id } = await answer<Cutting>(
      api.POST('/api/v1/cuttings', { body: { shipments: [], blanks: [blank] } }),
    );
    leaving.value = true;
    await router.push(`/tools/cutting/${id}`);
  });
const at = (field: string) => errors.value[`blanks[0].${field}`];
useLeaveGuard(() => (dxf.value !== '' && !leaving.value ? 'the blank that you read in' : undefined));
</script>

<template>
  <div class="page">
    <div class="heading-row"><h1>A blank drawn elsewhere</h1></div>
    <p class="soft">
      As DXF, in millimetres, up to 200 KB: straight lines and polylines. Say which layer is its edge and
      which its scores; it is then laid out and weighed like a part of your own.
    </p>
    <FileText v-model="dxf" label="DXF file" name="dxf" accept=".dxf,application/dxf,text/plain" />
    <p v-if="errors['dxf']" v-say class="error">{{ errors['dxf'] }}</p>
    <p v-if="trouble" v-say class="notice">{{ trouble }}</p>
    <BButton v-if="!read" :disabled="!dxf.trim() || busy" @click="look">Read it</BButton>
    <form v-else @submit.prevent="layOut">
      <p v-if="layers.length === 0" v-say class="notice">There is no straight line in it.</p>
      <h2>Its layers</h2>
      <div class="fields">
        <ChoiceField
          v-for="{ layer, lines } in layers"
          :key="layer"
          :model-value="means[layer] ?? ''"
          :label="`${layer}, ${counted(lines, 'line')}`"
          :name="`layer.${layer}`"
          :choices="MEANS"
          empty="left out"
          @update:model-value="(what) => (means[layer] = what as Means)"
        />
      </div>
      <ul v-if="read.unread.length > 0" class="notice plain" data-test="unread">
        <li v-for="one in read.unread" :key="one.entity">
          Entity {{ one.entity }}, layer {{ one.layer }}: {{ one.says }}. It is left out.
        </li>
      </ul>
      <p v-if="at('outline_mm')" v-say class="error">The edge: {{ at('outline_mm') }}.</p>
      <p v-if="at('scores_mm')" v-say class="error">The scores: {{ at('scores_mm') }}.</p>
      <h2>Blank</h2>
      <div class="fields">
        <TextField v-model="name" label="Name" name="name" :error="at('name')" />
        <ChoiceField
          v-model="material"
          label="Board"
          name="material"
          :choices="boards"
          empty="choose"
          :error="at('material')"
        />
        <NumberField v-model="count" label="How many" name="count" :error="at('count')" />
      </div>
      <BButton type="submit" variant="primary" :disabled="busy || layers.length === 0"
        >Lay it out on sheets</BButton
      >
    </form>
  </div>
</template>

<style scoped>
.page {
  max-width: 820px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
h2 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 8px 12px;
  margin-bottom: 12px;
}
.error {
  color: var(--rowan);
}
.plain {
  padding-left: 12px;
  list-style: none;
}
</style>
