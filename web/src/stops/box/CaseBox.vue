<script setup lang="ts">
import { computed } from 'vue';

import type { Layer, MakeOf } from '@/api/types';
import { explodedCase } from '@/drawing/closed';
import SlabFaces from '@/drawing/SlabFaces.vue';
import DraftField from '@/parts/DraftField.vue';
import SumOf from '@/parts/SumOf.vue';
import { useShipment } from '@/shipment/useShipment';
import { useHouse } from '@/stops/guard/useHouse';
import { kilograms } from '@/units/show';
import { useUnits } from '@/units/useUnits';
import { capital, counted } from '@/words/grammar';

import BoxActs from './BoxActs.vue';
import WrappedMeasure from './WrappedMeasure.vue';

/** A travel case: what it is sawn from, what holds it together, and how it comes back. */
const { layer } = defineProps<{ layer: Layer }>();
const { draft, save, caseBack } = useShipment();
const house = useHouse();
const units = useUnits();

const ROOM = { width: 420, height: 300 };
const made = computed(() => layer.make as MakeOf<'travel_case'>);
const drawn = computed(() => explodedCase(made.value, ROOM));
const inside = computed(() => units.size(...(made.value.inside_mm as [number, number, number])));
const between = computed(() =>
  units.size(
    ...(made.value.inside_mm.map((side) => side - 2 * made.value.lining_mm) as [number, number, number]),
  ),
);
const face = computed(() => units.size(...(made.value.face_mm as [number, number])));
/** One line for each stock length, alike ones together. */
const sawn = computed(() => {
  const lines = made.value.stock.map(({ of, length_mm, cuts_mm, left_mm }) => ({
    of: `${of}, ${units.length(length_mm)}`,
    runs: cuts_mm.map((at) => units.number(at)).join(', '),
    left: units.length(left_mm),
  }));
  return [...new Map(lines.map((line) => [JSON.stringify(line), line])).entries()].map(([key, line]) => ({
    ...line,
    key,
    count: lines.filter((other) => JSON.stringify(other) === key).length,
  }));
});
/** A case that left before its screws were listed has no list of them. */
const known = computed(() => made.value as Partial<typeof made.value>);
const JOINS: Readonly<Record<(typeof made.value.joints)[number]['joins'], string>> = {
  plate: 'plates across the glued joint',
  cleat: 'cleats over joined lengths',
  corner: 'corners of the frame',
  brace: 'corner braces',
  foot: 'feet',
  handle: 'handles',
  batten: 'battens on the faces',
  butt: 'joints of the faces',
  floor: 'floor on the frame',
  lid: 'lid on the frame',
};
const joints = computed(() =>
  (known.value.joints ?? []).map((joint) => ({
    key: joint.joins,
    joins: JOINS[joint.joins],
    screws: `${joint.count} × ${units.length(joint.screw_mm)}, from ${joint.from_inside ? 'inside' : 'outside'}`,
    hole: `drill ${units.unit.value === 'in' ? units.length(joint.drill_mm) : `${joint.drill_mm} mm`}, stop at ${units.length(joint.stop_mm)}`,
  })),
);
const partsOfAFace = computed(() => known.value.parts_of_a_face ?? 1);
const part = computed(() =>
  units.size((made.value.face_mm[0] ?? 0) / partsOfAFace.value, made.value.face_mm[1] ?? 0),
);
const hardware = computed(() =>
  [
    counted(made.value.screws, 'screw'),
    counted(made.value.braces, 'corner brace'),
    made.value.handles > 0 && counted(made.value.handles, 'handle'),
    made.value.feet === 1 ? 'one foot' : `${made.value.feet} feet`,
  ]
    .filter(Boolean)
    .join(', '),
);
/** It was built for an earlier shipment: there is nothing to saw. */
const kept = computed(() => known.value.kept ?? false);
function cutABox(): void {
  Object.assign(draft.choices, { travel_case: false, case_empty: '', case_from: '', case_kept: null });
  void save();
}
</script>

