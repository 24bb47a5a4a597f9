<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea';
import { computed, ref, shallowRef } from 'vue';

import FieldShell from '@/parts/FieldShell.vue';
import FilePick from '@/parts/FilePick.vue';

import { decoded, ENCODINGS, encodingOf, telling } from './decoded';
import type { Encoding } from './decoded';

/** The table of a shop: a file in any usual encoding, or what is pasted. */
const text = defineModel<string>({ required: true });

const file = shallowRef<{ name: string; bytes: Uint8Array }>();
const encoding = ref<Encoding>('utf-8');
/** A word that shows whether its letters were understood. */
const sample = computed(() => telling(text.value));

async function read([picked]: File[]): Promise<void> {
  if (!picked) return;
  const bytes = new Uint8Array(await picked.arrayBuffer());
  file.value = { name: picked.name, bytes };
  encoding.value = encodingOf(bytes);
  text.value = decoded(bytes, encoding.value);
}
function readAs(chosen: Encoding): void {
  encoding.value = chosen;
  if (file.value) text.value = decoded(file.value.bytes, chosen);
}
function pasted(typed: string): void {
  file.value = undefined;
  text.value = typed;
}
</script>

<template>
  <div class="file">
    <FilePick
      name="orders.file"
      accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values,text/plain"
      says="A shop’s table"
      @picked="read"
    />
    <p v-if="file" class="read" data-test="file">
      <strong>{{ file.name }}</strong>
      <label>
        read as
        <BFormSelect
          :model-value="encoding"
          name="encoding"
          size="sm"
          @update:model-value="readAs($event as Encoding)"
        >
          <option v-for="(name, key) in ENCODINGS" :key="key" :value="key">{{ name }}</option>
        </BFormSelect>
      </label>
      <span v-if="sample" class="soft">for example “{{ sample }}”</span>
    </p>
    <details :open="!file">
      <summary>{{ file ? 'The text of it' : 'Or paste it, with its head' }}</summary>
      <FieldShell v-slot="{ id }" label="The table, with its head" bare>
        <BFormTextarea
          :id="id"
          :model-value="text"
          name="orders.csv"
          rows="5"
          spellcheck="false"
          @update:model-value="pasted(String($event))"
        />
      </FieldShell>
    </details>
  </div>
</template>

<style scoped>
.read {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin: 8px 0 0;
}
.read label {
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
}
summary {
  padding: 8px 0;
  color: var(--peat-soft);
}
textarea {
  font-size: var(--type-small);
}
</style>
