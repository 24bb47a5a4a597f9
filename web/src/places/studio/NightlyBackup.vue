<script setup lang="ts">
import { computed } from 'vue';

import type { Backup } from '@/api/types';
import { counted } from '@/words/grammar';
import { vSay } from '@/said/say';
import * as show from '@/units/show';

import { size } from './size';

/** The backups of every night: the last one and its age, or how to have them. */
const { nightly } = defineProps<{ nightly: Backup['nightly'] }>();

const LATE_DAYS = 2;
const last = computed(() => nightly?.last ?? undefined);
const late = computed(() => (last.value?.days_ago ?? 0) >= LATE_DAYS);
const ago = computed(() => {
  const days = last.value?.days_ago ?? 0;
  return days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
});
</script>

<template>
  <div data-test="nightly">
    <h3>Every night</h3>
    <template v-if="nightly">
      <p :class="{ mind: late }">
        <template v-if="last">
          The last one was made {{ ago }}, on {{ show.dayAndYear(last.on) }}: {{ size(last.bytes) }},
          {{ nightly.sealed ? 'sealed with a passphrase' : 'not sealed' }}. It was read once after it was
          made.
        </template>
        <template v-else>No backup yet. The first is made within a day of the first shipment.</template>
      </p>
      <p class="soft">
        {{ counted(nightly.kept, 'backup') }} kept in <code>{{ nightly.folder }}</code>: of the last seven
        days, four weeks and twelve months. Keep that folder on another disk.
      </p>
      <p v-if="nightly.failed" v-say class="stop" data-test="nightly-failed">
        The last one was not made: {{ nightly.failed }}.
      </p>
    </template>
    <p v-else class="soft">
      No automatic backups. Start Hummock with a folder on another disk for a backup every night:
      <code class="line">bin/start --backups /mnt/disk/hummock</code>
    </p>
  </div>
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
  font-size: var(--type-strong);
}
p {
  margin: 0 0 6px;
}
code {
  color: var(--peat);
  overflow-wrap: anywhere;
}
.line {
  display: block;
  margin-top: 4px;
}
.stop {
  color: var(--rowan);
}
</style>
