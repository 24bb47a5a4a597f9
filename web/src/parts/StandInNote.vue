<script setup lang="ts">
import { useStudio } from '@/api/useStudio';

/** Says that what stands above comes from a stand-in, wherever a carrier would speak. */
const { does } = defineProps<{
  /** What the stand-in does here, as `books nothing`. */
  does: string;
}>();
const { studio } = useStudio();
</script>

<template>
  <p v-if="studio?.stand_ins" class="soft no-print" data-test="stand-in">
    A stand-in speaks for the carrier here: it {{ does }}.
  </p>
</template>
