<script setup lang="ts">
import { withPoint } from '@/units/typed';

/** A sum or share that is kept as text: what is typed with a comma is kept with a point. */
const text = defineModel<string | null>({ required: true });
</script>

<template>
  <input
    class="form-control"
    inputmode="decimal"
    :value="text"
    @input="text = withPoint(($event.target as HTMLInputElement).value)"
  />
</template>
