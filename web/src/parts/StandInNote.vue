<script setup lang="ts">
import { useStudio } from '@/api/useStudio';

/** Says that a simulated carrier answers, wherever a real one would. */
const { does } = defineProps<{
  /** What the simulated carrier does here, as `books nothing`. */
  does: string;
}>();
const { studio } = useStudio();
</script>

<template>
  <p v-if="studio?.stand_ins" class="soft no-print" data-test="stand-in">
    A simulated carrier answers here: it {{ does }}.
  </p>
</template>
