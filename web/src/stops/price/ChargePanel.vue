<script setup lang="ts">
import { computed } from 'vue';

import type { Charge, Cost } from '@/api/types';
import MoneyStrip from '@/frame/MoneyStrip.vue';
import SumOf from '@/parts/SumOf.vue';
import { usedAgain } from '@/units/show';

/** What the shipment costs the studio, what the buyer pays by the studio's rule, and what stays. */
const { charge, buyer, cost } = defineProps<{ charge: Charge; buyer: string; cost?: Cost | undefined }>();
const emit = defineEmits<{ rule: [rule: Charge['rule']] }>();

const RULES: Record<Charge['rule'], string> = {
  at_cost: 'what the carrier takes',
  with_materials: 'carriage and materials',
  with_time: 'carriage, materials and time',
  flat: 'a flat sum',
  included: 'nothing: it is in the price',
};
const gain = computed(() => Number(charge.gain.amount));
const under = computed(() => ({ ...charge.gain, amount: charge.gain.amount.replace('-', '') }));
/** What is left over of what the buyer paid for carriage, or lacks. */
const over = computed(() => {
  const sum = charge.over_carriage;
  if (!sum) return undefined;
  const lacks = Number(sum.amount) < 0;
  return { sum: { ...sum, amount: sum.amount.replace('-', '') }, says: lacks ? 'short' : 'over' };
});
const saved = computed(() => Number(charge.saved_by_reuse.amount) > 0);
const again = computed(() => usedAgain(charge.used_again_g, charge.used_again_litres));
</script>

<template>
  <section class="charge figure" aria-label="Shipping charge">
    <h2>Shipping charge</h2>
    <MoneyStrip v-if="cost" :cost="cost" />
    <p class="soft">
      Paid sheet by sheet, the materials are <SumOf of="sheets_opened" :sum="charge.opened" />:
      {{ charge.sheets }}
      {{ charge.sheets === 1 ? 'sheet is' : 'sheets are' }} opened.
      <span v-if="again" data-test="used-again">
        Of it {{ again }} was used before<template v-if="saved"
          >, which saves <SumOf of="saved_by_reuse" :sum="charge.saved_by_reuse" /></template
        >.
      </span>
    </p>
    <p v-if="charge.paid && over" data-test="paid">
      {{ buyer }} paid <SumOf of="buyer_paid" :sum="charge.paid" /> for carriage, which costs
      <SumOf of="to_carrier" :sum="charge.carriage" />:
      <strong><SumOf of="over_carriage" :sum="over.sum" /> {{ over.says }}.</strong>
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
      <strong><SumOf of="gain" :sum="under" /> under cost.</strong> The studio pays the difference.
    </p>
    <p v-else class="over" data-test="gain">
      <strong><SumOf of="gain" :sum="charge.gain" /> over cost.</strong>
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
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
