import { QueryClient, QueryObserver } from '@tanstack/vue-query';

export { type QueryClient, QueryObserver };

/** What came over the network, for the whole app. */
export const queryClient = new QueryClient({
  defaultOptions: { queries: { retry: false, staleTime: 10_000 } },
});
