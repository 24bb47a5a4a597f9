<script setup lang="ts">
import { computed } from 'vue';

import { useStudio } from '@/api/useStudio';
import LeaveGuard from '@/parts/LeaveGuard.vue';
import { vSay } from '@/said/say';

import AllowanceTable from './AllowanceTable.vue';
import EffectsPanel from './EffectsPanel.vue';
import HouseBench from './HouseBench.vue';
import HouseBeginnings from './HouseBeginnings.vue';
import HouseLayers from './HouseLayers.vue';
import HouseMaterials from './HouseMaterials.vue';
import HouseOdds from './HouseOdds.vue';
import HousePlaces from './HousePlaces.vue';
import HouseRecord from './HouseRecord.vue';
import PlansFollow from '../PlansFollow.vue';
import PresetShelf from './PresetShelf.vue';
import SchoolQuestions from './SchoolQuestions.vue';
import { useRules } from './useRules';

const { studio, away } = useStudio();
const house = useRules();
const ready = computed(() => studio.value !== undefined && house.rules.version > 0);
</script>

<template>
  <div class="page">
    <LeaveGuard :changed="ready && house.changed.value" what="the changed rules" />
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
        <PresetShelf :house="house" />
        <SchoolQuestions v-model="house.rules.schools" :questions="studio.schools" />
        <HouseLayers v-model="house.rules.layers" :slots="studio.slots" />
        <HouseMaterials
          v-model="house.rules.materials"
          :catalogue="studio.catalogue"
          :errors="house.errors.value"
        />
        <h2>On the bench</h2>
        <HouseBench
          v-model:sets="house.rules.enclosures"
          v-model:shown="house.rules.looks_shown"
          :studio="studio"
          :errors="house.errors.value"
        />
        <h2>Odds and beginnings</h2>
        <HouseBeginnings
          v-model="house.rules.beginnings"
          :studio="studio"
          :errors="house.errors.value"
          :name="house.rules.name"
        />
        <HouseOdds v-model="house.rules.odds" :studio="studio" :errors="house.errors.value" />
        <HousePlaces v-model="house.rules.odds" :studio="studio" :errors="house.errors.value" />
        <HouseRecord v-model="house.rules.odds" :studio="studio" :errors="house.errors.value" />
        <AllowanceTable
          v-model="house.rules.allowances"
          :allowances="studio.allowances"
          :errors="house.errors.value"
        />
      </div>
      <EffectsPanel :house="house" />
    </div>
  </div>
</template>

<style scoped>
.page {
  max-width: 1280px;
}
.columns {
  grid-template-columns: minmax(0, 1fr) 320px;
}
h2 {
  margin: 20px 0 4px;
  font-size: 1.3125rem;
}
h1 {
  margin: 4px 0;
  font-size: 1.75rem;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
