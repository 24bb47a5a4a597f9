<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { useRead } from '@/api/queries';
import type { CarrierReach } from '@/api/types';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';

/** Where the carrier’s own service is, and what the studio is known by there; the key is never shown again. */
const { tariff } = defineProps<{ tariff: string }>();
const path = computed(() => ({ id: tariff }));
const { data: kept, reload } = useRead({
  queryKey: computed(() => ['carrier-service', tariff]),
  queryFn: ({ signal }) =>
    answer(api.GET('/api/v1/tariffs/{id}/service', { params: { path: path.value }, signal })),
});
const REACH: Record<CarrierReach, string> = {
  own: 'asked over https',
  shared: 'asked at the address that Hummock was started with',
  simulated: 'simulated: nothing is really booked',
  none: 'none: by these prices alone',
};
const address = ref('');
const header = ref('');
const key = ref('');
watch(kept, (now, before) => {
  if (!now || (before && address.value !== before.address)) return;
  address.value = now.address;
  header.value = now.header;
});
const errors = ref<Record<string, string>>({});
const says = ref('');

async function tried(act: () => Promise<unknown>, done: string): Promise<void> {
  errors.value = {};
  says.value = '';
  try {
    await act();
    key.value = '';
    says.value = done;
  } catch (error) {
    if (error instanceof Refused && error.problem.status === 422) errors.value = error.fields;
    else says.value = error instanceof Error ? error.message : 'something went wrong in the page';
    return;
  }
  await reload();
}
const keep = () =>
  tried(
    () =>
      answer(
        api.PUT('/api/v1/tariffs/{id}/service', {
          params: { path: path.value },
          body: { address: address.value, header: header.value, key: key.value || null },
        }),
      ),
    'Saved: the carrier is asked from now on.',
  );
const forget = () =>
  tried(async () => {
    await answer(api.DELETE('/api/v1/tariffs/{id}/service', { params: { path: path.value } }));
    address.value = '';
    header.value = '';
  }, 'Deleted, with its key.');
</script>

<template>
  <details class="service">
    <summary>
      <h2>The carrier’s own service</h2>
      <span class="soft" data-test="reach">{{ REACH[kept?.reach ?? 'none'] }}</span>
    </summary>
    <p class="soft">
      Prices are confirmed, parcels booked and followed there. Enter the address and key of a service. The
      file docs/carriers.md describes what it has to answer.
    </p>
    <TextField
      v-model="address"
      label="Address"
      name="address"
      placeholder="https://"
      :error="errors.address"
    />
    <div class="fields">
      <TextField
        v-model="header"
        label="Header"
        name="header"
        placeholder="Authorization"
        :error="errors.header"
      />
      <TextField
        v-model="key"
        type="password"
        autocomplete="off"
        label="Key"
        name="key"
        :placeholder="kept?.has_key ? 'kept, never shown' : ''"
        :error="errors.key"
      />
    </div>
    <BButton size="sm" :disabled="address.trim() === ''" @click="keep">Keep the key</BButton>
    <BButton v-if="kept?.has_key" size="sm" variant="link" @click="forget">Forget it</BButton>
    <p v-if="says" v-say class="soft" data-test="service">{{ says }}</p>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}
h2 {
  display: inline;
  margin-right: 8px;
  font-size: var(--type-lead);
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
}
</style>
