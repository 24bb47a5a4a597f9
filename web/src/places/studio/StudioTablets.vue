<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';

import { answer, api, done, Refused } from '@/api/client';
import { useRead } from '@/api/queries';
import type { Device } from '@/api/types';
import TextField from '@/parts/TextField.vue';
import { vSay } from '@/said/say';
import * as show from '@/units/show';

/** How a tablet gets in, and which are in. */
const PICTURE = '/api/v1/devices/address.svg';
const {
  data: devices,
  away,
  reload: load,
} = useRead({
  queryKey: ['devices'],
  queryFn: ({ signal }) => answer(api.GET('/api/v1/devices', { signal })),
});
const passphrase = ref('');
const error = ref<string>();
const says = ref('');

async function signOut(device: Device): Promise<void> {
  says.value = '';
  try {
    await done(api.DELETE('/api/v1/devices/{id}', { params: { path: { id: device.id } } }));
    says.value = `${device.name} is signed out.`;
  } catch (cause) {
    says.value =
      cause instanceof Refused ? 'It was signed out already.' : 'The server can’t be reached: try again.';
  }
  await load();
}

async function change(): Promise<void> {
  error.value = undefined;
  says.value = '';
  try {
    await done(api.PUT('/api/v1/passphrase', { body: { passphrase: passphrase.value } }));
    passphrase.value = '';
    says.value = 'The passphrase is changed. Every device is asked for it.';
    await load();
  } catch (cause) {
    error.value =
      cause instanceof Refused
        ? (cause.fields.passphrase ?? cause.message)
        : 'The server can’t be reached: try again.';
  }
}

const day = (moment: string) => show.dayAndYear(moment.slice(0, 10));
</script>

<template>
  <section data-test="tablets">
    <h2>Tablets</h2>
    <p v-if="away" v-say class="soft">The list of tablets can’t be reached. Trying again.</p>
    <template v-if="devices">
      <p v-if="!devices.open" class="soft">
        Hummock answers on this machine only. To use a tablet in the workshop, restart Hummock with
        <code>bin/start --listen 0.0.0.0</code>: it then serves the local network, encrypted. Each device
        gives the studio’s passphrase once.
      </p>
      <div v-else class="way">
        <img :src="PICTURE" alt="" width="148" height="148" />
        <ol>
          <li>
            On the tablet, open
            <template v-for="(address, at) in devices.addresses" :key="address">
              <template v-if="at > 0"> or </template><strong class="address">{{ address }}</strong>
            </template>
            or point its camera at the square.
          </li>
          <li v-if="devices.fingerprint">
            Install <a href="/api/v1/devices/authority.crt">the studio’s certificate</a> there, so that it
            stops warning. Its fingerprint (SHA-256) has to be
            <span class="fingerprint">{{ devices.fingerprint.replaceAll(':', ':\u200b') }}</span>
          </li>
          <li>Give the studio’s passphrase. It is asked once for each device.</li>
        </ol>
      </div>
      <table v-if="devices.devices.length > 0">
        <thead>
          <tr>
            <th scope="col">device</th>
            <th scope="col">let in</th>
            <th scope="col">last seen</th>
            <th scope="col"><span class="visually-hidden">sign out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="device in devices.devices" :key="device.id" :data-device="device.name">
            <td>{{ device.name }}<span v-if="device.this" class="soft">, this one</span></td>
            <td>{{ day(device.signed_in) }}</td>
            <td>{{ day(device.seen) }}</td>
            <td><BButton size="sm" @click="signOut(device)">Sign out</BButton></td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="devices.open" class="soft">No device is signed in yet.</p>
      <form
        v-if="devices.may_change_passphrase && (devices.open || devices.has_passphrase)"
        @submit.prevent="change"
      >
        <TextField
          v-model="passphrase"
          label="New passphrase"
          name="new-passphrase"
          type="password"
          autocomplete="new-password"
          hint="At least 12 letters, such as four words. Every device is then asked for it."
          :error="error"
        />
        <BButton type="submit" :disabled="!passphrase">Change the passphrase</BButton>
      </form>
    </template>
    <p v-if="says" v-say>{{ says }}</p>
  </section>
</template>

<style scoped lang="scss">
@use '@/styles/at';

h2 {
  margin: 28px 0 4px;
  font-size: var(--type-lead);
}
.way {
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr);
  align-items: start;
  gap: 20px;
  margin: 8px 0 12px;
}
ol {
  margin: 0;
  padding-left: 1.2em;
}
li {
  margin-bottom: 8px;
}
.address,
.fingerprint {
  overflow-wrap: anywhere;
}
.fingerprint {
  font-size: var(--type-small);
  font-variant-numeric: tabular-nums;
}
table {
  width: 100%;
}
form {
  max-width: 420px;
  margin-top: 16px;
}
@include at.phone {
  .way {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
