import { computed, type ComputedRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Words } from './listing';

/**
 * What the address says of how a list is looked at, and how that is written anew.
 * @param prefix before each of its words in the address, where several lists stand on a page
 */
export function useWords(prefix: string): [ComputedRef<Words>, (next: Words) => void] {
  const route = useRoute();
  const router = useRouter();
  const words = computed(() => {
    const found: Record<string, string> = {};
    for (const [name, value] of Object.entries(route.query))
      if (name.startsWith(prefix) && typeof value === 'string')
        found[name.slice(prefix.length)] = value;
    return found;
  });
  const write = (next: Words): void => {
    const query = { ...route.query };
    for (const [name, value] of Object.entries(next))
      if (value) query[prefix + name] = value;
      else delete query[prefix + name];
    void router.replace({ query, hash: route.hash });
  };
  return [words, write];
}
