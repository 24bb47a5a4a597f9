<script setup lang="ts">
import { useLastChange } from './lastChange';

const props = defineProps<{
  name: string;
  shown: string;
  note?: string;
  minded?: boolean;
  /** What changes are told from. */
  value: number;
  change: (by: number) => string;
  /** Whether a larger figure is the better one. */
  moreIsBetter?: boolean;
}>();

const { by, better } = useLastChange({
  value: () => props.value,
  words: (by) => props.change(by),
  says: () => `${props.name} ${props.shown}`,
  moreIsBetter: props.moreIsBetter,
});
</script>

<template>
  <div class="row">
    <span class="name soft">{{ name }}</span>
    <strong class="shown figure" :data-figure="name">{{ shown }}</strong>
    <span v-if="note || by" class="note">
      <span :class="{ minded }">{{ note }}</span>
      <span v-if="by" class="change figure" :class="{ better }">{{ by }}</span>
    </span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: baseline;
  justify-content: space-between;
  padding: 8px 0;
  border-bottom: 1px solid var(--sedge);
}
.shown {
  margin-left: auto;
  font-size: var(--type-lead);
  text-align: right;
}
.note {
  display: flex;
  width: 100%;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 0 12px;
  color: var(--peat-soft);
  font-size: var(--type-small);
}
.minded {
  color: var(--amber-moss);
  font-weight: 600;
}
.change {
  color: var(--amber-moss);
  font-weight: 600;
}
.change.better {
  color: var(--moss);
}
</style>
