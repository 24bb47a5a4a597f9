<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import ClosedBox from '@/drawing/ClosedBox.vue';
import { capital, counted, oneIn, signed } from '@/words/grammar';
import SumOf from '@/parts/SumOf.vue';
import { useShipment } from '@/shipment/useShipment';
import { useWays } from '@/shipment/useWays';
import { useUnits } from '@/units/useUnits';

/** How the box could be made: each style closed, with what opens it lifted, and what it takes and what it would change. */
const { choose, draft, save, boxByRule } = useShipment();
const { place } = defineProps<{ place: 'box' | 'second_box' }>();
const { styles, travelCase, away } = useWays(() => place);
const units = useUnits();
const byRule = computed(() => (place === 'box' ? boxByRule.value : undefined));
const byHand = computed(() => place === 'box' && Boolean(draft.choices.box_style));
const chosen = computed(() => styles.value?.find((offer) => offer.chosen)?.name);

/** How many are shown beside the one that is made. */
const NEAREST = 2;
const all = ref(false);
/** The one that is made, and the nearest that could be made instead, as the core sorts them; the rest is asked for. */
const shown = computed(() => {
  const known = styles.value ?? [];
  if (all.value) return known;
  const nearest = known.filter(({ chosen: is, refused }) => !is && !refused).slice(0, NEAREST);
  return known.filter((offer) => offer.chosen || nearest.includes(offer));
});
const folded = computed(
  () =>
    (styles.value?.length ?? 0) -
    shown.value.length +
    (travelCase.value && !travelCase.value.chosen && !all.value ? 1 : 0),
);

function letRuleChoose(): void {
  draft.choices.box_style = '';
  void save();
}
</script>

<template>
  <section class="styles no-print" aria-label="How the box is made">
    <p v-if="away" class="soft">Other styles can’t be calculated just now.</p>
    <p v-else-if="!styles" class="soft">Working out other styles</p>
    <template v-else>
      <p v-if="byRule && chosen" class="by-rule">
        {{ chosen }}: the house rule chose it. It saves <SumOf of="difference" :sum="byRule.saves" /> to send
        against the usual box ({{ byRule.usual_name.toLowerCase() }}), and is about as safe. Press another to
        have that one.
      </p>
      <p v-else-if="byHand && chosen" class="by-rule soft">
        Chosen by hand.
        <BButton variant="link" size="sm" @click="letRuleChoose">Let the house rule choose</BButton>
      </p>
    </template>
    <ul v-if="styles && !away">
      <li v-for="offer in shown" :key="offer.style">
        <button
          type="button"
          :class="{ chosen: offer.chosen }"
          :disabled="Boolean(offer.refused) && !offer.chosen"
          :aria-pressed="offer.chosen"
          :data-style="offer.style"
          :title="offer.why"
          @click="choose(offer.choices)"
        >
          <ClosedBox
            :closing="offer.style"
            :sides="[offer.outside.across_mm, offer.outside.up_mm, offer.outside.through_mm]"
          />
          <strong>{{ offer.name }}</strong>
          <span v-if="offer.refused" class="refused">{{ offer.refused }}</span>
          <template v-else>
            <span class="figure">
              {{ units.area(offer.board_m2) }}, {{ counted(offer.sheets ?? 0, 'sheet') }},
              {{ offer.minutes.toFixed(0) }}&nbsp;min
            </span>
            <span class="figure">
              {{ units.size(offer.outside.across_mm, offer.outside.up_mm, offer.outside.through_mm) }}
            </span>
            <span v-if="offer.chosen" class="soft">as it is made</span>
            <span v-else class="figure" :class="offer.keeps ? 'soft' : 'worse'">
              {{ oneIn(offer.change.odds_after.about)
              }}<template v-if="offer.priced"
                >,
                <span data-sum="difference"
                  >{{ signed(Number(offer.cost.amount), 2) }}&nbsp;{{ offer.cost.currency }}</span
                >
                to send</template
              >
            </span>
          </template>
        </button>
      </li>
      <li v-if="travelCase && (all || travelCase.chosen)">
        <button
          type="button"
          :class="{ chosen: travelCase.chosen }"
          :disabled="Boolean(travelCase.refused) && !travelCase.chosen"
          :aria-pressed="travelCase.chosen"
          data-style="travel_case"
          title="Built once of plywood on battens, it goes out many times and comes back."
          @click="choose(travelCase.choices)"
        >
          <ClosedBox
            v-if="travelCase.outside"
            closing="case"
            :sides="[travelCase.outside.across_mm, travelCase.outside.up_mm, travelCase.outside.through_mm]"
          />
          <strong>Travel case</strong>
          <span v-if="travelCase.refused" class="refused">{{ travelCase.refused }}</span>
          <template v-else-if="travelCase.outside && travelCase.change">
            <span class="figure">{{ travelCase.minutes?.toFixed(0) }}&nbsp;min a journey</span>
            <span class="figure">
              {{
                units.size(
                  travelCase.outside.across_mm,
                  travelCase.outside.up_mm,
                  travelCase.outside.through_mm,
                )
              }}
            </span>
            <span v-if="travelCase.chosen" class="soft">as it is made</span>
            <span v-else class="figure" :class="travelCase.keeps ? 'soft' : 'worse'">
              {{ oneIn(travelCase.change.odds_after.about)
              }}<template v-if="travelCase.cost"
                >,
                <span data-sum="difference"
                  >{{ signed(Number(travelCase.cost.amount), 2) }}&nbsp;{{ travelCase.cost.currency }}</span
                >
                to send</template
              >
            </span>
          </template>
        </button>
      </li>
    </ul>
    <BButton v-if="styles && !away && folded > 0" variant="link" size="sm" @click="all = true">
      {{ capital(counted(folded, 'other style')) }}
    </BButton>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.by-rule {
  margin: 0 0 8px;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 8px;
  margin: 0 0 16px;
  padding: 0;
  list-style: none;
}
button {
  display: flex;
  flex-direction: column;
  gap: 1px;
  width: 100%;
  height: 100%;
  padding: 8px 10px;
  border: 1px solid var(--sedge);
  border-radius: var(--corner);
  background: var(--paper);
  color: var(--peat);
  font-size: var(--type-small);
  line-height: 1.3;
  text-align: left;
}
button strong {
  margin-top: 4px;
  font-size: var(--type-small);
}
button:not(:disabled):hover {
  border-color: var(--heather);
}
.chosen {
  border-color: var(--moss);
  background: var(--lichen);
}
.chosen .soft {
  color: var(--peat);
}
button:disabled {
  color: var(--peat-soft);
}
.refused,
.worse {
  color: var(--rowan);
}
@include at.desk {
  ul {
    grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  }
}
</style>
