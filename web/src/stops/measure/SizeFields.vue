<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { answer, api, Refused } from '@/api/client';
import { read as queries } from '@/api/queries';
import type { Side } from '@/drawing/MeasureDrawing.vue';
import LengthField from '@/parts/LengthField.vue';
import TextField from '@/parts/TextField.vue';
import { FIRST, usePiece } from '@/shipment/usePiece';
import { useLooseText, useShipment } from '@/shipment/useShipment';
import { vSay } from '@/said/say';
import type { SizeReading } from '@/api/types';
import { useUnits } from '@/units/useUnits';

const READ_AFTER_MS = 120;
const BETWEEN_SIDES = /[x×*]|by/gi;
const SIDES: readonly { side: Side; label: string }[] = [
  { side: 'width', label: 'Width' },
  { side: 'height', label: 'Height' },
  { side: 'depth', label: 'Depth' },
];

const { short } = defineProps<{
  /** One field alone, where the three sides stand elsewhere. */
  short?: boolean;
}>();
const lit = defineModel<Side | undefined>('lit');
const { errors, sizes } = useShipment();
const { key, piece, at } = usePiece();
const units = useUnits();

/** What is typed in the one field, while it is typed there. */
const kept = useLooseText(key.value === FIRST ? 'size' : `size.${key.value}`);
const typing = ref(kept.value);
const refused = ref('');
/** In which units the numbers could be, while nobody has said it. */
const doubt = ref<SizeReading[]>([]);

const joined = computed(() => {
  const { width, height, depth } = piece.value;
  return [width, height, depth].some(Boolean)
    ? [width, height, depth].map((side) => side || '?').join(' × ')
    : '';
});
const whole = computed({
  get: () => typing.value ?? joined.value,
  set: (text: string) => {
    typing.value = text;
    void readSoon();
  },
});

async function read(): Promise<void> {
  const text = typing.value;
  if (text === undefined) return;
  if (!text.trim()) {
    // The fields below keep what stands in them.
    refused.value = '';
    doubt.value = [];
    kept.value = undefined;
    return;
  }
  try {
    const body = { text, unit: units.unit.value };
    // What a text means does not change: it is asked once, and the hand that types is told at once when nobody answers.
    const sides = await queries.fetchQuery({
      queryKey: ['measure', body],
      queryFn: ({ signal }) => answer(api.POST('/api/v1/measures/read', { body, signal })),
      retry: false,
      staleTime: Infinity,
    });
    if (text !== typing.value) return;
    refused.value = '';
    kept.value = undefined;
    doubt.value = sides.doubt?.readings ?? [];
    // A side that was not typed stays as it is.
    for (const { side } of SIDES) {
      const read = sides[side];
      if (read) piece.value[side] = read.text;
    }
  } catch (error) {
    if (text === typing.value) kept.value = text;
    if (error instanceof Refused && text === typing.value) refused.value = error.message;
  }
}
const readSoon = useDebounceFn(read, READ_AFTER_MS);
if (kept.value !== undefined) void read();

/** Lights the side that the caret stands in. */
function lightAtCaret(event: Event): void {
  if (!(event.target instanceof HTMLInputElement)) return;
  const before = event.target.value.slice(0, event.target.selectionStart ?? 0);
  lit.value = SIDES[before.match(BETWEEN_SIDES)?.length ?? 0]?.side;
}

/** Takes the numbers in the unit that was pressed. */
async function take(reading: SizeReading): Promise<void> {
  typing.value = reading.text;
  await read();
  typing.value = undefined;
}

async function leaveWhole(): Promise<void> {
  lit.value = undefined;
  await read();
  // A text that was not understood stays, to be put right.
  if (!refused.value) typing.value = undefined;
}

/** What is refused about a side that has no field here. */
const wrong = computed(() =>
  SIDES.map(({ side }) => errors.value[at(`piece.${side}`)]).filter((message) => message !== undefined),
);
const isSheet = computed(() => ['loose_paper', 'loose_canvas'].includes(piece.value.construction ?? ''));
/** The size in the unit shown, and in the other kind beside it. */
const readBack = computed(() => {
  const { width, height, depth } = piece.value;
  const read = sizes.value[key.value];
  if (width && height && !depth && !isSheet.value) {
    return short
      ? 'and how deep it is, over everything'
      : 'and how deep it is, over everything: the third field';
  }
  if (!read && isSheet.value) return 'as 297 x 420 mm: a sheet needs no depth';
  if (!read) return 'as 35 1/2 x 47 1/4 x 1 1/2 in, or 90 x 120 x 3.8 cm';
  const { width_mm, height_mm, depth_mm } = read;
  // A sheet as thick as such sheets are is told by its face.
  return `reads as ${depth ? units.size(width_mm, height_mm, depth_mm) : units.size(width_mm, height_mm)}`;
});
</script>

<template>
  <fieldset>
    <legend :class="{ 'visually-hidden': short }">Size, over everything</legend>
    <div @focusout="leaveWhole" @focusin="lightAtCaret" @keyup="lightAtCaret" @click="lightAtCaret">
      <TextField
        v-model="whole"
        :label="short ? 'Size over everything, width × height × depth' : 'Width × height × depth'"
        :name="at('piece.size').replace('piece.size', 'size')"
        :error="refused || undefined"
        :hint="readBack"
      />
    </div>
    <p v-if="doubt.length > 0" v-say class="doubt" data-test="unit-doubt">
      <span>Which unit is it?</span>
      <BButton v-for="reading in doubt" :key="reading.unit" size="sm" @click="take(reading)">
        {{ reading.text }}
      </BButton>
    </p>
    <p v-for="message in short ? wrong : []" :key="message" class="wrong">{{ message }}</p>
    <div v-if="!short" class="sides">
      <LengthField
        v-for="{ side, label } in SIDES"
        :key="side"
        v-model="piece[side]"
        :label="label"
        :name="at(`piece.${side}`)"
        :error="errors[at(`piece.${side}`)]"
        @focus="lit = side"
        @blur="lit = undefined"
      />
    </div>
  </fieldset>
</template>

<style scoped>
.doubt {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin: 4px 0 8px;
}
.wrong {
  margin: 0;
  color: var(--rowan);
}
.sides {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 12px;
}
legend {
  font-family: var(--heading);
  font-size: var(--type-strong);
  font-weight: 600;
}
</style>
