<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { ref } from 'vue';

import { api, done, Refused } from '@/api/client';
import { signedOut } from '@/api/signedOut';
import { useStudio } from '@/api/useStudio';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';

/** Asks a tablet for the studio's passphrase, over whatever it was doing. */
const { reload } = useStudio();

const passphrase = ref('');
const name = ref('Tablet');
const errors = ref<Record<string, string>>({});
const says = ref('');
const asking = ref(false);

async function give(): Promise<void> {
  asking.value = true;
  errors.value = {};
  says.value = '';
  try {
    await done(api.POST('/api/v1/devices', { body: { passphrase: passphrase.value, name: name.value } }));
    passphrase.value = '';
    await reload();
  } catch (cause) {
    if (cause instanceof Refused && Object.keys(cause.fields).length > 0) errors.value = cause.fields;
    else says.value = cause instanceof Error ? `${cause.message}.` : '';
  } finally {
    asking.value = false;
  }
}
</script>

<template>
  <BModal v-model="signedOut" title="Sign in" no-footer no-header-close no-close-on-backdrop no-close-on-esc>
    <p>
      This device gives the studio’s passphrase once. Changes made on it are kept, and saved after sign-in.
    </p>
    <form data-test="sign-in" @submit.prevent="give">
      <TextField
        v-model="passphrase"
        label="The studio’s passphrase"
        name="passphrase"
        type="password"
        autocomplete="current-password"
        :error="errors.passphrase"
      />
      <TextField
        v-model="name"
        label="Name of this device"
        name="name"
        hint="So that it is known in the list under House rules"
        :error="errors.name"
      />
      <p v-if="says" v-say class="problem">{{ says }}</p>
      <BButton type="submit" variant="primary" :disabled="asking || !passphrase">Sign in this device</BButton>
    </form>
    <p class="soft">
      Does the browser warn about this address? Install
      <a href="/api/v1/devices/authority.crt">the studio’s certificate</a> on this device, once.
    </p>
  </BModal>
</template>

<style scoped>
.problem {
  color: var(--rowan);
  font-weight: 600;
}
.problem::first-letter {
  text-transform: uppercase;
}
.soft {
  margin: 16px 0 0;
}
</style>
