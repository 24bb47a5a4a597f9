<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref } from 'vue';

import type { Stack } from '@/api/types';
import TierDrawing from '@/drawing/TierDrawing.vue';
import { capital, count, oneIn } from '@/words/grammar';
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

/** What lies on one board, from the front. */
interface Board {
  pieces: string[];
  front: boolean;
}
const boards = computed((): Board[] =>
  stack.tiers.map(({ pieces, faces_front }) => ({
    pieces: pieces.map(({ key }) => key),
    front: faces_front,
  })),
);
const named = (key: string) => stack.pieces.find((piece) => piece.key === key);
/** Which piece's own layers are open. */
const open = ref<string>();
const broken = (at: number) => stack.broken.filter((one) => one.at === at);

async function lay(to: Board[] | null, focus?: string): Promise<void> {
  draft.together.order =
    to &&
    to.flatMap(({ pieces, front }): LaidPiece[] =>
      pieces.map((piece, place) => ({ piece, faces_front: front, beside: place > 0 })),
    );
  await save();
  if (focus === undefined) return;
  await nextTick();
  document.querySelector<HTMLElement>(`[data-piece='${focus}']`)?.focus();
}

/** The boards without a piece, and where its board was. */
function without(key: string): { left: Board[]; at: number; front: boolean; alone: boolean } {
  const at = boards.value.findIndex(({ pieces }) => pieces.includes(key));
  const board = boards.value[at] ?? { pieces: [], front: true };
  const rest = { ...board, pieces: board.pieces.filter((piece) => piece !== key) };
  const alone = rest.pieces.length === 0;
  const left = boards.value.flatMap((one, place) => (place !== at ? [one] : alone ? [] : [rest]));
  return { left, at, front: board.front, alone };
}
/** Lays a piece on a board of its own, before or behind where it lies. */
function move(key: string, by: -1 | 1): void {
  const { left, at, front, alone } = without(key);
  const to = alone ? at + by : at + (by > 0 ? 1 : 0);
  if (to < 0 || to > left.length) return;
  void lay([...left.slice(0, to), { pieces: [key], front }, ...left.slice(to)], key);
}
/** Lays a piece beside what lies on the board before its own. */
function beside(key: string): void {
  const { at } = without(key);
  join(key, boards.value[at - 1]?.pieces[0]);
}
/** Lays a piece beside another one. */
function join(key: string, other: string | undefined): void {
  if (other === undefined || other === key) return;
  const { left } = without(key);
  const to = left.map((one) => (one.pieces.includes(other) ? { ...one, pieces: [...one.pieces, key] } : one));
  void lay(to, key);
}
/** Turns all that lies on a board. */
function turn(key: string): void {
  const to = boards.value.map((one) => (one.pieces.includes(key) ? { ...one, front: !one.front } : one));
  void lay(to, key);
}
function onKey(event: KeyboardEvent, key: string): void {
  const acts: Record<string, () => void> = {
    ArrowUp: () => move(key, -1),
    ArrowDown: () => move(key, 1),
    ArrowLeft: () => beside(key),
    t: () => turn(key),
  };
  const act = event.target === event.currentTarget ? acts[event.key] : undefined;
  if (!act) return;
  event.preventDefault();
  event.stopPropagation();
  act();
}

/** What is dragged, and over which piece: beside it on its right half, before it on its left. */
const dragged = ref<string>();
const over = ref<{ key: string; beside: boolean }>();
function hover(event: DragEvent, key: string): void {
  const { left, width } = (event.currentTarget as HTMLElement).getBoundingClientRect();
  over.value = { key, beside: event.clientX > left + width / 2 };
}
function drop(): void {
  const [key, onto] = [dragged.value, over.value];
  dragged.value = over.value = undefined;
  if (key === undefined || !onto || onto.key === key) return;
  if (onto.beside) {
    join(key, onto.key);
    return;
  }
  const { left, front } = without(key);
  const to = left.findIndex(({ pieces }) => pieces.includes(onto.key));
  void lay([...left.slice(0, to), { pieces: [key], front }, ...left.slice(to)], key);
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
        <button type="button" class="plain no-print" @click="lay(null)">Find the best order</button>
      </template>
      <template v-else>
        The best order by the rules. Drag a piece before another one, or onto its right half to lay it beside;
        or press ↑, ↓ and ← on it. t turns what lies on its board.
      </template>
    </p>
    <ol>
      <template v-for="(tier, at) in stack.tiers" :key="tier.pieces[0]?.key">
        <li v-if="tier.pieces.length > 1" class="several" data-test="several">
          <p class="soft figure">
            {{ capital(count(tier.pieces.length)) }} on one board,
            {{ units.size(tier.across_mm, tier.up_mm, tier.through_mm) }}
          </p>
          <TierDrawing :stack="stack" :tier="tier" />
        </li>
        <li
          v-for="{ key } in tier.pieces"
          :key="key"
          tabindex="0"
          draggable="true"
          :data-piece="key"
          :class="{
            inner: tier.pieces.length > 1,
            before: over?.key === key && !over.beside,
            beside: over?.key === key && over.beside,
          }"
          :aria-label="`${named(key)?.title}, face to the ${tier.faces_front ? 'front' : 'back'}`"
          @dragstart="dragged = key"
          @dragend="dragged = over = undefined"
          @dragover.prevent="hover($event, key)"
          @drop.prevent="drop()"
          @keydown="onKey($event, key)"
        >
          <div class="one">
            <span class="mark" :class="{ front: tier.faces_front }" aria-hidden="true" />
            <span>
              <strong>{{ named(key)?.title }}</strong>
              <span class="soft figure">
                face to the {{ tier.faces_front ? 'front' : 'back' }},
                {{ units.length(named(key)?.wrapped.through_mm ?? 0) }} with its layers,
                {{ oneIn(Math.round(1 / Math.max(named(key)?.probability ?? 1, 1e-6))) }} harmed
                {{ named(key)?.folded ? ', in the folded pad' : '' }}
              </span>
            </span>
            <span class="acts no-print">
              <BButton
                size="sm"
                variant="outline-secondary"
                :disabled="at === 0 && tier.pieces.length === 1"
                @click="move(key, -1)"
              >
                Forward
              </BButton>
              <BButton
                size="sm"
                variant="outline-secondary"
                :disabled="at === stack.tiers.length - 1 && tier.pieces.length === 1"
                @click="move(key, 1)"
              >
                Back
              </BButton>
              <BButton
                size="sm"
                variant="outline-secondary"
                title="Beside what lies on the board before it"
                :disabled="at === 0"
                @click="beside(key)"
              >
                Beside
              </BButton>
              <BButton size="sm" variant="outline-secondary" @click="turn(key)">Turn</BButton>
              <BButton
                size="sm"
                variant="outline-secondary"
                :aria-expanded="open === key"
                @click="open = open === key ? undefined : key"
              >
                Layers
              </BButton>
            </span>
          </div>
          <OwnLayers v-if="open === key && named(key)" :piece="named(key)!" />
        </li>
        <li v-if="broken(at).length > 0">
          <p v-for="one in broken(at)" :key="one.rule" class="broken">
            {{ stack.by_hand ? one.says : `No order avoids it: ${one.plain}` }}
          </p>
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
li.inner {
  padding-left: 14px;
  border-left: 5px solid var(--sedge);
}
li.before {
  border-top: 4px solid var(--heather);
}
li.beside {
  border-right: 4px solid var(--heather);
}
.several p {
  margin: 0 0 4px;
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
