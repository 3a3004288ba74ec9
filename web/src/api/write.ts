import { type QueryKey, useMutation, useQueryClient } from '@tanstack/react-query';
import { ApiProblem, sentenceOf } from './client';

/** The parts of a form that a refused write needs: to know its fields, to mark one, to lead there. */
interface Form {
  values: object;
  setFieldError(field: string, says: string): void;
  getInputNode(field: string): HTMLElement | null;
}

interface Wishes<V, T> {
  /** What is fetched anew once it is written. */
  stale?: QueryKey[];
  /** The question whose answer is, from now on, what this write is answered with. */
  fills?: QueryKey;
  /** Writes of one scope follow each other, in the order in which they were asked for. */
  scope?: string;
  /** Whether the place that asked says itself what goes wrong; else the frame does. */
  here?: boolean;
  /** The form that is sent: a refusal that names a field of it is said there. */
  form?: Form;
  /** The field of the form that says what names none. */
  field?: string;
  /** What else to do when it went wrong; the place that asked then says it. */
  onWrong?: (says: string, error: unknown, sent: V) => void;
  /** What follows at once, before all that is fetched anew is there. */
  onDone?: (answer: T, sent: V) => unknown;
}

/** The field of the form at which a refusal is said; nothing if it is said by itself. */
function fieldOf(error: unknown, form?: Form, field?: string): string | undefined {
  const named = error instanceof ApiProblem ? error.field : undefined;
  return form && named && named in form.values ? named : field;
}

/** One kind of write of a page. What goes wrong is told once: at a field, by `problem` at its place, or by the frame. */
export function useWrite<V = void, T = unknown>(send: (sent: V) => Promise<T>, wishes: Wishes<V, T> = {}) {
  const client = useQueryClient();
  const { stale = [], fills, scope, here = false, form, field, onDone, onWrong } = wishes;
  const write = useMutation<T, unknown, V>({
    mutationFn: send,
    scope: scope ? { id: scope } : undefined,
    meta: { here: here || form !== undefined || onWrong !== undefined },
    onSuccess: async (answer, sent) => {
      if (fills) client.setQueryData(fills, answer);
      await onDone?.(answer, sent);
      await Promise.all(stale.map((queryKey) => client.invalidateQueries({ queryKey })));
    },
    onError: (error, sent) => {
      const marked = fieldOf(error, form, field);
      if (form && marked) {
        form.setFieldError(marked, sentenceOf(error));
        form.getInputNode(marked)?.focus();
      }
      onWrong?.(sentenceOf(error), error, sent);
    },
  });
  return {
    run: write.mutate,
    busy: write.isPending,
    problem: write.error && !fieldOf(write.error, form, field) ? sentenceOf(write.error) : '',
    forget: write.reset,
  };
}
