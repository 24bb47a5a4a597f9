// What is looked for stands in the address, so that back and a reload lead to the same list.
import { computed } from 'vue';
import type { WritableComputedRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** Returns how a value is kept in the address by its key; what is as usual is left out. A change of any key but `page` takes `page`
    away: whatever else is looked for begins at the first page. */
export function useInAddress(page?: string) {
  const route = useRoute();
  const router = useRouter();
  return <Value extends string = string>(key: string, otherwise: Value): WritableComputedRef<Value> =>
    computed({
      get: () => (route.query[key] as Value | undefined) ?? otherwise,
      set: (value: Value) => {
        const query = { ...route.query, [key]: value };
        if (value === otherwise) Reflect.deleteProperty(query, key);
        if (page !== undefined && key !== page) Reflect.deleteProperty(query, page);
        void router.replace({ query });
      },
    });
}
