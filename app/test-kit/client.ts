import { QueryClient, type QueryClientConfig } from '@tanstack/react-query';

/** A cache for a test: nothing of it is dropped later, as no test waits for that. */
export const clientForTest = (
  queries: NonNullable<QueryClientConfig['defaultOptions']>['queries'] = {},
): QueryClient =>
  new QueryClient({
    defaultOptions: {
      queries: { gcTime: Number.POSITIVE_INFINITY, ...queries },
      mutations: { gcTime: Number.POSITIVE_INFINITY },
    },
  });
