<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref } from 'vue';

import type { Stack } from '@/api/types';
import { oneIn } from '@/words/grammar';
import TickField from '@/parts/TickField.vue';
import type { LaidPiece } from '@/shipment/draft';
import { useShipment } from '@/shipment/useShipment';
import { useUnits } from '@/units/useUnits';

import OwnLayers from './OwnLayers.vue';
import PartInTwo from './PartInTwo.vue';

/** How several pieces lie in one box, from the front: by the rules, or by hand. */
const { stack } = defineProps<{ stack: Stack }>();
const { draft, save } = useShipment();
const units = useUnits();

const laid = computed((): LaidPiece[] =>
  stack.order.map(({ key, faces_front }) => ({ piece: key, faces_front })),
);
const named = (key: string) => stack.pieces.find((piece) => piece.key === key);
/** Which piece's own layers are open. */
const open = ref<string>();
const broken = (at: number) => stack.broken.filter((one) => one.at === at);

async function lay(order: LaidPiece[] | null, focus?: string): Promise<void> {
  draft.together.order = order;
  await save();
  if (focus === undefined) return;
  await nextTick();
  document.querySelector<HTMLElement>(`[data-piece='${focus}']`)?.focus();
}

function move(at: number, by: number): void {
  const order = [...laid.value];
  const [one] = order.splice(at, 1);
  if (!one || at + by < 0 || at + by > order.length) return;
  order.splice(at + by, 0, one);
  void lay(order, one.piece);
}
function turn(at: number): void {
  const order = laid.value.map((one, place) =>
    place === at ? { ...one, faces_front: !one.faces_front } : one,
  );
  void lay(order, order[at]?.piece);
}
function onKey(event: KeyboardEvent, at: number): void {
  const acts: Record<string, () => void> = {
    ArrowUp: () => move(at, -1),
    ArrowDown: () => move(at, 1),
    t: () => turn(at),
  };
  const act = event.target === event.currentTarget ? acts[event.key] : undefined;
  if (!act) return;
  event.preventDefault();
  event.stopPropagation();
  act();
}

/** What is dragged, by its place. */
const dragged = ref<number>();
function drop(at: number): void {
  if (dragged.value !== undefined && dragged.value !== at) move(dragged.value, at - dragged.value);
  dragged.value = undefined;
}

const folded = computed({
  get: () => draft.together.folded_pad,
  set: (to: boolean) => {
    draft.together.folded_pad = to;
    void save();
  },
});
</script>

<template>
  <section class="stack" data-test="stack">
    <div class="heading-row">
      <h2>How they lie, from the front of the box</h2>
      <span class="soft figure">{{ units.length(stack.thickness_mm) }} thick together</span>
    </div>
    <p class="soft">
      <template v-if="stack.by_hand">
        By hand.
        <button type="button" class="plain no-print" @click="lay(null)">Look for the best order</button>
      </template>
      <template v-else>
        The best order by the rules. Drag a piece, or press ↑ and ↓ on it; t turns it.
      </template>
    </p>
    <ol>
      <template v-for="(place, at) in stack.order" :key="place.key">
        <li
          tabindex="0"
          draggable="true"
          :data-piece="place.key"
          :aria-label="`${named(place.key)?.title}, face to the ${place.faces_front ? 'front' : 'back'}`"
          @dragstart="dragged = at"
          @dragover.prevent
          @drop.prevent="drop(at)"
          @keydown="onKey($event, at)"
        >
          <div class="one">
            <span class="mark" :class="{ front: place.faces_front }" aria-hidden="true" />
            <span>
              <strong>{{ named(place.key)?.title }}</strong>
              <span class="soft figure">
                face to the {{ place.faces_front ? 'front' : 'back' }},
                {{ units.length(named(place.key)?.wrapped.through_mm ?? 0) }} with its layers,
                {{ oneIn(Math.round(1 / Math.max(named(place.key)?.probability ?? 1, 1e-6))) }} harmed
                {{ named(place.key)?.folded ? ', in the folded pad' : '' }}
              </span>
            </span>
            <span class="acts no-print">
              <BButton size="sm" variant="outline-secondary" :disabled="at === 0" @click="move(at, -1)">
                Forward
              </BButton>
              <BButton
                size="sm"
                variant="outline-secondary"
                :disabled="at === stack.order.length - 1"
                @click="move(at, 1)"
              >
                Back
              </BButton>
              <BButton size="sm" variant="outline-secondary" @click="turn(at)">Turn</BButton>
              <BButton
                size="sm"
                variant="outline-secondary"
                :aria-expanded="open === place.key"
                @click="open = open === place.key ? undefined : place.key"
              >
                Layers
              </BButton>
            </span>
          </div>
          <p v-for="one in broken(at)" :key="one.rule" class="broken">
            {{ stack.by_hand ? one.says : `No order avoids it: ${one.plain}` }}
          </p>
          <OwnLayers v-if="open === place.key && named(place.key)" :piece="named(place.key)!" />
        </li>
        <li v-if="stack.pairs[at]" class="between">
          <span class="soft figure">
            {{
              stack.pairs[at].folded
                ? 'fold of the pad'
                : `board ${units.number(stack.pairs[at].across_mm)} × ${units.length(stack.pairs[at].up_mm)}`
            }}{{ stack.pairs[at].padded ? ', foam over the hardware' : '' }}: {{ stack.pairs[at].says }}
          </span>
        </li>
      </template>
    </ol>
    <TickField
      v-model="folded"
      label="Thin frames in the folds of one pad, in place of a wrap each"
      name="together.folded_pad"
    />
    <PartInTwo :stack="stack" />
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

ol {
  margin: 0 0 12px;
  padding: 0;
  border-top: 1px solid var(--sedge);
  list-style: none;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--sedge);
}
li[draggable] {
  cursor: grab;
}
.one {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
.one > span:nth-child(2) {
  display: flex;
  flex-direction: column;
  line-height: 1.3;
}
.one .soft {
  font-size: var(--type-small);
}
/* The face is the heavy edge, as in the cut-through; the front of the box is up. */
.mark {
  height: 26px;
  border: 1px solid var(--card-line);
  border-bottom: 5px solid var(--heather);
}
.mark.front {
  border-top: 5px solid var(--heather);
  border-bottom: 1px solid var(--card-line);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  justify-content: flex-end;
}
.between {
  padding: 2px 0 2px 22px;
  background: var(--paper);
  font-size: var(--type-small);
}
.broken {
  margin: 2px 0 0 22px;
  color: var(--amber-moss);
  font-weight: 600;
}
.plain {
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--water);
  text-decoration: underline;
}
@include at.phone {
  .one {
    grid-template-columns: 14px minmax(0, 1fr);
  }
  .acts {
    grid-column: 1 / -1;
    justify-content: flex-start;
  }
}
</style>
