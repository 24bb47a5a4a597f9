<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { ExchangeRate } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import DecimalInput from '@/parts/DecimalInput.vue';

/** What other currencies are worth in the studio's own, each with its day. */
const { studio, reload } = useStudio();
const own = computed(() => studio.value?.catalogue.currency ?? '');
const rates = ref<ExchangeRate[]>([]);
const errors = ref<Record<string, string>>({});
const failed = ref('');

const kept = computed(() => studio.value?.rules.rates ?? []);
const copy = (list: readonly ExchangeRate[]) => JSON.parse(JSON.stringify(list)) as ExchangeRate[];
const changed = computed(() => JSON.stringify(rates.value) !== JSON.stringify(kept.value));
// What is typed is not taken from under the hand by a fresh look.
watch(
  kept,
  (now, before) => {
    if (!before || JSON.stringify(rates.value) === JSON.stringify(before)) rates.value = copy(now);
  },
  { immediate: true },
);

function add(): void {
  rates.value.push({ currency: '', rate: '', on: studio.value?.today ?? '' });
}
async function keep(): Promise<void> {
  const rules = studio.value?.rules;
  if (!rules) return;
  errors.value = {};
  failed.value = '';
  try {
    await answer(api.PUT('/api/v1/studio/rules', { body: { rules: { ...rules, rates: rates.value } } }));
  } catch (error) {
    if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
    else failed.value = error instanceof Error ? error.message : 'something went wrong in the page';
    return;
  } finally {
    await reload();
  }
}
const said = computed(() => [...Object.values(errors.value), failed.value].filter(Boolean).join('; '));
</script>

<template>
  <section class="exchange" aria-label="Other currencies">
    <h2>Other currencies</h2>
    <ul class="figure">
      <li v-for="(rate, at) in rates" :key="at">
        1
        <input
          v-model="rate.currency"
          class="form-control code"
          :name="`rates[${at}].currency`"
          maxlength="3"
          placeholder="NOK"
          :aria-label="`Currency ${at + 1}`"
        />
        is
        <DecimalInput
          v-model="rate.rate"
          :name="`rates[${at}].rate`"
          :aria-label="`Rate ${at + 1}, in ${own}`"
        />
        {{ own }} on
        <input
          v-model="rate.on"
          type="date"
          class="form-control day"
          :name="`rates[${at}].on`"
          :aria-label="`Day of rate ${at + 1}`"
        />
        <BButton size="sm" variant="link" :aria-label="`Forget rate ${at + 1}`" @click="rates.splice(at, 1)"
          >Forget</BButton
        >
      </li>
    </ul>
    <p v-if="said" v-say class="wrong">{{ said }}</p>
    <BButton size="sm" @click="add">Another currency</BButton>
    <BButton size="sm" variant="primary" :disabled="!changed" @click="keep">Keep these</BButton>
    <p class="soft">
      Prices in other currencies are shown in {{ own }} at these rates. Without a rate they can’t be compared.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin-top: 24px;
  font-size: var(--type-lead);
}
ul {
  margin: 0 0 8px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--sedge);
}
input {
  width: 100px;
}
.code {
  width: 76px;
  text-transform: uppercase;
}
.day {
  width: 160px;
}
.btn + .btn {
  margin-left: 8px;
}
p {
  margin: 8px 0 0;
}
.wrong {
  color: var(--rowan);
}
</style>
