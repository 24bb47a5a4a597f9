<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { computed, ref } from 'vue';

import FieldShell from '@/parts/FieldShell.vue';

import { sendTo, useCountries } from './useCountries';

/** A country: those that the studio sends to first, then all others; one of those can be added to the first. */
const {
  label = 'Country',
  name,
  empty = 'Choose',
  error,
  fixed,
} = defineProps<{
  label?: string;
  /** The path of the value, as the server names it. */
  name: string;
  /** What stands there while nothing is chosen. */
  empty?: string;
  error?: string;
  /** It is not offered to add one: it is none that the studio sends to. */
  fixed?: boolean;
}>();
const chosen = defineModel<string>({ required: true });

const { listed, rest, of } = useCountries();
const unlisted = computed(() => {
  const country = of(chosen.value);
  return country && !country.listed ? country : undefined;
});
const adding = ref(false);
const trouble = ref('');
async function add(): Promise<void> {
  adding.value = true;
  trouble.value = '';
  try {
    await sendTo(chosen.value);
  } catch (problem) {
    trouble.value = problem instanceof Error ? problem.message : 'something went wrong in the page';
  } finally {
    adding.value = false;
  }
}
</script>

<template>
  <FieldShell v-slot="{ id, described }" :label="label" :error="error">
    <BFormSelect
      :id="id"
      v-model="chosen"
      :name="name"
      :state="error ? false : null"
      :aria-describedby="described"
    >
      <option value="">{{ empty }}</option>
      <optgroup v-if="listed.length > 0" label="You send to">
        <option v-for="country in listed" :key="country.code" :value="country.code">
          {{ country.name }}
        </option>
      </optgroup>
      <optgroup label="All others">
        <option v-for="country in rest" :key="country.code" :value="country.code">{{ country.name }}</option>
      </optgroup>
      <option v-if="chosen && !of(chosen)" :value="chosen">{{ chosen }}</option>
    </BFormSelect>
    <BButton
      v-if="unlisted && !fixed"
      size="sm"
      variant="link"
      class="no-print"
      data-test="add-country"
      :disabled="adding"
      @click="add"
    >
      Add {{ unlisted.name }} to the countries you send to
    </BButton>
    <span v-if="trouble" class="error" role="status">{{ trouble }}</span>
  </FieldShell>
</template>
