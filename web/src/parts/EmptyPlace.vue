<script setup lang="ts">
/** A place with nothing in it yet: a line drawing, a word, and the one thing to do. */
const { drawing } = defineProps<{
  drawing: keyof typeof LINES;
  says: string;
}>();
</script>

<script lang="ts">
/** Lines on a field of 120 × 72, on a ground at 64. */
const LINES = {
  // A table with nothing on it, and a tape measure.
  bench: ['M14 34H106M22 34V64M98 34V64M30 34V40H90V34', 'M74 34a8 8 0 1 1 12 0', 'M86 30h14'],
  // A parcel, and the way that it went.
  log: ['M16 30H52V64H16ZM16 40H52M34 30V40', 'M62 54q14-18 26 0t22-6', 'M104 42l7 5-6 6'],
  // Shelves.
  shelf: ['M24 14V64M96 14V64M24 26H96M24 44H96M24 62H96', 'M34 26V18H52V26'],
  // Sheets with one corner cut off.
  offcuts: ['M20 22H66V64H20Z', 'M66 64H98V44H66', 'M76 44V34H88V44'],
  // Cartons in a pile.
  cartons: ['M22 44H62V64H22ZM22 52H62', 'M66 36H102V64H66ZM66 46H102', 'M28 24H56V44H28ZM28 32H56'],
  // A table of orders.
  orders: ['M30 12H90V64H30Z', 'M38 24H82M38 34H82M38 44H66', 'M74 50l5 5 9-11'],
  // A label with its line of travel.
  carriers: ['M22 24H78L98 44 78 64H22Z', 'M32 38H66M32 48H58', 'M82 44h.1'],
  // A sheet with its cuts.
  cutting: ['M22 16H98V64H22Z', 'M22 40H70M70 16V64M46 40V64', 'M82 28l8 8m0-8l-8 8'],
  // A scale.
  scale: ['M28 64H92L84 34H36Z', 'M30 28H90', 'M60 64v-8m0 0l8-10'],
} as const;
</script>

<template>
  <div class="empty panel" data-test="empty">
    <svg viewBox="0 0 120 72" aria-hidden="true">
      <path v-for="line in LINES[drawing]" :key="line" :d="line" />
      <path class="ground" d="M4 64H116" />
    </svg>
    <div>
      <p>{{ says }}</p>
      <slot />
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.empty {
  display: flex;
  gap: 24px;
  align-items: center;
  margin: 12px 0;
  padding: 20px 24px;
}
svg {
  flex: none;
  width: 150px;
}
path {
  fill: none;
  stroke: var(--peat);
  stroke-width: 2px;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.ground {
  stroke: var(--heather);
}
p {
  margin: 0 0 8px;
  font-size: var(--type-strong);
}
@include at.phone {
  .empty {
    flex-direction: column;
    align-items: flex-start;
    padding: 16px;
  }
}
</style>
