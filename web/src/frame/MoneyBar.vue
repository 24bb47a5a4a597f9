<script setup lang="ts">
import { computed } from 'vue';

import type { Cost } from '@/api/types';
import SumOf from '@/parts/SumOf.vue';

import { PARTS, shareOf } from './money';
import type { PartName } from './money';

/** What a parcel costs as one bar of four parts; with `pressed`, each part is a button that opens its lines. */
const { cost, open, pressed } = defineProps<{ cost: Cost; open?: PartName; pressed?: boolean }>();
const emit = defineEmits<{ press: [part: PartName] }>();

/** From these shares on a part has room for its amount, for that and a short name, for that and its name. */
const ROOM = { amount: 0.16, short: 0.3, name: 0.5 };
/** A part narrower than this is no target for a finger; the sheet lists it with the others. */
const TARGET = 0.12;
/** As much of its name as there is room for. */
const nameFor = ({ share, name, short }: { share: number; name: string; short: string }) =>
  share >= ROOM.name ? `${name} ` : share >= ROOM.short ? `${short} ` : '';
const parts = computed(() =>
  PARTS.map((part) => {
    const share = shareOf(cost, part.sum);
    return { ...part, amount: cost[part.sum], share, isPressed: pressed && share >= TARGET };
  }).filter(({ share }) => share > 0),
);
</script>

<template>
  <div class="bar" :class="{ tall: pressed }">
    <component
      :is="part.isPressed ? 'button' : 'span'"
      v-for="part in parts"
      :key="part.key"
      :type="part.isPressed ? 'button' : undefined"
      :class="['part', part.key, `money-${part.key}`, { open: open === part.key }]"
      :style="{ flexGrow: part.share }"
      :aria-expanded="part.isPressed ? open === part.key : undefined"
      :title="part.name"
      @click="part.isPressed && emit('press', part.key)"
    >
      <template v-if="pressed">
        <span class="visually-hidden">{{ part.name }}</span>
        <span v-if="part.share >= ROOM.amount" class="told" :class="{ small: part.share < ROOM.short }">
          <span aria-hidden="true" class="name">{{ nameFor(part) }}</span>
          <SumOf :of="part.sum" :sum="part.amount" bare />
        </span>
      </template>
    </component>
  </div>
</template>

<style scoped>
.bar {
  container-type: inline-size;
  display: flex;
  width: 100%;
  min-height: 14px;
  overflow: hidden;
  border: 1px solid var(--peat);
  border-radius: var(--corner);
}
.part {
  display: block;
  flex: 0 1 0;
  min-width: 4px;
  overflow: hidden;
  padding: 0;
  border: 0;
  border-left: 1px solid var(--peat);
  color: var(--paper);
  font-size: var(--type-small);
  line-height: 1;
  text-align: center;
}
.part:first-child {
  border-left: 0;
}
button.part {
  min-width: 24px;
}
.tall .part {
  min-height: 44px;
}
button.part:focus-visible {
  outline-offset: -4px;
  outline-color: var(--paper);
}
.open {
  box-shadow: inset 0 4px var(--bog-cotton);
}
.told {
  white-space: nowrap;
}
/* On a phone a third of the bar holds an amount, and less than that none. */
@container (max-width: 240px) {
  .name,
  .small {
    display: none;
  }
}
@media (forced-colors: active) {
  .part {
    forced-color-adjust: none;
  }
}
</style>
