<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';

import { answer, api } from '@/api/client';
import { read } from '@/api/queries';
import type { ShipmentShelf } from '@/api/types';
import { layOut } from '@/places/cutting/layOut';
import { vSay } from '@/said/say';
import { useShipment } from '@/shipment/useShipment';

import ShortLine from './ShortLine.vue';
import { useTakes } from './useTakes';

/** What the shipment takes off the shelf: what is short first, with what helps; taken with the first tick at Pack. */
const { id, draft } = useShipment();
const router = useRouter();
const { key, data, short, named, counted, reload } = useTakes();
const trouble = ref('');
const busy = ref(false);
const taken = computed(() => data.value?.taken ?? undefined);
/** Packing takes and gives back by itself; what was taken before that is given back here. */
const begun = computed(() => Object.values(draft.packed).some((tick) => !tick.sheet));
const less = computed(() => taken.value?.filter((line) => line.amount < line.wanted) ?? []);

async function doing(what: () => Promise<void>): Promise<void> {
  trouble.value = '';
  busy.value = true;
  try {
    await what();
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'something went wrong in the page';
  } finally {
    busy.value = false;
  }
}
const path = { params: { path: { id } } };
const giveBack = () =>
  doing(async () => {
    read.setQueryData(
      key.value,
      await answer<ShipmentShelf>(api.DELETE('/api/v1/shipments/{id}/shelf', path)),
    );
  });
const cut = () =>
  doing(async () => {
    await router.push(await layOut([id]));
  });
</script>

<template>
  <section v-if="data" class="shelf" aria-label="From what is in stock">
    <div class="heading-row">
      <h2>From what is in stock</h2>
      <BButton size="sm" class="no-print" :disabled="busy" @click="cut">Lay its parts out on sheets</BButton>
      <BButton v-if="taken && !begun" size="sm" class="no-print" :disabled="busy" @click="giveBack"
        >Give it back</BButton
      >
    </div>
    <p v-if="trouble" v-say class="notice">{{ trouble }}</p>
    <p v-if="taken" v-say data-test="taken">
      Taken from stock, {{ taken.length }} kinds{{
        less.length > 0 ? `; of ${less.map(({ name }) => name).join(', ')} there was less than it takes` : ''
      }}. Parts in a cutting layout are not taken twice.
    </p>
    <p v-else class="soft">The first tick at Pack takes it off the shelf.</p>
    <p v-if="data.changed && !begun" v-say class="notice">
      The plan has changed since: give it back, and take what it needs now.
    </p>
    <ul v-if="short.length > 0 && !taken" v-say class="short">
      <ShortLine v-for="(line, at) in short" :key="at" :line="line" />
    </ul>
    <p v-else-if="!taken" class="soft">All that is counted is there.</p>
    <details v-if="!taken">
      <summary class="soft">All that it takes</summary>
      <table class="figure">
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">takes</th>
            <th scope="col">there</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(line, at) in data.lines" :key="at">
            <th scope="row">{{ named(line) }}</th>
            <td>{{ counted(line.needs, line) }}</td>
            <td>
              {{ line.left === null || line.left === undefined ? 'not counted' : counted(line.left, line) }}
            </td>
          </tr>
        </tbody>
      </table>
    </details>
    <BButton v-if="trouble" size="sm" @click="reload">Look again</BButton>
  </section>
</template>

<style scoped>
.shelf .heading-row {
  justify-content: flex-start;
  align-items: center;
}
.shelf {
  margin: 12px 0;
  padding-top: 8px;
  border-top: 1px solid var(--sedge);
}
h2 {
  margin: 0 16px 0 0;
  font-size: var(--type-strong);
}
.short {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  cursor: pointer;
}
th,
td {
  padding: 3px 16px 3px 0;
  font-weight: 400;
  text-align: left;
}
</style>
