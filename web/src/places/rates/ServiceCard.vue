<script setup lang="ts">
import { computed } from 'vue';

import type { Service } from '@/api/types';
import { counted } from '@/words/grammar';
import { condition, effect } from '@/stops/price/rules';
import { kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';

import PriceTable from './PriceTable.vue';
import type { Wrong } from './useRates';

/** One service of a tariff: what it takes, how it bills, its prices and its rules. */
const { at, wrong } = defineProps<{ at: number; wrong: Wrong[] }>();
const service = defineModel<Service>({ required: true });
const units = useUnits();
const days = computed(() => {
  const { days_from: from, days_to: to } = service.value;
  return from === to ? counted(to, 'day') : `${String(from)}–${String(to)} days`;
});
</script>

<template>
  <details class="service" :open="at === 0">
    <summary>
      <h2>{{ service.name }}</h2>
      <span class="soft">
        {{ days }}, {{ service.handover === 'collection' ? 'collected' : 'to the counter'
        }}{{ service.tracked ? ', tracked' : ', not tracked' }}
      </span>
    </summary>
    <p class="soft figure">
      Takes up to {{ kilograms(service.limits.mass_g) }}, longest side
      {{ units.length(service.limits.longest_mm) }}, length + girth
      {{ units.length(service.limits.length_plus_girth_mm) }}{{ service.limits.glass ? '' : ', no glass' }}.
      Size counts as cm³ ÷ {{ service.billable.divisor_cm3_per_kg
      }}<template v-if="service.billable.volumetric_above_m3">
        above {{ service.billable.volumetric_above_m3 * 1000 }} litres</template
      >.
      <template v-if="service.formats?.length && !service.prices?.length"
        >Sold by the container only.</template
      >
    </p>
    <PriceTable
      v-if="service.prices && service.prices.length > 0"
      v-model="service.prices"
      :place="`services/${at}/prices`"
      :name="service.name"
      :wrong="wrong"
    />
    <div v-for="(format, place) in service.formats ?? []" :key="format.name">
      <h3>
        {{ format.name }}
        <span class="soft figure">{{ units.size(format.length_mm, format.width_mm, format.height_mm) }}</span>
      </h3>
      <PriceTable
        v-model="format.prices"
        :place="`services/${at}/formats/${place}/prices`"
        :name="format.name"
        :wrong="wrong"
      />
    </div>
    <ol v-if="service.rules?.length" class="figure">
      <li v-for="rule in service.rules" :key="rule.name">
        <strong>{{ rule.name }}</strong>: {{ condition(rule.when, units) }} – {{ effect(rule.what)
        }}<span v-if="rule.replaces?.length" class="soft">, in place of {{ rule.replaces.join(', ') }}</span>
      </li>
    </ol>
    <p class="soft figure">
      Cover: {{ service.cover.included }} included, {{ service.cover.price_per_step }} for each
      {{ service.cover.step }} more, at most {{ service.cover.most
      }}{{ service.cover.excludes_glass ? '; glass is left out' : ''
      }}<template v-for="one in service.cover.exclusions ?? []" :key="one.name"
        >; {{ one.name }} are left out</template
      >.
    </p>
  </details>
</template>

<style scoped>
.service {
  padding: 8px 0;
  border-top: 1px solid var(--sedge);
}
summary {
  min-height: 44px;
  padding: 8px 0;
  cursor: pointer;
}
h2 {
  display: inline;
  font-size: var(--type-strong);
}
summary .soft {
  margin-left: 8px;
}
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-text);
}
ol {
  margin: 8px 0;
  padding-left: 24px;
}
</style>
