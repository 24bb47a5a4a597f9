<script setup lang="ts">
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import type { Finding } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { vSay } from '@/said/say';
import { useLooseText, useShipment } from '@/shipment/useShipment';

const { finding } = defineProps<{ finding: Finding }>();
const { id, errors, choose, lift: liftStop } = useShipment();
const { studio } = useStudio();

const WORDS = { stop: 'Stop', mind: 'Worth a look', note: 'Good to know' } as const;

/** A reason that is half written outlives a slip of the hand. */
const kept = useLooseText(`reason.${finding.code}`);
const lifting = ref(kept.value !== undefined);
const reason = computed({
  get: () => kept.value ?? '',
  set: (text: string) => {
    kept.value = text || undefined;
  },
});
const about = computed(() => studio.value?.slots.find(({ slot }) => slot === finding.layer)?.name);
const refused = computed(() => errors.value[`lifted.${finding.code}`]);

function lift(): void {
  liftStop(finding.code, reason.value.trim());
  kept.value = undefined;
  lifting.value = false;
}

function setDown(): void {
  liftStop(finding.code, undefined);
}
</script>

<template>
  <div class="finding" :class="[finding.level, { lifted: finding.lifted }]" :data-finding="finding.code">
    <p>
      <strong>{{ WORDS[finding.level] }}</strong>
      <span v-if="about" class="about">{{ about }}</span>
      {{ finding.says }}
    </p>
    <p v-if="finding.lifted" class="reason">
      Lifted: {{ finding.lifted }}
      <button type="button" class="plain no-print" @click="setDown">Stop for this again</button>
    </p>
    <BButton
      v-if="finding.remedy && !finding.lifted"
      size="sm"
      class="no-print"
      @click="choose(finding.remedy.choices)"
    >
      {{ finding.remedy.label }}
    </BButton>
    <RouterLink
      v-if="finding.code === 'odds'"
      class="no-print"
      :to="{ name: 'guard', params: { id }, hash: '#changes' }"
    >
      Possible changes
    </RouterLink>
    <RouterLink
      v-if="finding.code === 'hand-over' || finding.code === 'no-sheet-for-blank'"
      class="no-print"
      :to="{ name: 'brief', params: { id } }"
    >
      A brief for a crating service
    </RouterLink>
    <template v-if="finding.level === 'stop' && !finding.lifted">
      <button v-if="!lifting" type="button" class="plain no-print" @click="lifting = true">
        Continue anyway
      </button>
      <form v-else class="no-print" @submit.prevent="lift">
        <label>
          Why? It stays in the record.
          <BFormTextarea v-model="reason" name="reason" rows="2" />
        </label>
        <BButton size="sm" type="submit" :disabled="reason.trim().length < 3">Go on for this reason</BButton>
      </form>
    </template>
    <p v-if="refused" v-say class="refused">{{ refused }}</p>
  </div>
</template>

<style scoped>
.finding {
  margin: 8px 0 0;
  padding: 8px 12px;
  border-left: 4px solid var(--water);
  background: var(--paper);
  line-height: 1.35;
}
.finding p {
  margin: 0 0 4px;
}
.mind {
  border-color: var(--amber-moss);
}
.stop {
  border-color: var(--rowan);
}
.stop strong,
.refused {
  color: var(--rowan);
}
.lifted {
  border-left-style: dashed;
}
.about {
  margin-left: 0.3em;
  color: var(--peat-soft);
}
.about::after {
  content: ':';
}
.reason {
  color: var(--peat-soft);
}
.btn {
  height: auto;
  text-align: left;
  line-height: 1.25;
}
.plain {
  min-height: 44px;
  padding: 4px 0;
  border: 0;
  background: none;
  color: var(--water);
  text-decoration: underline;
}
textarea {
  margin: 4px 0;
}
</style>
