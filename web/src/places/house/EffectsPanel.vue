<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';

import AffectedList from '@/parts/AffectedList.vue';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';

import type { useRules } from './useRules';

const { house } = defineProps<{ house: ReturnType<typeof useRules> }>();

const wrong = computed(() => Object.keys(house.errors.value).length);
</script>

<template>
  <aside class="side" aria-label="Effect of the change">
    <h2>Effect of the change</h2>
    <p v-if="!house.changed.value" class="soft">
      Nothing is changed. Change a rule, and the shipments it touches are shown here first.
    </p>
    <template v-else>
      <p v-if="house.elsewhere.value" v-say data-test="elsewhere">
        The house rules were changed on another page meanwhile. Your changes are kept, on top of the new
        rules: look once more before you apply it.
      </p>
      <p v-if="wrong" v-say class="stop">
        {{ wrong === 1 ? 'A value is' : `${wrong} values are` }} not taken yet:
        {{ Object.values(house.errors.value)[0] }}
      </p>
      <template v-else-if="house.effects.value">
        <p data-test="effects">
          {{ house.effects.value.affected.length }} of {{ house.effects.value.looked_at }} shipments would
          change.
        </p>
        <AffectedList :affected="house.effects.value.affected" />
      </template>
      <p v-else-if="!house.trouble.value" class="soft">Working it out</p>
      <TextField
        :model-value="house.rules.name"
        label="These rules are called"
        name="rules-name"
        :error="house.errors.value.name"
        @update:model-value="house.rename"
      />
      <div class="acts">
        <BButton
          variant="primary"
          :disabled="house.busy.value || wrong > 0 || !house.effects.value"
          @click="house.apply"
        >
          Apply to the house
        </BButton>
        <BButton @click="house.discard">Put back</BButton>
      </div>
    </template>
    <p v-if="house.trouble.value" v-say class="stop">{{ house.trouble.value }}</p>
  </aside>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.side {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 24px);
  overflow: auto;
}
h2 {
  margin: 8px 0;
  font-size: var(--type-lead);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
@include at.tablet {
  .side {
    position: sticky;
    top: auto;
    bottom: 0;
    max-height: 45vh;
    padding: 8px 0;
    border: 0;
    border-top: 2px solid var(--peat);
    background: var(--bog-cotton);
  }
}
</style>
