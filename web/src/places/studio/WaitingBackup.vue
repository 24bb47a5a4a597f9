<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import type { Backup } from '@/api/types';
import { counted } from '@/words/grammar';
import { vSay } from '@/said/say';

import BrokenPictures from './BrokenPictures.vue';

/** A backup that is here, and the word that it waits for. */
const { waiting } = defineProps<{ waiting: NonNullable<Backup['waiting']> }>();
const emit = defineEmits<{
  goOn: [word: { passphrase?: string; without_broken?: boolean }];
  giveUp: [];
}>();

const passphrase = ref('');
</script>

<template>
  <div class="waiting" data-test="backup-waiting">
    <form v-if="waiting.sealed" @submit.prevent="emit('goOn', { passphrase })">
      <p v-say>
        {{
          waiting.wrong_passphrase
            ? 'That is not the passphrase that it was sealed with.'
            : 'The file is here, and it is sealed.'
        }}
      </p>
      <label>
        Its passphrase
        <input
          v-model="passphrase"
          type="password"
          name="backup-passphrase"
          autocomplete="off"
          class="form-control"
        />
      </label>
      <div class="row-of">
        <BButton type="submit" variant="primary" :disabled="passphrase === ''">Open it</BButton>
        <BButton variant="outline-secondary" @click="emit('giveUp')">Give it up</BButton>
      </div>
    </form>
    <template v-else>
      <p v-say>
        {{ counted(waiting.broken_pictures, 'picture') }} in it
        {{ waiting.broken_pictures === 1 ? 'is' : 'are' }} broken, everything else is whole. Look for another
        backup, or read it in without them:
      </p>
      <BrokenPictures :broken="waiting.broken" :all="waiting.broken_pictures" />
      <div class="row-of">
        <BButton variant="primary" @click="emit('goOn', { without_broken: true })">
          Read it in without them
        </BButton>
        <BButton variant="outline-secondary" @click="emit('giveUp')">Give it up</BButton>
      </div>
    </template>
  </div>
</template>

<style scoped>
.waiting {
  max-width: 560px;
  padding: 8px 12px;
  border: 1px solid var(--sedge);
  border-left: 4px solid var(--heather);
}
p {
  margin: 0 0 6px;
}
.row-of {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  margin: 8px 0 0;
}
</style>