<template>
  <div class="case" data-test="case">
    <section>
      <h2>Travel case</h2>
      <p>{{ layer.why }}</p>
      <DraftField
        v-if="!kept"
        path="choices.case_board"
        label="Its faces"
        :codes="house.allBoards.value"
        :empty="`House rule: ${house.boardName(house.materials.value?.case_board)}`"
      />
      <dl class="figure">
        <dt>inside</dt>
        <dd>{{ inside }}, with {{ units.length(made.lining_mm) }} of lining all round</dd>
        <template v-if="kept">
          <dt>holds</dt>
          <dd>{{ between }} between its linings; flat sheets fill what is left</dd>
        </template>
        <dt>outside</dt>
        <dd>{{ units.size(layer.envelope.across_mm, layer.envelope.up_mm, layer.envelope.through_mm) }}</dd>
        <dt>empty</dt>
        <dd>
          {{ kilograms(made.empty_g)
          }}{{ kept || draft.choices.case_empty ? ', weighed' : ': weigh it once, when it is built' }}
        </dd>
        <dt>cost</dt>
        <dd>
          <SumOf of="materials" :sum="layer.cost" /> a journey<template v-if="!kept"
            >, of {{ made.journeys }} that it is built for</template
          >
        </dd>
        <dt>{{ kept ? 'work' : 'to build' }}</dt>
        <dd>
          <template v-if="!kept">{{ (known.build_minutes ?? layer.minutes).toFixed(0) }} min once; </template
          >{{ layer.minutes.toFixed(0) }} min a journey
        </dd>
      </dl>
      <DraftField v-if="!kept" path="choices.case_empty" hint="with its lid, lining and every screw" />
      <p v-if="caseBack" class="soft" data-test="case-back">
        It comes back: ask for a deposit of {{ caseBack.deposit.amount }} {{ caseBack.deposit.currency
        }}<template v-if="caseBack.carriage"
          >; empty, with the same service, carriage is about {{ caseBack.carriage.amount }}
          {{ caseBack.carriage.currency }}</template
        >.
      </p>
      <button type="button" class="btn btn-outline-secondary no-print" @click="cutABox">
        Cut a box instead
      </button>
      <WrappedMeasure />
    </section>
    <section>
      <template v-if="!kept">
        <h3>Pulled apart</h3>
        <div class="panel">
          <svg
            :viewBox="`-4 -4 ${ROOM.width + 8} ${ROOM.height + 8}`"
            role="img"
            aria-label="Floor, frame and lid of the case, one over the other"
          >
            <SlabFaces :faces="drawn" />
          </svg>
        </div>
        <h3>Cut list, in {{ units.unit.value }}</h3>
        <table class="figure">
          <tbody>
            <tr>
              <th scope="row">2 faces</th>
              <td>
                {{ face }}, {{ layer.material_name
                }}<template v-if="partsOfAFace > 1"
                  >: each from {{ partsOfAFace }} parts of {{ part }}</template
                >
              </td>
            </tr>
            <tr v-for="one in made.battens" :key="one.name">
              <th scope="row">{{ one.count }} × {{ one.name }}</th>
              <td>{{ units.length(one.length_mm) }}, {{ one.of }}</td>
            </tr>
          </tbody>
        </table>
        <h3>Battens sawn, running</h3>
        <table class="figure">
          <tbody>
            <tr v-for="one in sawn" :key="one.key">
              <th scope="row">{{ one.count > 1 ? `${one.count} × ` : '' }}{{ one.of }}</th>
              <td>saw at {{ one.runs }}; {{ one.left }} left</td>
            </tr>
          </tbody>
        </table>
        <p class="soft figure">
          {{ capital(counted(made.stock.length, 'length')) }}; at least {{ made.least_lengths }} are needed.
          {{ capital(hardware) }}; {{ made.lid_screws }} of the screws hold the lid.
        </p>
        <template v-if="joints.length > 0">
          <h3>Screws and holes</h3>
          <table class="figure" data-test="joints">
            <tbody>
              <tr v-for="joint in joints" :key="joint.key">
                <th scope="row">{{ joint.joins }}</th>
                <td>{{ joint.screws }}</td>
                <td>{{ joint.hole }}</td>
              </tr>
            </tbody>
          </table>
        </template>
      </template>
      <h3>Steps</h3>
      <BoxActs />
      <p v-for="caution in layer.cautions" :key="caution" class="soft">{{ caution }}</p>
    </section>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.case {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}
h2 {
  margin: 0 0 4px;
  font-size: var(--type-lead);
}
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
dl {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 4px 12px;
  margin: 12px 0;
}
dt {
  color: var(--peat-soft);
  font-weight: 400;
}
dd {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 320px;
}
table {
  width: 100%;
}
th,
td {
  padding: 3px 12px 3px 0;
  border-bottom: 1px solid var(--sedge);
  font-weight: 400;
  text-align: left;
}
th {
  width: 45%;
  font-weight: 600;
}
@include at.tablet {
  .case {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
