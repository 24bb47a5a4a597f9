<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, shallowRef } from 'vue';

import { answer, api } from '@/api/client';
import { useRead } from '@/api/queries';
import { useStudio } from '@/api/useStudio';
import FilePick from '@/parts/FilePick.vue';
import { vSay } from '@/said/say';
import { counted } from '@/words/grammar';
import * as show from '@/units/show';

import BrokenPictures from './BrokenPictures.vue';
import NightlyBackup from './NightlyBackup.vue';
import { size } from './size';
import { useBackup } from './useBackup';
import WaitingBackup from './WaitingBackup.vue';

/** The whole studio out as one file, and in again. */
const { backup, away, trouble, sending, make, bringIn, goOn, giveUp } = useBackup();

const holds = (what: { shipments: number; photographs: number }) =>
  `${counted(what.shipments, 'shipment')} and ${counted(what.photographs, 'photograph')}`;

const doing = computed(() => backup.value?.doing);
/** Whatever is being sent may have been given up with its page: another may be chosen in its place. */
const busy = computed(() => sending.value || (doing.value ? doing.value.what !== 'receiving' : false));
const far = computed(() => {
  const now = doing.value;
  if (!now) return '';
  const things = `${show.grouped(now.done)} of ${show.grouped(now.of)} shipments and photographs`;
  const said = {
    making: `Making it: ${things}`,
    checking: `Reading it once: ${things}`,
    receiving: `Sending it: ${size(now.done)} of ${size(now.of)}`,
    reading: `Reading it in: ${things}`,
  };
  return said[now.what];
});

/** The file that was chosen, while nobody has said yet that it may take the place of what is here. */
const picked = shallowRef<File>();
function chosen([file]: File[]): void {
  picked.value = file;
}
async function replace(): Promise<void> {
  const file = picked.value;
  picked.value = undefined;
  if (file) await bringIn(file);
}
const { studio } = useStudio();
const { data: tariffs } = useRead({
  queryKey: ['tariffs'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/tariffs', { signal })),
  enabled: computed(() => picked.value !== undefined),
});
/** What a backup takes the place of, named. */
const replaces = computed(() => {
  const named = studio.value?.name;
  const sheets = tariffs.value?.length ?? 0;
  return [
    named ? `the name and address of ${named}` : 'the name and address',
    'the settings and countries',
    'the house rules and presets',
    'the materials',
    sheets > 0 ? counted(sheets, 'price list') : '',
  ]
    .filter(Boolean)
    .join(', ');
});
</script>

<template>
  <section aria-label="Backup" data-test="backup">
    <h2>Backup</h2>
    <p class="soft">
      The whole studio in one file: house rules, stores, tariffs, shelf, all shipments with their plans and
      bookings, and photographs. Keep it on another disk. It is a zip file of plain lists and pictures. It
      holds names and addresses: keep it private.
    </p>
    <p v-if="away" v-say class="soft">The server can’t be reached. Trying again.</p>
    <template v-if="backup">
      <div v-if="doing && doing.what !== 'receiving'" class="far">
        <progress :value="doing.done" :max="Math.max(doing.of, 1)" :aria-label="far"></progress>
        <span data-test="backup-far">{{ far }}</span>
      </div>
      <div class="row-of">
        <a
          v-if="backup.made"
          class="btn btn-primary"
          href="/api/v1/studio/backup/file"
          download
          data-test="backup-file"
        >
          Save the file, {{ size(backup.made.bytes) }}
        </a>
        <BButton :variant="backup.made ? 'outline-secondary' : 'primary'" :disabled="busy" @click="make">
          {{ backup.made ? 'Make another' : 'Make a backup' }}
        </BButton>
      </div>
      <p v-if="backup.made" v-say data-test="backup-made">
        Made on {{ show.dayAndYear(backup.made.on) }}, with {{ holds(backup.made) }}. It was read once, and
        can be saved until the server stops.
        <template v-if="backup.made.without_picture">
          The picture of {{ counted(backup.made.without_picture, 'photograph') }} is not in it:
        </template>
      </p>
      <BrokenPictures
        v-if="backup.made?.without_picture"
        :broken="backup.made.broken"
        :all="backup.made.without_picture"
      />
      <p v-if="backup.failed || trouble" v-say class="stop" data-test="backup-trouble">
        It failed: {{ backup.failed ?? trouble }}.
      </p>

      <NightlyBackup :nightly="backup.nightly" />

      <h3>Bring a backup in</h3>
      <WaitingBackup v-if="backup.waiting" :waiting="backup.waiting" @go-on="goOn" @give-up="giveUp" />
      <p v-if="backup.read" v-say data-test="backup-read">
        {{ holds(backup.read) }} are here. Before it books or follows a parcel, this studio asks whether it
        speaks to carriers: <RouterLink :to="{ name: 'with-carriers' }">Carrier bookings</RouterLink>.
        <template v-if="backup.read.without_picture">
          For {{ counted(backup.read.without_picture, 'photograph') }} the file had no picture.
        </template>
        <a href="/">Open the bench</a>
      </p>
      <p v-else-if="!backup.empty" class="soft">
        A backup goes into a studio where nothing is kept yet; here
        {{ backup.shipments === 1 ? 'is' : 'are' }} {{ counted(backup.shipments, 'shipment') }}. Start an
        empty one beside it, and choose the file there:
        <code>bin/start --port 7380 --data another-folder --empty</code>
      </p>
      <template v-else-if="!backup.waiting">
        <div v-if="sending || doing?.what === 'receiving'" class="far">
          <progress :value="doing?.done ?? 0" :max="doing?.of ?? 1" :aria-label="far"></progress>
          <span>{{ far }}</span>
        </div>
        <div v-if="picked" class="asks" role="group" aria-label="Read it in?" data-test="backup-asks">
          <p v-say>
            <strong>{{ picked.name }}</strong>, {{ size(picked.size) }}, takes the place of {{ replaces }}.
            All of that is deleted. Only another backup can bring it back.
          </p>
          <div class="row-of">
            <BButton variant="primary" @click="replace">Replace it</BButton>
            <BButton variant="outline-secondary" @click="picked = undefined">Leave it as it is</BButton>
          </div>
        </div>
        <p v-else class="soft">
          No shipment is kept here yet. A backup replaces everything here, completely or not at all; it asks
          first.
        </p>
        <FilePick
          v-if="!picked"
          accept=".zip,.age,application/zip"
          name="backup"
          says="Choose a backup"
          :disabled="busy"
          @picked="chosen"
        />
      </template>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
  font-size: var(--type-lead);
}
h3 {
  margin: 16px 0 4px;
  font-size: var(--type-strong);
}
.asks {
  max-width: 560px;
  padding: 8px 12px;
  border: 1px solid var(--sedge);
  border-left: 4px solid var(--heather);
}
.row-of,
.far {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin: 8px 0;
}
progress {
  flex: 0 1 280px;
  height: 12px;
  accent-color: var(--heather);
}
code {
  display: block;
  margin-top: 4px;
  color: var(--peat);
}
label:focus-within {
  outline: 3px solid var(--heather);
}
.stop {
  color: var(--rowan);
}
</style>
