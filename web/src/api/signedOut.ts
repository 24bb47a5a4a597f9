import { ref } from 'vue';

/** Whether this device has to give the studio's passphrase before it is answered. */
export const signedOut = ref(false);
