<script setup lang="ts">
import { computed } from 'vue';

import DraftField from '@/parts/DraftField.vue';
import PaperLink from '@/parts/PaperLink.vue';
import { fieldInSentence } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';
import { money } from '@/units/show';

import BuyerFields from '../measure/BuyerFields.vue';
import SizeFields from '../measure/SizeFields.vue';
import SurfaceFields from '../measure/SurfaceFields.vue';
import { sheetOf } from '../pack/sheet';

/** A parcel like one before: one form, and the plan, the price and the sheet stand below it. */
const { id, draft, plan, missing, quotes, summary, stored } = useShipment();

const stopped = computed(() =>
  (plan.value?.findings ?? []).filter(({ level, lifted }) => level === 'stop' && !lifted),
);
const lacking = computed(() => missing.value.map(fieldInSentence).join(', '));
const best = computed(() => summary.value?.best ?? undefined);
const service = computed(() => quotes.value.find((quote) => quote.id === best.value?.id));
const sheet = computed(() => sheetOf(id));
</script>

<template>
  <form class="quick" @submit.prevent>
    <section>
      <div class="pair">
        <DraftField path="title" />
        <DraftField path="piece.construction" empty="Choose" />
      </div>
      <BuyerFields />
      <SizeFields />
      <SurfaceFields />
    </section>
    <section class="panel follows" aria-label="What follows">
      <h2>What follows</h2>
      <p v-if="!plan" class="soft">
        {{ lacking ? `Still needed: ${lacking}.` : 'The plan is being made.' }}
      </p>
      <template v-else>
        <p v-if="best && service" class="price">
          <strong class="figure">{{ money(best.total) }}</strong>
          <span>{{ service.carrier }}, {{ service.service }}</span>
        </p>
        <p v-else class="soft">No price yet: say where it goes.</p>
        <div v-if="stopped.length > 0" class="stops">
          <strong>Look at this first:</strong>
          <ul>
            <li v-for="finding in stopped" :key="finding.code">{{ finding.says }}</li>
          </ul>
          <RouterLink :to="{ name: 'guard', params: { id } }">Answer it at Guard</RouterLink>
        </div>
        <p class="soft">
          The layers, the box and every other price stand at the stops above, for when this one is not like
          the last.
        </p>
        <div class="ways no-print">
          <PaperLink v-if="stored" :href="sheet" class="btn btn-primary" data-test="sheet"
            >Print the pack sheet</PaperLink
          >
          <RouterLink :to="{ name: 'pack', params: { id } }" class="btn btn-outline-secondary">
            Pack it on the screen
          </RouterLink>
        </div>
        <p v-if="!draft.buyer.name" class="soft">Nobody is named yet who gets it.</p>
      </template>
    </section>
  </form>
</template>

<style scoped>
.quick {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(240px, 1fr);
  gap: 20px;
  align-items: start;
}
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 12px;
}
.follows {
  position: sticky;
  top: 12px;
  padding: 16px;
}
h2 {
  margin: 0 0 8px;
  font-size: 1.25rem;
}
.price {
  display: grid;
}
.price strong {
  font-size: 2rem;
}
.stops {
  margin-bottom: 12px;
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
}
.stops ul {
  margin: 0;
  padding-left: 18px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
@media (max-width: 860px) {
  .quick,
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
  .follows {
    position: static;
  }
}
</style>
