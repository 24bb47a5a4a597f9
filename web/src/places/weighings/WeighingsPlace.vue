<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { useRead } from '@/api/queries';
import { capital, count, counted } from '@/words/grammar';
import EmptyPlace from '@/parts/EmptyPlace.vue';
import { vSay } from '@/said/say';
import { difference } from '@/stops/weigh/verdict';
import { kilograms } from '@/units/show';

/** What all readings say about the densities of the stores, and what taking that over would do. */
const { data, away, reload } = useRead({
  queryKey: ['weighings'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/weighings', { signal })),
});
const proposed = computed(() => data.value?.materials.filter((row) => row.proposed) ?? []);
const others = computed(() => data.value?.materials.filter((row) => !row.proposed) ?? []);
const wanted = ref<string[]>([]);
const says = ref('');
watch(proposed, (rows) => {
  wanted.value = rows.map(({ material }) => material);
});

const percent = (now: number, then: number) => {
  const by = (then / now - 1) * 100;
  return `${by < 0 ? '−' : '+'}${Math.abs(by).toFixed(1)}\u00a0%`;
};

async function take(): Promise<void> {
  if (!data.value) return;
  const body = { version: data.value.version, materials: wanted.value };
  try {
    await answer(api.POST('/api/v1/weighings/densities', { body }));
    says.value = 'Taken over: every plan follows the new densities.';
  } catch (error) {
    says.value =
      error instanceof Refused
        ? 'The materials changed meanwhile, so nothing was applied. Check again.'
        : 'The server doesn’t answer, and nothing was applied. Try again.';
  }
  await reload();
}
</script>

<template>
  <div class="page">
    <h1>Scale readings</h1>
    <p class="soft">
      Readings of parcels packed as planned show how much your board, paper and wrap weigh. Where several
      agree, a better density is proposed. Nothing changes until you apply it.
    </p>
    <p v-if="away" v-say class="stop">The server does not answer. Trying again.</p>
    <p v-if="says" v-say>{{ says }}</p>
    <template v-if="data">
      <EmptyPlace
        v-if="data.weighings.length === 0"
        drawing="scale"
        says="Nothing was weighed yet. Weigh a packed parcel at Weigh, and take the reading."
      >
        <RouterLink to="/" class="btn btn-primary">To the bench</RouterLink>
      </EmptyPlace>
      <template v-else>
        <p class="figure" data-test="effect">
          {{ counted(data.weighings.length, 'parcel') }} weighed. On average the plan was off by
          <strong>{{ difference(data.off_now_g) }}</strong><template v-if="proposed.length > 0"
            >; with what is proposed it would have been
            <strong>{{ difference(data.off_then_g) }}</strong></template
          >.
        </p>
        <table v-if="proposed.length > 0" class="panel figure">
          <caption class="visually-hidden">
            Proposed densities
          </caption>
          <thead class="soft">
            <tr>
              <th scope="col">take over</th>
              <th scope="col">material</th>
              <th scope="col" class="number extra">now</th>
              <th scope="col" class="number">by the readings</th>
              <th scope="col" class="number extra">give or take</th>
              <th scope="col" class="number">change</th>
              <th scope="col" class="number extra">parcels</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in proposed" :key="row.material">
              <td>
                <label class="tick"
                  ><input
                    v-model="wanted"
                    type="checkbox"
                    class="form-check-input"
                    :value="row.material"
                    :name="`take.${row.material}`"
                  /><span class="visually-hidden">Take over {{ row.name }}</span></label
                >
              </td>
              <th scope="row">{{ row.name }}</th>
              <td class="number extra">{{ row.now }} {{ row.unit }}</td>
              <td class="number">
                <strong>{{ row.then }} {{ row.unit }}</strong>
              </td>
              <td class="number extra">{{ row.plus_minus }}</td>
              <td class="number">{{ percent(row.now, row.then) }}</td>
              <td class="number extra">{{ row.weighings }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else>
          The readings agree with the materials, or are too few to say: three parcels at least, and a change
          larger than its own doubt.
        </p>
        <BButton v-if="proposed.length > 0" variant="primary" :disabled="wanted.length === 0" @click="take">
          Take over {{ wanted.length === 1 ? 'one density' : `${count(wanted.length)} densities` }}
        </BButton>
        <details v-if="others.length > 0">
          <summary>{{ capital(counted(others.length, 'material')) }} that stay as they are</summary>
          <ul class="figure">
            <li v-for="row in others" :key="row.material">
              {{ row.name }}: {{ row.now }} {{ row.unit }}, in {{ counted(row.weighings, 'parcel') }}
            </li>
          </ul>
        </details>
        <h2>The parcels</h2>
        <table class="panel figure">
          <caption class="visually-hidden">
            Weighed parcels
          </caption>
          <thead class="soft">
            <tr>
              <th scope="col">parcel</th>
              <th scope="col" class="number">weighed</th>
              <th scope="col" class="number">planned now</th>
              <th scope="col" class="number extra">with what is proposed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, at) in data.weighings" :key="at">
              <th scope="row">{{ row.title || 'Untitled' }}</th>
              <td class="number">{{ kilograms(row.read_g) }}</td>
              <td class="number">{{ kilograms(row.planned_g) }}</td>
              <td class="number extra">{{ kilograms(row.then_g) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1240px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
h2 {
  margin: 16px 0 4px;
  font-size: var(--type-lead);
}
table {
  width: 100%;
  max-width: 960px;
  margin: 8px 0 16px;
}
th,
td {
  padding: 8px 12px;
  font-weight: 400;
  text-align: left;
}
tbody tr {
  border-top: 1px solid var(--sedge);
}
.number {
  text-align: right;
}
.tick {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-width: 44px;
  min-height: 44px;
}
.tick input {
  width: 22px;
  height: 22px;
}
.stop {
  color: var(--rowan);
  font-weight: 600;
}
@include at.phone {
  .extra {
    display: none;
  }
  th,
  td {
    padding: 6px;
  }
}
</style>
