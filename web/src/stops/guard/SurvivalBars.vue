<script setup lang="ts">
import { computed } from 'vue';

import type { FallReport, Survival } from '@/api/types';
import { useStudio } from '@/api/useStudio';
import { useUnits } from '@/units/useUnits';

/** How far each kind of fall is survived, beside the height that parcels of this weight are dropped from. */
const { survival } = defineProps<{ survival: Survival }>();
const emit = defineEmits<{ look: [slot: string] }>();
const units = useUnits();
const { studio } = useStudio();

const NAMES: Record<FallReport['case'], string> = {
  face: 'flat on its face',
  back: 'flat on its back',
  long_edge: 'on a long edge',
  short_edge: 'on a short edge',
  corner: 'on a corner',
  tipping: 'tipping over',
};
/** The bar goes on past the customary height this far. */
const SHOWN = 1.4;

const rows = computed(() =>
  survival.falls.map((fall) => {
    const share = fall.survives_mm / fall.customary_mm;
    return {
      fall,
      name: NAMES[fall.case],
      meets: fall.passes,
      width: `${(Math.min(share, SHOWN) / SHOWN) * 100}%`,
      says: `${units.height(fall.survives_mm)} of ${units.height(fall.customary_mm, true)}`,
      shock: fall.by_velocity
        ? 'a knock that short does no harm'
        : fall.peak_g == null
          ? 'past the tested range, or a side is bare'
          : `${fall.peak_g.toFixed(0)} of ${fall.limit_g.toFixed(0)} G from there`,
    };
  }),
);
/** The layers that give out first where a fall is not met. */
const first = computed(() => {
  const short = survival.falls.filter((fall) => !fall.passes && fall.change_first);
  const slots = [...new Set(short.map((fall) => fall.change_first ?? ''))];
  return slots.map((slot) => ({ slot, name: slotName(slot) }));
});
const press = computed(() => survival.press ?? undefined);
const stack = computed(() => survival.stack ?? undefined);

function slotName(slot: string | null | undefined): string {
  return studio.value?.slots.find((known) => known.slot === slot)?.name ?? '';
}
</script>

<template>
  <section class="survives">
    <div class="heading-row">
      <h2>Survival</h2>
      <span v-if="survival.fragility.limit_g != null" class="soft figure">
        takes {{ survival.fragility.limit_g.toFixed(0) }} G{{ survival.fragility.set ? ', as set' : '' }}
      </span>
    </div>
    <ol v-if="rows.length > 0">
      <li v-for="row in rows" :key="row.name" :data-fall="row.fall.case">
        <span>{{ row.name }}</span>
        <span class="bar" aria-hidden="true">
          <span class="fill" :class="{ meets: row.meets }" :style="{ width: row.width }" />
        </span>
        <span class="figure says">{{ row.says }}</span>
        <span class="soft figure shock">{{ row.shock }}</span>
      </li>
    </ol>
    <p v-else class="soft">
      Loose sheets have nothing that a shock would break: they are bent, crushed or wetted instead.
    </p>
    <p v-if="first.length > 0" class="first">
      To change first:
      <button v-for="one in first" :key="one.slot" type="button" @click="emit('look', one.slot)">
        {{ one.name }}
      </button>
    </p>
    <p class="soft reason">{{ survival.fragility.reason }}</p>
    <dl class="figure">
      <template v-if="survival.boundary">
        <dt>knocks too short to harm it</dt>
        <dd>
          up to {{ survival.boundary.critical_velocity_m_s.toFixed(2) }} m/s, a fall of
          {{ units.height(survival.boundary.survives_mm, true) }} on the face
        </dd>
      </template>
      <template v-if="press">
        <dt>a corner on the face</dt>
        <dd :class="{ falls: !press.passes }">
          presses in {{ units.length(press.deflection_mm) }},
          {{
            press.stand_off_mm == null
              ? 'on a piece that bears it'
              : `${units.length(press.stand_off_mm)} are free`
          }}
        </dd>
      </template>
      <template v-if="stack">
        <dt>stacked on its edge</dt>
        <dd :class="{ falls: !stack.passes }">
          bears {{ stack.allowed_n.toFixed(0) }} N of {{ stack.load_n.toFixed(0) }} N,
          {{ stack.parcels }} like parcels{{ stack.indicative ? ', indicative' : '' }}
        </dd>
      </template>
    </dl>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.survives {
  margin-top: 12px;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 118px minmax(60px, 1fr) 100px;
  gap: 0 12px;
  align-items: center;
  padding: 3px 0;
}
.bar {
  position: relative;
  height: 16px;
  background: var(--trough);
}
.bar::after {
  position: absolute;
  top: -3px;
  bottom: -3px;
  left: 71.43%;
  border-left: 2px solid var(--peat);
  content: '';
}
.fill {
  display: block;
  height: 100%;
  background: repeating-linear-gradient(-45deg, var(--amber-moss) 0 6px, var(--amber-light) 6px 9px);
}
.fill.meets {
  background: var(--moss);
}
.says {
  text-align: right;
  font-weight: 600;
}
.shock {
  grid-column: 2;
  font-size: var(--type-small);
  line-height: 1.2;
}
.first {
  margin: 4px 0 0;
}
.first button {
  min-height: 44px;
  padding: 0 6px 0 0;
  border: 0;
  background: none;
  color: var(--water);
  text-decoration: underline;
}
.reason {
  margin: 4px 0;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 4px 0 0;
}
dt {
  font-weight: 400;
}
dd {
  margin: 0;
}
.falls {
  color: var(--amber-moss);
  font-weight: 600;
}
@include at.phone {
  li {
    grid-template-columns: 108px minmax(40px, 1fr) 92px;
    gap: 0 8px;
  }
}
</style>
