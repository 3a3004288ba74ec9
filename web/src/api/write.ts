import { type QueryKey, useMutation, useQueryClient } from '@tanstack/react-query';
import { sentenceOf } from './client';

interface Wishes<V, T> {
  /** What is fetched anew once it is written. */
  stale?: QueryKey[];
  /** Writes of one scope follow each other, in the order in which they were asked for. */
  scope?: string;
  /** Whether the place that asked says itself what goes wrong; else the frame does. */
  here?: boolean;
  /** What to do with the sentence that says what went wrong, where a field of a form says it. */
  onWrong?: (says: string) => void;
  /** What follows at once, before all that is fetched anew is there. */
  onDone?: (answer: T, sent: V) => unknown;
}

/** One kind of write of a page. What goes wrong is told once: by `problem` at its place, or by the frame. */
export function useWrite<V = void, T = unknown>(send: (sent: V) => Promise<T>, wishes: Wishes<V, T> = {}) {
  const client = useQueryClient();
  const { stale = [], scope, here = false, onDone, onWrong } = wishes;
  const write = useMutation<T, unknown, V>({
    mutationFn: send,
    scope: scope ? { id: scope } : undefined,
    meta: { here: here || onWrong !== undefined },
    onSuccess: async (answer, sent) => {
      await onDone?.(answer, sent);
      await Promise.all(stale.map((queryKey) => client.invalidateQueries({ queryKey })));
    },
    onError: (error) => onWrong?.(sentenceOf(error)),
  });
  return {
    run: write.mutate,
    busy: write.isPending,
    problem: write.error ? sentenceOf(write.error) : '',
    forget: write.reset,
  };
}
