<script setup lang="ts">
/** What is wanted now and then, each with what it is for. */
const TOOLS = [
  {
    to: '/tools/rough-price',
    name: 'Price estimate',
    about: 'for a buyer on the phone: a price from size, country and value',
  },
  {
    to: '/tools/sums',
    name: 'Quick sums',
    about: 'one calculation at a time: a corner pocket, a box of any style, a cushion, billable weight',
  },
  {
    to: '/tools/cutting',
    name: 'Cutting plans',
    about: 'saved layouts, and blanks drawn elsewhere',
  },
  {
    to: '/tools/measuring-sheet',
    name: 'Measuring sheet',
    about: 'to print and fill in at the piece',
  },
  {
    to: '/tools/tags',
    name: 'Tags',
    about: 'for wrapped pieces that wait: tick them on the bench, and press “Tags”',
  },
  {
    to: '/orders',
    name: 'Orders from a shop',
    about: 'make a shipment from each row of an order table',
  },
  {
    to: '/leaving/carriers',
    name: 'Carrier bookings',
    about: 'bookings missing here or at the carrier',
  },
  {
    to: '/tools/weighings',
    name: 'Scale readings',
    about: 'material weights from weighed parcels',
  },
] as const;
</script>

<template>
  <div class="page">
    <h1>Tools</h1>
    <ul>
      <li v-for="tool in TOOLS" :key="tool.to">
        <RouterLink :to="tool.to">{{ tool.name }}</RouterLink>
        <span class="soft">{{ tool.about }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
h1 {
  margin: 4px 0 12px;
  font-size: var(--type-title);
}
ul {
  display: grid;
  margin: 0;
  padding: 0;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: 0 40px;
  list-style: none;
}
li {
  padding: 8px 0 12px;
  border-bottom: 1px solid var(--sedge);
}
a {
  display: flex;
  min-height: 44px;
  align-items: center;
  font-size: var(--type-lead);
  font-weight: 600;
}
</style>
