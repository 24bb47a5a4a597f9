<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';

import type { Studio } from '@/api/types';
import NumberField from '@/parts/NumberField.vue';

import type { EditedOdds } from './useOdds';

/** What this studio sent, and what of it arrived damaged: it overrules trade judgement as it grows. */
const { studio, errors } = defineProps<{ studio: Studio; errors: Record<string, string> }>();
const odds = defineModel<EditedOdds>({ required: true });

const add = () => odds.value.record.push({ class: 'canvas', route: 'national', sent: 0, damaged: 0 });
</script>

<template>
  <details class="tables" data-test="own-record">
    <summary>
      Your own record
      <span class="soft">{{
        odds.record.length === 0 ? 'nothing written down yet' : `${odds.record.length} lines`
      }}</span>
    </summary>
    <p class="soft">
      How many of each kind you sent on each route, and how many arrived damaged. The more you write down, the
      more the odds are yours.
    </p>
    <table v-if="odds.record.length > 0" class="stacked" data-test="record">
      <thead>
        <tr>
          <th scope="col">kind of piece</th>
          <th scope="col">route</th>
          <th scope="col">sent</th>
          <th scope="col">damaged</th>
          <th scope="col"><span class="visually-hidden">take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, at) in odds.record" :key="at">
          <td data-is="kind of piece">
            <BFormSelect v-model="row.class" :aria-label="`Kind of line ${at + 1}`">
              <option v-for="known in studio.classes" :key="known.class" :value="known.class">
                {{ known.name }}
              </option>
            </BFormSelect>
          </td>
          <td data-is="route">
            <BFormSelect v-model="row.route" :aria-label="`Route of line ${at + 1}`">
              <option v-for="known in studio.routes" :key="known.route" :value="known.route">
                {{ known.name }}
              </option>
            </BFormSelect>
          </td>
          <td data-is="sent">
            <NumberField
              v-model="row.sent"
              label="Sent"
              :name="`record.${at}.sent`"
              :error="errors[`odds.record[${at}].sent`]"
              bare
            />
          </td>
          <td data-is="damaged">
            <NumberField v-model="row.damaged" label="Damaged" :name="`record.${at}.damaged`" bare />
          </td>
          <td>
            <button type="button" class="plain" @click="odds.record.splice(at, 1)">Take away</button>
          </td>
        </tr>
      </tbody>
    </table>
    <BButton size="sm" @click="add">Add a line</BButton>
  </details>
</template>
