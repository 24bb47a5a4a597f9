<script setup lang="ts">
import { computed } from 'vue';

/** A chance as a field of parcels, of which so many arrive damaged. */
const { oneIn } = defineProps<{ oneIn: number }>();

const ACROSS = 50;
const FEW = 200;
const MANY = 1000;
const STEP = 10;
/** A prime far from the row's length spreads the marked ones without a pattern. */
const SPREAD = 379;
const FIRST = 83;

const total = computed(() => {
  if (oneIn <= FEW / 2) return FEW;
  const rows = Math.ceil(Math.min(oneIn, MANY) / ACROSS);
  return rows * ACROSS;
});
const marked = computed(() => {
  const count = Math.round(total.value / oneIn);
  const places = Array.from({ length: count }, (_, turn) => (FIRST + turn * SPREAD) % total.value);
  return new Set(places);
});
const height = computed(() => (total.value / ACROSS) * STEP);
const parcels = computed(() =>
  Array.from({ length: total.value }, (_, place) => ({
    x: (place % ACROSS) * STEP,
    y: Math.floor(place / ACROSS) * STEP,
    hit: marked.value.has(place),
  })),
);
const says = computed(() =>
  marked.value.size === 0
    ? `${total.value} parcels, none of them damaged`
    : `${total.value} parcels, ${marked.value.size} of them damaged`,
);
</script>

<template>
  <svg :viewBox="`0 0 ${ACROSS * STEP} ${height}`" role="img" :aria-label="says">
    <rect
      v-for="(parcel, place) in parcels"
      :key="place"
      :x="parcel.x + 1"
      :y="parcel.y + 1"
      width="8"
      height="8"
      :class="{ hit: parcel.hit }"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
rect {
  fill: var(--sedge);
}
.hit {
  fill: var(--heather);
  stroke: var(--peat);
  stroke-width: 1.5px;
}
</style>
