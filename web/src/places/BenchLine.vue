<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox';
import { computed, defineAsyncComponent } from 'vue';

import type { BenchRow, Place } from '@/api/types';
import ParcelFill from '@/drawing/ParcelFill.vue';
import { counted, oneIn, worded } from '@/words/grammar';
import { besides, firstMatter } from '@/words/matters';
import { nextAct, stopOf } from '@/words/routes';
import { CONSTRUCTIONS, MEDIA } from '@/words/vocabulary';
import SumOf from '@/parts/SumOf.vue';
import * as show from '@/units/show';
import { useUnits } from '@/units/useUnits';

/** Opened now and then: what it is made with is no part of the first view. */
const RowMenu = defineAsyncComponent(() => import('./RowMenu.vue'));

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

/** What it waits for, by when that has to be ordered. */
const waits = computed(() => {
  if (row.line.group !== 'materials') return undefined;
  const days = row.lacks.map((lack) => lack.order_by).filter((day) => typeof day === 'string');
  return {
    says: row.against.find(({ kind }) => kind === 'short')?.says ?? '',
    order: days.sort()[0],
    late: row.lacks.some((lack) => lack.too_late),
  };
});
/** What is in the way of it; where its next act is to answer that, it is told in the place of the act. */
const matter = computed(() => firstMatter(row.against));
const answers = computed(() => ['answer', 'let_it_cure'].includes(row.line.next.kind));
const next = computed(() => {
  if (matter.value && answers.value) return { says: matter.value.says, stop: true };
  if (waits.value) return { says: waits.value.says, stop: false };
  if (row.line.group === 'cut') return { says: 'Ready: cut its parts', stop: false };
  return nextAct(row.line.next);
});
const to = computed(() => ({
  name: waits.value ? 'box' : stopOf(row.line.next),
  params: { id: row.id },
}));
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
        <span v-if="row.order_number" class="soft">order {{ row.order_number }}</span>
      </span>
      <span class="next">
        <strong :class="{ stop: next.stop }">{{ next.says }}</strong>
        <span
          v-if="matter && (matter.says !== next.says || matter.more > 0)"
          class="matter"
          :class="matter.level"
          data-test="against"
        >
          {{ [matter.says !== next.says && matter.says, besides(matter.more)].filter(Boolean).join(' ') }}
        </span>
        <span v-if="waits?.order" class="odds figure" :class="{ past: waits.late }">
          {{ waits.late ? 'should have been ordered by' : 'order by' }} {{ show.day(waits.order) }}
        </span>
        <span
          v-else-if="row.summary?.one_in"
          class="odds figure"
          :class="{ past: row.summary.past_accepted }"
        >
          about {{ oneIn(row.summary.one_in.about) }} arrive damaged
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
          <span>
            <span class="soft">{{ row.summary.cost ? 'to send' : 'carrier’s price' }}</span>
            {{ ' ' }}
            <strong
              ><SumOf
                :of="row.summary.cost ? 'to_send' : 'quoted'"
                :sum="row.summary.cost?.to_send ?? row.summary.best.total"
            /></strong>
          </span>
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
    <div class="moves no-print">
      <RowMenu
        :called="row.inputs.title || 'Untitled'"
        :moves="MOVES.filter((move) => move.to !== place)"
        @put="(to) => emit('put', to)"
      />
    </div>
  </li>
</template>

<style scoped lang="scss">
@use '@/styles/at';

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
  min-width: 40px;
  min-height: 44px;
  margin-top: 20px;
}
.line {
  flex: 1 1 auto;
  min-width: 0;
  display: grid;
  grid-template-columns:
    116px minmax(180px, 1.6fr) minmax(170px, 1.3fr) minmax(200px, 1.3fr) minmax(165px, 0.9fr)
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
  font-size: var(--type-strong);
}
.soft {
  font-size: var(--type-small);
}
.stop {
  color: var(--rowan);
}
.matter {
  display: -webkit-box;
  overflow: hidden;
  color: var(--peat-soft);
  font-size: var(--type-small);
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
  line-clamp: 3;
}
.matter.mind {
  color: var(--amber-moss);
}
.matter.stop {
  color: var(--rowan);
}
.odds {
  color: var(--peat-soft);
  font-size: var(--type-small);
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
  font-size: var(--type-strong);
}
@include at.desk {
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
@include at.phone {
  .moves {
    margin: 8px 0 0 -40px;
  }
  .promised {
    margin-right: 44px;
  }
  .line {
    /* The carrier's name is parted before it leaves the piece no room. */
    grid-template-columns: minmax(0, 1fr) fit-content(40%);
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
    font-size: var(--type-small);
  }
  .price {
    order: 4;
  }
}
</style>
