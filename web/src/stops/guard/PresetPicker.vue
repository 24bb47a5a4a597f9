<script setup lang="ts">
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next/components/BDropdown';

import { usePresets } from '@/api/usePresets';
import { useShipment } from '@/shipment/useShipment';

const { follow } = useShipment();
const { presets } = usePresets();
/** Asks the table of the house again. */
const TABLE = '';
</script>

<template>
  <BDropdown class="no-print" size="sm" data-test="presets" text="Begin from another preset">
    <BDropdownItemButton @click="follow(TABLE)">As “From whom to begin” says</BDropdownItemButton>
    <BDropdownItemButton v-for="{ rules } in presets" :key="rules.name" @click="follow(rules.name)">
      {{ rules.name }}
    </BDropdownItemButton>
  </BDropdown>
</template>
