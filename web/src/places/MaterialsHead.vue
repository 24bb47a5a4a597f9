<script setup lang="ts">
/** What the studio works with: what it is and costs, and what of it is there; in one place. */
const { here } = defineProps<{ here: 'catalogue' | 'in-stock' | 'offcuts' | 'cartons' }>();

const PARTS = [
  { to: '/materials', key: 'catalogue', name: 'Catalogue' },
  { to: '/materials/in-stock', key: 'in-stock', name: 'In stock' },
  { to: '/materials/offcuts', key: 'offcuts', name: 'Offcuts' },
  { to: '/materials/cartons', key: 'cartons', name: 'Cartons and cases' },
] as const;
</script>

<template>
  <div class="heading-row">
    <h1>Materials</h1>
    <nav class="no-print" aria-label="Parts of the materials">
      <RouterLink
        v-for="part in PARTS"
        :key="part.key"
        :to="part.to"
        :class="{ here: part.key === here }"
        :aria-current="part.key === here ? 'page' : undefined"
        >{{ part.name }}</RouterLink
      >
    </nav>
    <slot />
  </div>
</template>

<style scoped>
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
.heading-row {
  gap: 4px 24px;
  justify-content: flex-start;
}
nav {
  display: flex;
  flex-wrap: wrap;
}
nav a {
  min-height: 44px;
  padding: 9px 12px 6px;
  border-bottom: 4px solid transparent;
  color: var(--peat);
  text-decoration: none;
}
.here {
  border-color: var(--heather);
  font-weight: 600;
}
</style>
