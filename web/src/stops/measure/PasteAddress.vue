<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';
import { computed, ref } from 'vue';

import { answer, api } from '@/api/client';
import type { PartedAddress } from '@/api/types';
import FieldShell from '@/parts/FieldShell.vue';
import { fieldInSentence } from '@/shipment/fields';
import { useShipment } from '@/shipment/useShipment';

/** An address pasted as it came, parted into the fields below to be looked over. */
const { open } = defineProps<{
  /** Unfolded from the beginning: where an address is what is missing. */
  open?: boolean;
}>();
const { draft, save } = useShipment();
const block = ref('');
const parted = ref<PartedAddress>();
const error = ref('');
const asking = ref(false);

const doubts = computed(() => parted.value?.doubts.map(fieldInSentence).join(', '));

async function part(): Promise<void> {
  asking.value = true;
  error.value = '';
  try {
    const found = await answer(api.POST('/api/v1/addresses', { body: { block: block.value } }));
    // What nothing was found for stays as it is.
    for (const [field, text] of Object.entries(found.buyer)) {
      if (text) draft.buyer[field as keyof typeof draft.buyer] = text;
    }
    parted.value = found;
    block.value = '';
    void save();
  } catch {
    error.value = 'The server couldn’t read it. Try again, or fill in the fields below.';
  } finally {
    asking.value = false;
  }
}
</script>

<template>
  <details class="paste" :open="open">
    <summary>Paste an address</summary>
    <FieldShell v-slot="{ id, described }" label="The whole address" :error="error">
      <BFormTextarea
        :id="id"
        v-model="block"
        name="address-block"
        rows="5"
        maxlength="2000"
        :aria-describedby="described"
        placeholder="Name, street, town and postcode, country"
      />
    </FieldShell>
    <BButton size="sm" variant="outline-secondary" :disabled="!block.trim() || asking" @click="part">
      Put it into the fields
    </BButton>
    <p v-if="parted" class="soft" role="status">
      Look it over below{{ doubts ? `, above all ${doubts}` : '' }}.
      <template v-if="parted.left.length > 0">Left aside: {{ parted.left.join('; ') }}.</template>
    </p>
  </details>
</template>

<style scoped>
.paste {
  margin-bottom: 8px;
}
summary {
  min-height: 44px;
  padding-top: 10px;
  color: var(--water);
  cursor: pointer;
}
</style>
