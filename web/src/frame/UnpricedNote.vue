<script setup lang="ts">
import type { Plan } from '@/api/types';

/** The materials of a plan that have no price in the studio's money yet, each a link to where its price is typed. */
const { materials } = defineProps<{ materials: NonNullable<Plan['unpriced']> }>();
</script>

<template>
  <p class="unpriced" data-test="unpriced">
    {{ materials.length === 1 ? '1 price' : `${String(materials.length)} prices` }} missing, counted as 0:
    <template v-for="({ material, name, class: list }, at) in materials" :key="material"
      ><template v-if="at > 0">, </template
      ><RouterLink :to="{ path: `/materials/${list}`, hash: `#${material}` }">{{
        name
      }}</RouterLink></template
    >. The box stays the usual one until they are typed.
  </p>
</template>

<style scoped>
.unpriced {
  margin: 6px 0 0;
  color: var(--amber-moss);
  font-size: var(--type-small);
}
</style>
