import { MutationCache, QueryClient } from '@tanstack/react-query';
import { ApiProblem, sentenceOf } from '../api/client';
import { tell } from '../ui/Told';

/** What the whole page asks and writes through. */
export const newClient = () =>
  new QueryClient({
    // A write says itself what goes wrong with it, or it is told here; it never fails without a word.
    mutationCache: new MutationCache({
      onMutate: () => tell(''),
      onError: (error, _sent, _kept, write) => {
        if (!write.meta?.here) tell(sentenceOf(error));
      },
    }),
    defaultOptions: {
      queries: {
        retry: (count, error) =>
          count < 2 && !(error instanceof ApiProblem && error.status >= 400 && error.status < 500),
        staleTime: 2_000,
      },
    },
  });
