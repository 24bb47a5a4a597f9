<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';

import { CONDITIONS, CONSTRUCTIONS, MEDIA, OUTLINES, PAINTS, TOPS } from '@/words/vocabulary';
import { useStudio } from '@/api/useStudio';
import { manners } from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** A measuring sheet to be printed empty and filled in by hand, in the order of the form. */
const { studio } = useStudio();
const { house: unit } = useUnits();
const WORDS = { mm: 'millimetres', cm: 'centimetres', in: 'inches' } as const;
const print = () => window.print();

const TICKS = [
  { name: 'Type of piece', choices: CONSTRUCTIONS },
  { name: 'Outline', choices: OUTLINES },
  { name: 'Medium', choices: MEDIA },
  { name: 'Paint', choices: PAINTS },
  { name: 'Condition', choices: CONDITIONS },
  { name: 'Top edge', choices: TOPS },
] as const;
const MORE = ['Varnished', 'Glass is coated', 'Certificate goes with it', 'Photographed'] as const;
const LINES = [
  'Finished on',
  'Varnished on',
  'Hardware stands off',
  'How many',
  'Weighed',
  'Worth',
  'Promised for',
] as const;
const BUYER = ['Buyer', 'Street', 'Postcode, town', 'Country'] as const;
</script>

<template>
  <div class="page sheet">
    <div class="heading-row no-print">
      <RouterLink to="/" class="btn">Back to the bench</RouterLink>
      <BButton variant="primary" @click="print">Print the sheet</BButton>
    </div>
    <header>
      <h1>Measuring sheet</h1>
      <span>{{ studio?.name }}</span>
      <span class="line">Title</span>
      <span class="line short">Measured by, on</span>
    </header>
    <div class="drawn">
      <svg viewBox="0 0 430 250" role="img" aria-label="Front and side, to write the sides on">
        <rect x="60" y="24" width="190" height="170" class="face" />
        <rect x="330" y="24" width="16" height="170" class="face" />
        <path d="M60 212h190m0 -7v14M60 205v14M42 24v170m-7 0h14M35 24h14M330 212h16m0 -7v14M330 205v14" />
        <path d="M75 236h160M8 180v-140M300 236h90" class="write" />
        <text x="60" y="16">front, as hung</text>
        <text x="318" y="16">side</text>
        <text x="155" y="110" text-anchor="middle" class="soft">mark the top</text>
      </svg>
      <p>
        Over everything: frame and hardware too. An odd outline by the box around it; mark where it bears. All
        sides in {{ WORDS[unit] }}, weights in
        {{ manners.mass === 'lb' ? 'pounds and ounces' : 'kilograms' }}.
      </p>
    </div>
    <dl>
      <template v-for="{ name, choices } in TICKS" :key="name">
        <dt>{{ name }}</dt>
        <dd>
          <span v-for="{ value, text } in choices" :key="value">☐ {{ text }}</span>
        </dd>
      </template>
      <dt>Also</dt>
      <dd>
        <span v-for="word in MORE" :key="word">☐ {{ word }}</span>
      </dd>
    </dl>
    <div class="lines">
      <span v-for="name in LINES" :key="name" class="line">{{ name }}</span>
    </div>
    <div class="lines">
      <span v-for="name in BUYER" :key="name" class="line">{{ name }}</span>
    </div>
    <div class="notes">Condition, and what was seen</div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.sheet {
  max-width: 820px;
  background: var(--paper);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  align-items: baseline;
}
h1 {
  margin: 0;
  font-size: var(--type-title);
}
.line {
  flex: 1 1 260px;
  min-height: 34px;
  padding-top: 8px;
  border-bottom: 1px solid var(--peat);
  color: var(--peat-soft);
}
.short {
  flex-basis: 180px;
}
.drawn {
  display: grid;
  grid-template-columns: minmax(0, 430px) minmax(0, 1fr);
  gap: 20px;
  align-items: center;
  margin: 12px 0;
}
svg {
  width: 100%;
}
.face {
  fill: none;
  stroke: var(--peat);
  stroke-width: 2px;
}
path {
  fill: none;
  stroke: var(--peat);
}
.write {
  stroke-dasharray: 2 4;
}
text {
  font-size: var(--drawn);
}
dl {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 6px 12px;
}
dd {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 0;
}
.lines {
  display: flex;
  flex-wrap: wrap;
  gap: 0 24px;
}
.notes {
  min-height: 110px;
  margin-top: 12px;
  padding: 6px 8px;
  border: 1px solid var(--peat);
  color: var(--peat-soft);
}
@include at.phone {
  .drawn {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .sheet {
    max-width: none;
    padding: 0;
    background: none;
  }
}
</style>
