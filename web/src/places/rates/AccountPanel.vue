<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { AccountSavings } from '@/api/types';
import { counted } from '@/words/grammar';
import FileText from '@/parts/FileText.vue';
import { vSay } from '@/said/say';
import { money } from '@/units/show';

/** What another account with this carrier would have saved: over the archive, or over a table of parcels. */
const { tariff } = defineProps<{ tariff: string }>();
const savings = ref<AccountSavings>();
const over = ref<'archive' | 'table'>();
const csv = ref('');
const wrong = ref<string[]>([]);

async function compare(what: 'archive' | 'table'): Promise<void> {
  wrong.value = [];
  try {
    const body = { csv: what === 'table' ? csv.value : null };
    savings.value = await answer(
      api.POST('/api/v1/tariffs/{id}/account', { params: { path: { id: tariff } }, body }),
    );
    over.value = what;
  } catch (error) {
    savings.value = undefined;
    wrong.value =
      error instanceof Refused
        ? Object.entries(error.fields).map(([field, says]) => (field === 'csv' ? says : `${field}: ${says}`))
        : ['The server does not answer. Try again.'];
  }
}
</script>

<template>
  <section aria-label="Savings with another account">
    <h2>Savings with another account</h2>
    <p class="soft">Calculated from your archive with this carrier, or from a table of parcels.</p>
    <BButton variant="outline-secondary" @click="compare('archive')">Compare over the archive</BButton>
    <details>
      <summary>Over a table of parcels</summary>
      <FileText
        v-model="csv"
        label="Parcels, a line each"
        name="account.csv"
        hint="The head names the columns: length_mm, width_mm, height_mm, mass_kg, country; and where known postcode, service, value."
      />
      <BButton variant="outline-secondary" :disabled="csv.trim() === ''" @click="compare('table')">
        Compare over the table
      </BButton>
    </details>
    <ul v-if="wrong.length > 0" v-say class="wrong">
      <li v-for="says in wrong" :key="says">{{ says }}</li>
    </ul>
    <template v-if="savings">
      <p v-say class="figure" data-test="account">
        {{ counted(savings.parcels, 'parcel') }} from the {{ over
        }}<template v-if="savings.not_taken > 0"
          >; {{ counted(savings.not_taken, 'other') }} not taken</template
        >.
      </p>
      <table v-if="savings.parcels > 0" class="figure">
        <caption class="visually-hidden">
          Accounts
        </caption>
        <tbody>
          <tr v-for="tier in savings.tiers" :key="tier.tier ?? ''" :class="{ own: tier.own }">
            <th scope="row">{{ tier.tier ?? 'No account' }}{{ tier.own ? ', yours' : '' }}</th>
            <td class="number">{{ money(tier.total) }}</td>
            <td class="number">
              <template v-if="!tier.own">
                {{
                  tier.saves.amount.startsWith('-')
                    ? `${money(tier.saves).slice(1)} more`
                    : `saves ${money(tier.saves)}`
                }}
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin-top: 24px;
  font-size: var(--type-lead);
}
table {
  width: 100%;
}
th,
td {
  padding: 6px 8px 6px 0;
  border-top: 1px solid var(--sedge);
  font-weight: 400;
  text-align: left;
}
.own th {
  font-weight: 600;
}
.number {
  text-align: right;
  white-space: nowrap;
}
summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}
.wrong {
  margin: 8px 0;
  padding-left: 20px;
  color: var(--rowan);
}
</style>
