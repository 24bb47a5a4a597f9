<script setup lang="ts">
import { computed } from 'vue';

import type { HazardOdds } from '@/api/types';
import { HAZARDS } from '@/words/vocabulary';

/** What harms such a piece, and how often in this plan against the Standard pack of it. */
const { hazards } = defineProps<{ hazards: HazardOdds[] }>();

/** Twice as often, or half, reaches this far from the middle, in percent of the bar. */
const DOUBLE = 20;
const HALF = 50;

/** What is as in Standard folds into one line. */
const ALIKE = 0.03;
const isAlike = ({ ratio }: HazardOdds) => ratio != null && Math.abs(ratio - 1) <= ALIKE;
const alike = computed(() => hazards.filter(isAlike));
const rows = computed(() =>
  hazards
    .filter((hazard) => !isAlike(hazard))
    .map((hazard) => {
      const away = Math.max(-HALF, Math.min(HALF, Math.log2(hazard.ratio ?? 1) * DOUBLE));
      return {
        ...hazard,
        name: HAZARDS[hazard.kind],
        safer: away < 0,
        left: `${away < 0 ? HALF + away : HALF}%`,
        width: `${Math.abs(away)}%`,
      };
    }),
);
</script>

<template>
  <section class="hazards">
    <div v-if="rows.length > 0" class="heading-row">
      <span class="soft">safer ← Standard as shipped → riskier</span>
    </div>
    <table v-if="rows.length > 0">
      <thead class="visually-hidden">
        <tr>
          <th scope="col">hazard</th>
          <th scope="col">share of the odds</th>
          <th scope="col">against Standard as shipped</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.kind" :data-hazard="row.kind">
          <th scope="row">{{ row.name }}</th>
          <td class="figure soft">{{ (row.share * 100).toFixed(0) }} %</td>
          <td class="against">
            <span class="bar" aria-hidden="true">
              <span
                class="fill"
                :class="{ safer: row.safer }"
                :style="{ left: row.left, width: row.width }"
              />
            </span>
            <span class="says">{{ row.says }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="alike.length > 0" class="alike" data-test="as-standard">
      As Standard:
      {{ alike.map(({ kind, share }) => `${HAZARDS[kind]} (${(share * 100).toFixed(0)} %)`).join(', ') }}.
    </p>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h3 {
  margin: 0;
  font-size: var(--type-strong);
}
.heading-row {
  margin: 12px 0 2px;
}
.heading-row .soft {
  font-size: var(--type-small);
}
table {
  width: 100%;
  border-collapse: collapse;
}
tbody tr {
  border-bottom: 1px solid var(--sedge);
  line-height: 1.25;
}
tbody th {
  padding: 4px 0;
  font-weight: 400;
}
tbody .figure {
  width: 1%;
  padding: 4px 10px;
  text-align: right;
  white-space: nowrap;
}
.against {
  display: grid;
  grid-template-columns: minmax(70px, 1fr) 122px;
  gap: 0 10px;
  align-items: center;
  padding: 4px 0;
}
.bar {
  position: relative;
  height: 14px;
  background: var(--trough);
}
.bar::after {
  position: absolute;
  top: -3px;
  bottom: -3px;
  left: calc(50% - 1px);
  border-left: 2px solid var(--peat);
  content: '';
}
.fill {
  position: absolute;
  top: 0;
  bottom: 0;
  background: repeating-linear-gradient(-45deg, var(--amber-moss) 0 6px, var(--amber-light) 6px 9px);
}
.fill.safer {
  background: var(--moss);
}
.alike {
  margin: 6px 0 0;
  font-size: var(--type-small);
}
.says {
  font-size: var(--type-small);
  text-align: right;
}
@include at.phone {
  .against {
    grid-template-columns: minmax(40px, 1fr) minmax(0, 96px);
  }
  tbody .figure {
    padding-inline: 6px;
  }
}
</style>
