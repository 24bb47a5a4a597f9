<script setup lang="ts">
import { toRef } from 'vue';

import OpenShipment from './OpenShipment.vue';

const props = defineProps<{ id: string }>();
const id = toRef(props, 'id');
</script>

<template>
  <OpenShipment :id="id" :key="id" />
</template>
