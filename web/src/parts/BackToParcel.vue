<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';

/** The way back to the parcel that somebody came from, as the address of this page names it. */
const { to = 'short' } = defineProps<{
  /** The page of the parcel that it leads to. */
  to?: string;
}>();
const route = useRoute();
const parcel = computed(() => (typeof route.query.parcel === 'string' ? route.query.parcel : ''));
</script>

<template>
  <RouterLink
    v-if="parcel"
    class="btn btn-sm btn-outline-secondary"
    :to="{ name: to, params: { id: parcel } }"
    data-test="back"
    >Back to the parcel</RouterLink
  >
</template>
