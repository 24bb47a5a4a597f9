<script setup lang="ts">
import { computed } from 'vue';

import type { Charge, CostKind } from '@/api/types';
import { money, usedAgain } from '@/units/show';

/** What the shipment costs the studio, what the buyer pays by the studio's rule, and what stays. */
const { charge, buyer } = defineProps<{ charge: Charge; buyer: string }>();
const emit = defineEmits<{ rule: [rule: Charge['rule']] }>();

const NAMES: Record<CostKind, string> = {
  materials: 'materials, by what is used',
  work: 'work',
  overhead: 'overhead',
  carriage: 'carriage and surcharges',
  tax: 'tax',
  cover: 'cover',
  loss: 'expected damage',
};
const RULES: Record<Charge['rule'], string> = {
  at_cost: 'what the carrier takes',
  with_materials: 'carriage and materials',
  with_time: 'carriage, materials and time',
  flat: 'a flat sum',
  included: 'nothing: it is in the price',
};
const gain = computed(() => Number(charge.gain.amount));
const under = computed(() => money({ ...charge.gain, amount: charge.gain.amount.replace('-', '') }));
const saved = computed(() => Number(charge.saved_by_reuse.amount) > 0);
const again = computed(() => usedAgain(charge.used_again_g, charge.used_again_litres));
</script>

<template>
  <section class="charge figure" aria-label="What the buyer pays">
    <h2>What the buyer pays</h2>
    <dl>
      <template v-for="line in charge.lines" :key="line.kind">
        <dt>{{ NAMES[line.kind] }}</dt>
        <dd>{{ line.amount.amount }}</dd>
      </template>
      <dt class="sum">costs in all</dt>
      <dd class="sum">{{ money(charge.costs) }}</dd>
    </dl>
    <p class="soft">
      Paid sheet by sheet, the materials are {{ money(charge.opened) }}: {{ charge.sheets }}
      {{ charge.sheets === 1 ? 'sheet is' : 'sheets are' }} opened.
      <span v-if="again" data-test="used-again">
        Of it {{ again }} was used before<template v-if="saved"
          >, which saves {{ money(charge.saved_by_reuse) }}</template
        >.
      </span>
    </p>
    <label>
      {{ buyer }} pays
      <select
        class="form-select"
        name="charge"
        :value="charge.rule"
        @change="emit('rule', ($event.target as HTMLSelectElement).value as Charge['rule'])"
      >
        <option v-for="policy in charge.policies" :key="policy.rule" :value="policy.rule">
          {{ RULES[policy.rule] }}: {{ policy.pays.amount }}
        </option>
      </select>
    </label>
    <p v-if="gain < 0" class="under" data-test="gain">
      <strong>{{ under }} under cost.</strong> The studio pays that much of it itself.
    </p>
    <p v-else class="over" data-test="gain">
      <strong>{{ money(charge.gain) }} over cost.</strong>
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
  font-size: 1.25rem;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  margin: 0;
}
dt,
dd {
  margin: 0;
  padding: 4px 0;
  border-top: 1px solid var(--sedge);
  font-weight: 400;
}
dd {
  text-align: right;
}
.sum {
  font-weight: 700;
}
label {
  display: block;
}
.under,
.over {
  margin: 8px 0 0;
  padding: 8px 12px;
  border-left: 4px solid var(--moss);
  background: var(--paper);
}
.under {
  border-color: var(--amber-moss);
}
</style>
