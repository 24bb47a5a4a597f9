<script setup lang="ts">
defineProps<{ label: string; name: string }>();
const ticked = defineModel<boolean>({ required: true });
</script>

<template>
  <label class="tick">
    <input v-model="ticked" type="checkbox" :name="name" />
    <span>{{ label }}</span>
  </label>
</template>

<style scoped>
.tick {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  cursor: pointer;
}
input {
  flex: none;
  width: 22px;
  height: 22px;
  accent-color: var(--moss);
}
</style>
