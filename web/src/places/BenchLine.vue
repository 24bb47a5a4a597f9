<script setup lang="ts">
import DotsIcon from '~icons/tabler/dots';

import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox';
import { BDropdown } from 'bootstrap-vue-next/components/BDropdown';
import { BDropdownItemButton } from 'bootstrap-vue-next/components/BDropdown';
import { computed } from 'vue';

import type { BenchRow, Place } from '@/api/types';
import ParcelFill from '@/drawing/ParcelFill.vue';
import { counted, oneIn, worded } from '@/words/grammar';
import { nextAct, stopOf } from '@/words/routes';
import { CONSTRUCTIONS, MEDIA } from '@/words/vocabulary';
import SumOf from '@/parts/SumOf.vue';
import * as show from '@/units/show';
import { useUnits } from '@/units/useUnits';

const { row, place } = defineProps<{ row: BenchRow; place: Place }>();
/** The shipments that are ticked. */
const chosen = defineModel<string[]>('chosen', { required: true });
const emit = defineEmits<{ put: [to: Place] }>();

const MOVES: { to: Place; text: string }[] = [
  { to: 'bench', text: 'Back to the bench' },
  { to: 'archive', text: 'Archive' },
  { to: 'bin', text: 'Delete' },
];
const units = useUnits();

const next = computed(() => nextAct(row.line.next));
const to = computed(() => ({ name: stopOf(row.line.next), params: { id: row.id } }));
const more = computed(() => Object.keys(row.inputs.others ?? {}).length);
const about = computed(() =>
  [
    worded(MEDIA, row.inputs.piece?.medium),
    worded(CONSTRUCTIONS, row.inputs.piece?.construction),
    more.value > 0 && `and ${counted(more.value, 'more piece')}`,
  ]
    .filter(Boolean)
    .join(', '),
);
</script>

<template>
  <li>
    <BFormCheckbox
      v-if="place === 'bench'"
      v-model="chosen"
      class="pick no-print"
      :value="row.id"
      name="together"
    >
      <span class="visually-hidden">Choose {{ row.inputs.title || 'Untitled' }}</span>
    </BFormCheckbox>
    <RouterLink :to="to" class="line">
      <ParcelFill class="picture" :stage="row.line.parcel" />
      <span class="piece">
        <strong>{{ row.inputs.title || 'Untitled' }}</strong>
        <span class="soft">{{ [about, row.inputs.buyer?.name].filter(Boolean).join(' · ') }}</span>
      </span>
      <span class="next">
        <strong :class="{ stop: next.stop }">{{ next.says }}</strong>
        <span v-if="row.summary?.one_in" class="odds figure" :class="{ past: row.summary.past_accepted }">
          {{ oneIn(row.summary.one_in.about) }} arrives damaged
        </span>
      </span>
      <span v-if="row.summary" class="size figure">
        {{
          units.size(row.summary.outside.across_mm, row.summary.outside.up_mm, row.summary.outside.through_mm)
        }}
        <span class="soft">
          {{ show.kilograms(row.summary.weight.mass_g) }} ±
          {{ show.kilograms(row.summary.weight.plus_minus_g) }}
        </span>
      </span>
      <span v-else class="size soft">no plan yet</span>
      <span class="price figure">
        <template v-if="row.summary?.best">
          <strong
            ><SumOf
              :of="row.summary.cost ? 'to_send' : 'quoted'"
              :sum="row.summary.cost?.to_send ?? row.summary.best.total"
            /><span class="visually-hidden"> to send</span></strong
          >
          <span class="soft">{{ row.summary.best.carrier }} {{ row.summary.best.service }}</span>
        </template>
        <strong v-else>–</strong>
      </span>
      <span class="promised figure">
        <template v-if="row.inputs.promised">
          {{ show.day(row.inputs.promised) }}
          <span class="soft">{{ show.weekday(row.inputs.promised) }}</span>
        </template>
        <span v-else class="soft">no day</span>
      </span>
    </RouterLink>
    <BDropdown class="moves no-print" size="sm" no-caret placement="bottom-end" lazy>
      <template #button-content>
        <DotsIcon aria-hidden="true" />
        <span class="visually-hidden">More for {{ row.inputs.title || 'Untitled' }}</span>
      </template>
      <template v-for="{ to: where, text } in MOVES" :key="where">
        <BDropdownItemButton v-if="where !== place" @click="emit('put', where)">{{
          text
        }}</BDropdownItemButton>
      </template>
    </BDropdown>
  </li>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--sedge);
}
.pick {
  flex: none;
  min-width: 44px;
  min-height: 44px;
  margin: 0;
  padding-top: 10px;
}
.moves {
  flex: none;
  align-self: flex-start;
  margin-top: 20px;
}
.moves :deep(.btn) {
  min-width: 40px;
  border-color: transparent;
  background: none;
}
.moves :deep(.btn:hover),
.moves :deep(.btn.show) {
  border-color: var(--peat);
}
.line {
  flex: 1 1 auto;
  min-width: 0;
  display: grid;
  grid-template-columns:
    116px minmax(180px, 1.6fr) minmax(170px, 1.3fr) minmax(200px, 1.3fr) minmax(130px, 0.9fr)
    70px;
  gap: 4px 20px;
  align-items: center;
  min-height: 84px;
  padding: 8px;
  border-left: 4px solid transparent;
  color: inherit;
  text-decoration: none;
}
.line:hover,
.line:focus-visible {
  border-left-color: var(--heather);
  background: var(--paper);
}
.line > span {
  display: flex;
  min-width: 0;
  flex-direction: column;
  overflow-wrap: anywhere;
}
.piece strong {
  font-family: var(--heading);
  font-size: 1.125rem;
}
.soft {
  font-size: 0.9375rem;
}
.stop {
  color: var(--rowan);
}
.odds {
  color: var(--peat-soft);
  font-size: 0.9375rem;
}
.odds.past {
  color: var(--amber-moss);
  font-weight: 600;
}
.price,
.promised {
  text-align: right;
}
.price strong {
  font-size: 1.125rem;
}
@media (max-width: 1100px) {
  .line {
    grid-template-columns: 96px minmax(0, 1.4fr) minmax(0, 1.2fr) auto;
  }
  .picture {
    grid-row: span 2;
  }
  .promised {
    grid-row: 1;
    grid-column: 4;
  }
  .size {
    grid-column: 2 / 3;
  }
  .price {
    grid-column: 3 / 5;
  }
}
@media (max-width: 640px) {
  .moves {
    margin: 8px 0 0 -40px;
  }
  .promised {
    margin-right: 44px;
  }
  .line {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .picture {
    display: none;
  }
  .piece,
  .next,
  .size,
  .price,
  .promised {
    grid-row: auto;
    grid-column: auto;
  }
  .next {
    order: 3;
  }
  .promised {
    order: 2;
  }
  .size {
    order: 5;
    font-size: 0.9375rem;
  }
  .price {
    order: 4;
  }
}
</style>
