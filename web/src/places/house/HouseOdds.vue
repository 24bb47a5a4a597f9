<script setup lang="ts">
import type { Studio } from '@/api/types';
import { HAZARDS } from '@/words/vocabulary';
import NumberField from '@/parts/NumberField.vue';
import TickField from '@/parts/TickField.vue';
import { vSay } from '@/said/say';

import type { EditedOdds, Hazard } from './useOdds';

/** How often each kind of piece arrives damaged, by what, and how rough each route is. */
const { studio, errors } = defineProps<{ studio: Studio; errors: Record<string, string> }>();
const odds = defineModel<EditedOdds>({ required: true });

/** A row may have the number at a smaller size too, or at a larger one. */
const ENDS = ['small', 'large'] as const;
const HAZARD_KEYS = Object.keys(HAZARDS) as Hazard[];
</script>

<template>
  <details class="tables">
    <summary>
      Odds of a journey <span class="soft">trade judgement until your own record says otherwise</span>
    </summary>
    <p class="soft">
      Of a hundred such pieces in the Standard pack, on a national way: how many arrive damaged, and the share
      of each cause. The six shares come to 100. Between two sizes of a kind the number goes evenly; below the
      first and above the last it stays. Sizes are the longest side in mm, of panes and mirrors the glass in
      m².
    </p>
    <div>
      <table class="stacked" data-test="classes">
        <thead>
          <tr>
            <th scope="col">kind of piece</th>
            <th scope="col">of a hundred</th>
            <th scope="col">at a size of, mm (glass: m²)</th>
            <th v-for="hazard in HAZARD_KEYS" :key="hazard" scope="col">{{ HAZARDS[hazard] }}, %</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="known in studio.classes" :key="known.class">
            <th scope="row">
              {{ known.name }}
              <span v-if="errors[`odds.classes.${known.class}.shares_percent`]" v-say class="error">
                {{ errors[`odds.classes.${known.class}.shares_percent`] }}
              </span>
            </th>
            <template v-if="odds.classes[known.class]">
              <td data-is="of a hundred">
                <NumberField
                  v-model="odds.classes[known.class]!.base_percent"
                  :label="`Of a hundred, ${known.name}`"
                  :name="`odds.${known.class}.base`"
                  :error="errors[`odds.classes.${known.class}.base_percent`]"
                  bare
                />
              </td>
              <td data-is="at a size of, mm (glass: m²)" class="sizes">
                <template v-if="odds.classes[known.class]!.base_size != null">
                  <NumberField
                    v-model="odds.classes[known.class]!.base_size"
                    :label="`Size, ${known.name}`"
                    :name="`odds.${known.class}.size`"
                    :error="errors[`odds.classes.${known.class}.base_size`]"
                    bare
                  />
                </template>
                <span v-else class="soft">any</span>
                <template v-for="end in ENDS" :key="end">
                  <span v-if="odds.classes[known.class]![`base_size_${end}`] != null" class="end">
                    <NumberField
                      v-model="odds.classes[known.class]![`base_percent_${end}`]"
                      :label="`Of a hundred, ${known.name}, ${end}`"
                      :name="`odds.${known.class}.base_${end}`"
                      :error="errors[`odds.classes.${known.class}.base_percent_${end}`]"
                      bare
                    />
                    <span class="soft">at</span>
                    <NumberField
                      v-model="odds.classes[known.class]![`base_size_${end}`]"
                      :label="`Size, ${known.name}, ${end}`"
                      :name="`odds.${known.class}.size_${end}`"
                      :error="errors[`odds.classes.${known.class}.base_size_${end}`]"
                      bare
                    />
                  </span>
                </template>
              </td>
              <td v-for="hazard in HAZARD_KEYS" :key="hazard" :data-is="`${HAZARDS[hazard]}, %`">
                <NumberField
                  v-model="odds.classes[known.class]!.shares_percent[hazard]"
                  :label="`${HAZARDS[hazard]}, ${known.name}`"
                  :name="`odds.${known.class}.${hazard}`"
                  bare
                />
              </td>
            </template>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="pair">
      <div>
        <h3>Routes</h3>
        <table class="stacked" data-test="routes">
          <thead>
            <tr>
              <th scope="col">way</th>
              <th scope="col">against national</th>
              <th scope="col">wet</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="known in studio.routes" :key="known.route">
              <th scope="row">{{ known.name }}</th>
              <template v-if="odds.routes[known.route]">
                <td data-is="against national">
                  <NumberField
                    v-model="odds.routes[known.route]!.roughness"
                    :label="`Roughness, ${known.name}`"
                    :name="`odds.${known.route}.roughness`"
                    :error="errors[`odds.routes.${known.route}.roughness`]"
                    bare
                  />
                </td>
                <td data-is="wet">
                  <TickField
                    v-model="odds.routes[known.route]!.wet"
                    :label="`Wet, ${known.name}`"
                    :name="`odds.${known.route}.wet`"
                    bare
                  />
                </td>
              </template>
            </tr>
          </tbody>
        </table>
      </div>
      <div>
        <NumberField
          v-model="odds.frail_times"
          label="Flaking, pastel, heavy impasto: times"
          name="odds.frail_times"
          hint="for each that holds"
          :error="errors['odds.frail_times']"
        />
        <NumberField
          v-model="odds.lost_percent"
          label="Lost altogether, of a hundred"
          name="odds.lost_percent"
          hint="on a national way"
          :error="errors['odds.lost_percent']"
        />
      </div>
    </div>
  </details>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 24px;
  align-items: end;
}
.sizes {
  min-width: 176px;
}
[data-test='classes'] tbody th {
  min-width: 116px;
}
.end {
  display: flex;
  margin-top: 4px;
  gap: 6px;
  align-items: baseline;
}
@include at.phone {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
