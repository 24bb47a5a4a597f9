<script setup lang="ts">
import ChevronIcon from '~icons/tabler/chevron-right';
import HelpIcon from '~icons/tabler/help';

import { BFormRadioGroup } from 'bootstrap-vue-next/components/BFormRadio';
import { useLocalStorage, useMediaQuery } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';

import { useStudio } from '@/api/useStudio';
import { useEscape } from '@/keys/useKeys';
import { UNITS, useUnits } from '@/units/useUnits';

const emit = defineEmits<{ help: [] }>();
const { unit } = useUnits();
const { studio } = useStudio();
const route = useRoute();

const PLACES = [
  { to: '/', name: 'Bench' },
  { to: '/shipments/new', name: 'New parcel' },
  { to: '/leaving', name: 'Outgoing' },
  { to: '/log', name: 'Log' },
  { to: '/studio/countries', name: 'Settings' },
] as const;
const WORKSHOP = [
  { to: '/materials', name: 'Materials' },
  { to: '/carriers', name: 'Carriers' },
  { to: '/rules', name: 'House rules' },
  { to: '/tools', name: 'Tools' },
] as const;
/** Whoever opened the workshop finds it open the next time. */
const opened = useLocalStorage('hummock.workshop', false);
const narrow = useMediaQuery('(max-width: 1260px)');
/** Where there is no room beside the other places, it is opened for one press and lies over the page. */
const over = ref(false);
const open = computed({
  get: () => (narrow.value ? over.value : opened.value),
  set: (is) => {
    if (narrow.value) over.value = is;
    else opened.value = is;
  },
});
watch(
  () => route.path,
  () => (over.value = false),
);
useEscape(() => (over.value = false));

const isAt = (to: string) => to !== '/' && route.path.startsWith(to);
const here = computed(() => {
  const at = [...WORKSHOP, ...PLACES].find(({ to }) => isAt(to));
  if (at) return at.to;
  return route.name === 'studio' ? (route.path === '/studio/name' ? '' : '/studio/countries') : '/';
});
const inWorkshop = computed(() => WORKSHOP.some(({ to }) => to === here.value));
</script>

<template>
  <header class="strip no-print" :class="{ full: open && !narrow, over: narrow }">
    <RouterLink to="/" class="mark" aria-label="Hummock, to the bench">
      <svg viewBox="0 0 34 22" width="34" height="22" aria-hidden="true">
        <rect x="13" y="11" width="8" height="8" fill="var(--heather-light)" />
        <path
          d="M1.5 20H5c6 0 6.5-17 12-17s6 17 12 17h3.5"
          fill="none"
          stroke="currentColor"
          stroke-width="2.4"
          stroke-linecap="round"
          stroke-linejoin="round"
        />
      </svg>
      <strong>Hummock</strong>
    </RouterLink>
    <nav aria-label="Places">
      <RouterLink
        v-for="place in PLACES"
        :key="place.to"
        :to="place.to"
        class="place"
        :class="{ here: here === place.to }"
        :aria-current="here === place.to ? 'page' : undefined"
        >{{ place.name }}</RouterLink
      >
      <button
        type="button"
        class="place"
        :class="{ here: inWorkshop && !open }"
        :aria-expanded="open"
        aria-controls="workshop"
        @click="open = !open"
      >
        Workshop <ChevronIcon class="chevron" :class="{ open }" aria-hidden="true" />
      </button>
      <div v-show="open" id="workshop">
        <RouterLink
          v-for="place in WORKSHOP"
          :key="place.to"
          :to="place.to"
          class="place"
          :class="{ here: here === place.to }"
          :aria-current="here === place.to ? 'page' : undefined"
          >{{ place.name }}</RouterLink
        >
      </div>
    </nav>
    <RouterLink to="/studio/name" class="studio">
      <span class="whose">{{ studio?.name || 'Studio' }}</span><span class="short">Studio</span
      ><span class="visually-hidden">, its name, countries and ruler</span>
    </RouterLink>
    <BFormRadioGroup
      v-model="unit"
      class="units"
      aria-label="Show lengths in"
      :options="[...UNITS]"
      name="unit"
      buttons
    />
    <button type="button" class="keys" @click="emit('help')"><HelpIcon aria-hidden="true" /> Help</button>
  </header>
</template>

<style scoped lang="scss">
@use '@/styles/at';

.strip > .mark,
.mark svg {
  flex: none;
}
.strip {
  display: flex;
  align-items: center;
  gap: 24px;
  height: 48px;
  padding: 0 20px;
  background: var(--peat);
  color: var(--bog-cotton);
}
.mark {
  display: flex;
  min-width: 44px;
  min-height: 44px;
  align-items: center;
  gap: 12px;
  color: inherit;
  font-family: var(--heading);
  font-size: var(--type-lead);
  text-decoration: none;
}
nav,
#workshop {
  display: flex;
  gap: 20px;
}
nav {
  position: relative;
}
.place {
  display: block;
  white-space: nowrap;
  padding: 12px 0 9px;
  border-bottom: 3px solid transparent;
  color: inherit;
  text-decoration: none;
}
button.place {
  display: flex;
  align-items: center;
  gap: 4px;
  border-width: 0 0 3px;
  background: none;
}
.chevron.open {
  transform: rotate(180deg);
}
.place.here {
  border-color: var(--heather-light);
}
.studio {
  min-height: 44px;
  margin-left: auto;
  overflow: hidden;
  color: var(--sedge);
  line-height: 44px;
  text-decoration: none;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.short {
  display: none;
}
/* The workshop takes the room of the studio's name. */
.full,
.full nav,
.full #workshop {
  gap: 14px;
}
.full .whose {
  display: none;
}
.full .short {
  display: inline;
}
.units {
  flex: none;
}
.units :deep(.btn) {
  border-color: var(--peat-soft);
  background: none;
  color: inherit;
}
.units :deep(.btn-check:checked + .btn) {
  background: var(--bog-cotton);
  color: var(--peat);
}
.keys {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 44px;
  padding: 0 4px;
  border: 0;
  background: none;
  color: inherit;
}
.strip :focus-visible {
  outline-color: var(--heather-light);
}
@media (forced-colors: active) {
  .strip {
    border-bottom: 2px solid CanvasText;
    background: Canvas;
    color: CanvasText;
  }
  .studio {
    color: inherit;
  }
}
.over #workshop {
  position: absolute;
  top: 100%;
  right: 0;
  z-index: 40;
  flex-direction: column;
  gap: 0;
  padding: 4px 20px 8px;
  background: var(--peat);
  box-shadow: var(--shadow);
}
.over #workshop .place {
  min-height: 44px;
}
.over .chevron {
  transform: rotate(90deg);
}
.over .chevron.open {
  transform: rotate(270deg);
}
/* A name that is cut off says less than what it opens. */
@include at.desk {
  .whose {
    display: none;
  }
  .short {
    display: inline;
  }
}
@include at.phone {
  .strip {
    flex-wrap: wrap;
    height: auto;
    gap: 0 12px;
    padding: 6px 12px 0;
  }
  .mark strong {
    display: none;
  }
  .studio {
    min-width: 44px;
    margin-left: 0;
  }
  nav {
    order: 1;
    width: 100%;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 8px;
    font-size: var(--type-small);
  }
  /* The bench has a button of its own for it. */
  .place[href='/shipments/new'] {
    display: none;
  }
  .units {
    margin-left: auto;
  }
  .keys {
    display: none;
  }
}
</style>
