<script setup lang="ts">
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import { vSay } from '@/said/say';

import AllowanceTable from './AllowanceTable.vue';
import EffectsPanel from './EffectsPanel.vue';
import FindRule from './FindRule.vue';
import HouseBench from './HouseBench.vue';
import HouseBeginnings from './HouseBeginnings.vue';
import HouseLayers from './HouseLayers.vue';
import HouseMaterials from './HouseMaterials.vue';
import HouseOdds from './HouseOdds.vue';
import HousePlaces from './HousePlaces.vue';
import HouseRecord from './HouseRecord.vue';
import { partOf, PARTS } from './parts';
import type { RulesPart } from './parts';
import PlansFollow from '../PlansFollow.vue';
import PresetShelf from './PresetShelf.vue';
import SchoolQuestions from './SchoolQuestions.vue';
import { useRules } from './useRules';

/** One part of the rules; what is changed in the others stays changed. */
const { part = 'questions' } = defineProps<{ part?: RulesPart }>();
const { studio, away } = useStudio();
const house = useRules();
/** The parts in which something is refused. */
const wrong = computed(() => new Set(Object.keys(house.errors.value).map(partOf)));
const ready = computed(() => studio.value !== undefined && house.rules.version > 0);
useLeaveGuard(() => (ready.value && house.changed.value ? 'the changed rules' : undefined), true);
</script>

<template>
  <div class="page">
    <p v-if="away && !ready" v-say class="soft">The studio’s rules can’t be reached. Trying again.</p>
    <p v-else-if="!ready" class="soft">Opening the house rules</p>
    <div v-else-if="studio" class="columns">
      <div>
        <h1>House rules</h1>
        <p class="soft">
          Version {{ house.rules.version }}. Every plan follows these, unless a shipment says otherwise.
          Nothing changes until you apply it.
        </p>
        <PlansFollow :version="house.rules.version" />
        <FindRule :studio="studio" :numbers="house.rules.allowances" />
        <nav class="parts no-print" aria-label="Parts of the rules">
          <RouterLink
            v-for="{ key, name, about } in PARTS"
            :key="key"
            :to="`/rules/${key}`"
            class="part"
            :class="{ here: key === part }"
            :aria-current="key === part ? 'page' : undefined"
          >
            <strong>{{ name }}</strong>
            <span class="soft">{{ wrong.has(key) ? 'a value is not taken' : about }}</span>
          </RouterLink>
        </nav>
        <div class="rules-part">
          <SchoolQuestions
            v-if="part === 'questions'"
            v-model="house.rules.schools"
            :questions="studio.schools"
          />
          <HouseLayers v-else-if="part === 'layers'" v-model="house.rules.layers" :slots="studio.slots" />
          <HouseMaterials
            v-else-if="part === 'materials'"
            v-model="house.rules.materials"
            :catalogue="studio.catalogue"
            :errors="house.errors.value"
          />
          <template v-else-if="part === 'bench'">
            <h2>At the bench</h2>
            <HouseBench
              v-model:sets="house.rules.enclosures"
              v-model:shown="house.rules.looks_shown"
              :studio="studio"
              :errors="house.errors.value"
            />
          </template>
          <template v-else-if="part === 'beginnings'">
            <PresetShelf :house="house" />
            <HouseBeginnings
              v-model="house.rules.beginnings"
              :studio="studio"
              :errors="house.errors.value"
              :name="house.rules.name"
            />
          </template>
          <template v-else-if="part === 'odds'">
            <h2>Odds</h2>
            <HouseOdds v-model="house.rules.odds" :studio="studio" :errors="house.errors.value" />
            <HousePlaces v-model="house.rules.odds" :studio="studio" :errors="house.errors.value" />
            <HouseRecord v-model="house.rules.odds" :studio="studio" :errors="house.errors.value" />
          </template>
          <AllowanceTable
            v-else
            v-model="house.rules.allowances"
            :allowances="studio.allowances"
            :errors="house.errors.value"
          />
        </div>
      </div>
      <EffectsPanel :house="house" />
    </div>
  </div>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.page {
  max-width: 1280px;
}
.columns {
  grid-template-columns: minmax(0, 1fr) 320px;
}
h2 {
  margin: 20px 0 4px;
  font-size: var(--type-lead);
}
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 6px;
  margin: 12px 0;
}
.part {
  display: grid;
  min-height: 44px;
  align-content: start;
  padding: 6px 10px;
  border: 1px solid var(--sedge);
  border-left: 4px solid var(--sedge);
  background: var(--paper);
  color: inherit;
  text-decoration: none;
}
.part .soft {
  font-size: var(--type-small);
  line-height: 1.25;
}
.part.here {
  border-left-color: var(--heather);
  background: var(--lichen);
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
@include at.tablet {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
