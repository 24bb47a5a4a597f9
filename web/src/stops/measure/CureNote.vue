<script setup lang="ts">
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { vSay } from '@/said/say';
import { useLooseText, useShipment } from '@/shipment/useShipment';
import { dayAndYear } from '@/units/show';

const { draft, errors, plan, summary, line, lift: liftStop } = useShipment();

const CURE = 'cure';
/** A reason that is half written outlives a slip of the hand. */
const kept = useLooseText(`reason.${CURE}`);
const lifting = ref(kept.value !== undefined);
const reason = computed({
  get: () => kept.value ?? '',
  set: (text: string) => {
    kept.value = text || undefined;
  },
});

const cure = computed(() => plan.value?.cure ?? undefined);
const wet = computed(() => line.value?.cured === false);
const lifted = computed(() => (summary.value?.cure_lifted ? draft.lifted[CURE] : undefined));
const says = computed(() => {
  if (!cure.value) return '';
  const { cured_on, needs } = cure.value;
  if (!cured_on) return `It needs ${needs} to cure: say when it was finished.`;
  return wet.value
    ? `It needs ${needs} and is not cured until ${dayAndYear(cured_on)}.`
    : `Cured since ${dayAndYear(cured_on)}.`;
});

function lift(): void {
  liftStop(CURE, reason.value.trim());
  kept.value = undefined;
  lifting.value = false;
}

function setDown(): void {
  liftStop(CURE, undefined);
}
</script>

<template>
  <div v-if="cure" data-test="cure">
    <p :class="{ stop: wet && !lifted }"><template v-if="wet && !lifted">Stop: </template>{{ says }}</p>
    <template v-if="wet">
      <p v-if="lifted" class="soft">
        Lifted: {{ lifted }}
        <button type="button" class="plain" @click="setDown">Stop it again until it has cured</button>
      </p>
      <button v-else-if="!lifting" type="button" class="plain no-print" @click="lifting = true">
        Wrap it all the same
      </button>
      <div v-else class="no-print">
        <label>
          Why? It stays in the record.
          <BFormTextarea v-model="reason" name="reason" rows="2" />
        </label>
        <BButton size="sm" :disabled="reason.trim().length < 3" @click="lift">Go on for this reason</BButton>
      </div>
    </template>
    <p v-if="errors['lifted.cure']" v-say class="stop">{{ errors['lifted.cure'] }}</p>
  </div>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
.plain {
  min-height: 44px;
  padding: 0 0 8px;
  border: 0;
  background: none;
  color: var(--water);
  text-decoration: underline;
}
textarea {
  margin: 4px 0;
}
</style>
