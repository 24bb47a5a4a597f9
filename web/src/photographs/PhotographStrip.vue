<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onScopeDispose, ref, shallowReactive, watch } from 'vue';

import { answer, api, done } from '@/api/client';
import { useRead } from '@/api/queries';
import FilePick from '@/parts/FilePick.vue';
import { vSay } from '@/said/say';
import { dayAndTime } from '@/units/show';

import { scaled } from './scaled';
import { arrived, discard, take, waiting } from './waiting';

/** The photographs of one step, those on their way too, and more of them from the camera or a file. */
const { shipment, step } = defineProps<{ shipment: string; step: string }>();

const { data, reload } = useRead({
  queryKey: computed(() => ['photographs', shipment]),
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/shipments/{id}/photographs', { params: { path: { id: shipment } }, signal })),
});
watch(arrived, () => void reload());

const kept = computed(() => (data.value ?? []).filter((photograph) => photograph.step === step));
const here = computed(() =>
  waiting.value.filter(
    (photograph) =>
      photograph.shipment === shipment &&
      photograph.step === step &&
      !kept.value.some(({ id }) => id === photograph.id),
  ),
);
/** The pictures of those that wait, let go of when they are gone. */
const pictures = shallowReactive(new Map<string, string>());
watch(
  here,
  (now) => {
    for (const { id, file } of now) if (!pictures.has(id)) pictures.set(id, URL.createObjectURL(file));
    for (const [id, url] of pictures) {
      if (now.some((photograph) => photograph.id === id)) continue;
      URL.revokeObjectURL(url);
      pictures.delete(id);
    }
  },
  { immediate: true },
);
onScopeDispose(() => {
  for (const url of pictures.values()) URL.revokeObjectURL(url);
});

const busy = ref(false);
const trouble = ref('');
async function chosen(files: File[]): Promise<void> {
  busy.value = true;
  trouble.value = '';
  try {
    for (const file of files) {
      await take({
        id: crypto.randomUUID(),
        shipment,
        step,
        taken_at: new Date().toISOString(),
        file: await scaled(file),
      });
    }
  } catch {
    trouble.value = 'This browser has no room for it. Send those that wait first, or free some space.';
  }
  busy.value = false;
}

async function throwAway(id: string): Promise<void> {
  trouble.value = '';
  const path = { id: shipment, photograph: id };
  await done(api.DELETE('/api/v1/shipments/{id}/photographs/{photograph}', { params: { path } })).catch(
    (error: unknown) => {
      trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
    },
  );
  await reload();
}
const at = (id: string) => `/api/v1/shipments/${shipment}/photographs/${id}`;
</script>

<template>
  <div class="strip no-print" data-test="photographs">
    <FilePick
      accept="image/*"
      several
      :says="busy ? 'Making it smaller…' : 'Photograph'"
      :disabled="busy"
      @picked="chosen"
    />
    <figure v-for="photograph in kept" :key="photograph.id" data-test="kept">
      <a :href="at(photograph.id)" target="_blank" rel="noopener">
        <img :src="at(photograph.id)" :alt="`Photograph of ${dayAndTime(photograph.taken_at)}`" />
      </a>
      <figcaption class="soft figure">
        {{ dayAndTime(photograph.taken_at) }}
        <BButton size="sm" variant="link" @click="throwAway(photograph.id)">Throw away</BButton>
      </figcaption>
    </figure>
    <figure v-for="photograph in here" :key="photograph.id" data-test="waiting">
      <img
        v-if="photograph.refused === undefined"
        :src="pictures.get(photograph.id)"
        alt="A photograph that waits"
      />
      <figcaption v-if="photograph.refused" class="stop">
        Not taken: {{ photograph.refused }}
        <BButton size="sm" variant="link" @click="discard(photograph.id)">Throw away</BButton>
      </figcaption>
      <figcaption v-else class="soft">waits to be sent</figcaption>
    </figure>
    <p v-if="trouble" v-say class="stop">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: flex-start;
  margin: 12px 0;
}
label {
  display: inline-flex;
  align-items: center;
  min-height: 64px;
  font-size: var(--type-lead);
}
label:focus-within {
  outline: 3px solid var(--heather);
}
figure {
  max-width: 180px;
  margin: 0;
}
img {
  display: block;
  max-width: 180px;
  height: 110px;
  border: 1px solid var(--sedge);
  object-fit: cover;
}
figcaption {
  font-size: var(--type-small);
}
.stop {
  color: var(--rowan);
}
</style>
