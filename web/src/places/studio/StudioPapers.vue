<script setup lang="ts">
import { useLeaveGuard } from '@/asking/useLeaveGuard';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';

import { useCountries } from '@/countries/useCountries';
import ChoiceField from '@/parts/ChoiceField.vue';
import NumberField from '@/parts/NumberField.vue';
import TextField from '@/parts/TextField.vue';
import FilePick from '@/parts/FilePick.vue';
import { vSay } from '@/said/say';

import { useSender } from './useSender';

/** The studio's telephone, mark and card, as they stand on labels and papers. */
const { kept, typed, changed, errors, trouble, busy, keep, keepMark, dropMark } = useSender();

const POSTCODES = [
  { value: 'before_town', text: 'before the town' },
  { value: 'after_town', text: 'after the town' },
  { value: 'own_line', text: 'on a line of its own' },
  { value: 'none', text: 'there is none' },
] as const;
const { of } = useCountries();
/** Those of the studio's own making; how all others write is known. */
const own = computed(() => typed.countries.filter(({ code }) => of(code)?.own));
/** Counts up with each mark, so that the browser shows the new one. */
const shown = ref(0);

async function chosen([file]: File[]): Promise<void> {
  if (file) await keepMark(file);
  shown.value += 1;
}
useLeaveGuard(() => (changed.value ? 'the changed label and card' : undefined));
</script>

<template>
  <section aria-label="Label and card" data-test="sender">
    <h2>Label and card</h2>
    <p class="soft">Details on labels and papers besides your name and address. Plans don’t change.</p>
    <template v-if="kept">
      <div class="pair">
        <TextField
          v-model="typed.telephone"
          label="Telephone for the driver"
          name="sender.telephone"
          :error="errors['sender.telephone']"
        />
        <TextField v-model="typed.email" label="Mail" name="sender.email" :error="errors['sender.email']" />
        <NumberField
          v-model="typed.width"
          label="Certificate card, across, mm"
          name="certificate.width_mm"
          :error="errors['certificate.width_mm']"
        />
        <NumberField
          v-model="typed.height"
          label="Certificate card, up, mm"
          name="certificate.height_mm"
          :error="errors['certificate.height_mm']"
        />
      </div>
      <template v-if="own.length > 0">
        <h3>Where the postcode stands</h3>
        <div class="pair">
          <ChoiceField
            v-for="country in own"
            :key="country.code"
            v-model="country.postcode"
            :label="country.name"
            :name="`countries.${country.code}.postcode`"
            :choices="POSTCODES"
          />
        </div>
      </template>
      <h3>Your own mark</h3>
      <div class="mark">
        <img v-if="kept.has_mark" :src="`/api/v1/studio/mark?shown=${shown}`" alt="Your own mark" />
        <FilePick
          accept="image/*"
          name="mark"
          :says="kept.has_mark ? 'Another picture' : 'Choose a picture'"
          @picked="chosen"
        />
        <BButton v-if="kept.has_mark" variant="link" @click="dropMark">Take it away</BButton>
      </div>
      <p v-if="trouble" v-say class="stop" data-test="sender-trouble">{{ trouble }}.</p>
      <BButton variant="primary" :disabled="!changed || busy" @click="keep">Keep label and card</BButton>
    </template>
    <p v-else class="soft">Reading it</p>
  </section>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
  font-size: var(--type-lead);
}
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(220px, 100%), 1fr));
  gap: 0 16px;
}
.mark {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  margin-bottom: 12px;
}
.mark img {
  max-width: 180px;
  height: 72px;
  object-fit: contain;
}
label:focus-within {
  outline: 3px solid var(--heather);
}
.stop {
  color: var(--rowan);
}
</style>
