<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import type { InTwo, Inputs, Stack } from '@/api/types';
import { oneIn } from '@/words/grammar';
import SumOf from '@/parts/SumOf.vue';
import { vSay } from '@/said/say';
import { inputsOf } from '@/shipment/draft';
import { useShipment } from '@/shipment/useShipment';
import { kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** One parcel or two, both priced; parting makes a shipment of its own of what goes. */
const { stack } = defineProps<{ stack: Stack }>();
const { draft, save } = useShipment();
const units = useUnits();
const router = useRouter();

const found = shallowRef<InTwo>();
/** The pieces and choices that it was worked out for: when they change it is asked anew. */
const askedFor = ref('');
const now = () => JSON.stringify(inputsOf(draft));
const isStale = computed(() => found.value !== undefined && askedFor.value !== now());
const trouble = ref('');
const busy = ref(false);

type Parcel = InTwo['together'];
const titles = (parcel: Parcel) =>
  parcel.pieces.map((key) => stack.pieces.find((piece) => piece.key === key)?.title ?? key).join(', ');
const figures = (parcel: Parcel) =>
  [
    units.size(parcel.outside.across_mm, parcel.outside.up_mm, parcel.outside.through_mm),
    kilograms(parcel.mass_g),
    `${oneIn(parcel.one_in.about)} damaged`,
    parcel.service ? `by ${parcel.service}` : 'no price known',
  ].join(' · ');

async function ask(): Promise<void> {
  busy.value = true;
  trouble.value = '';
  try {
    const body = { inputs: JSON.parse(now()) as Inputs, unit: units.unit.value };
    found.value = (await answer(api.POST('/api/v1/plans/in-two', { body }))) ?? undefined;
    askedFor.value = now();
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  }
  busy.value = false;
}

/** Makes a shipment of what goes first, so that nothing is lost on the way, and takes it out of this one then. */
async function part(way: InTwo['parted'][number]): Promise<void> {
  busy.value = true;
  trouble.value = '';
  try {
    await save();
    const id = crypto.randomUUID();
    const body = { id, inputs: way.inputs, unit: units.unit.value };
    await answer(api.POST('/api/v1/shipments', { body }));
    for (const key of way.goes.pieces) Reflect.deleteProperty(draft.others, key);
    draft.together.order = null;
    await save();
    await router.push({ name: 'measure', params: { id } });
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  }
  busy.value = false;
}
</script>

<template>
  <div class="parting no-print" data-test="parting">
    <BButton size="sm" variant="outline-secondary" :disabled="busy" @click="ask">
      {{ found ? 'Ask again: one parcel or two?' : 'One parcel or two?' }}
    </BButton>
    <p v-if="trouble" v-say class="stop">{{ trouble }}</p>
    <template v-if="found && !isStale">
      <p>
        <strong>One parcel</strong>
        <span class="soft figure">{{ figures(found.together) }}</span>
        <span v-if="found.together.all_told" class="figure"
          ><SumOf of="total_then" :sum="found.together.all_told" /> in total</span
        >
      </p>
      <div v-for="way in found.parted" :key="way.goes.pieces.join()" class="way">
        <p>
          <strong
            >{{ titles(way.goes) }} {{ way.goes.pieces.length > 1 ? 'by themselves' : 'by itself' }}</strong
          >
          <span class="soft figure">{{ figures(way.goes) }}</span>
          <span class="soft figure">the rest: {{ figures(way.stays) }}</span>
          <span v-if="way.all_told && way.saves" class="figure">
            <SumOf of="total_then" :sum="way.all_told" /> in total,
            <SumOf of="difference" :sum="{ ...way.saves, amount: way.saves.amount.replace('-', '') }" />
            {{ Number(way.saves.amount) > 0 ? 'less' : 'more' }} than in one
          </span>
        </p>
        <BButton size="sm" variant="outline-secondary" :disabled="busy" @click="part(way)">
          Split it
        </BButton>
      </div>
    </template>
  </div>
</template>

<style scoped>
.parting {
  margin-top: 8px;
}
p {
  display: flex;
  flex-direction: column;
  margin: 8px 0 4px;
}
.way {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
.way .btn {
  flex: none;
  border-top: 1px solid var(--sedge);
}
.stop {
  color: var(--rowan);
}
</style>
