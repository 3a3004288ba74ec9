import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { ApiProblem, postJson } from '../api/client';
import { type PileWish, pileOptions } from '../api/queries';
import type { Decided, Pile, PileItem, Revision } from '../api/schema';

export type Step = 'APPROVE' | 'RETURN' | 'HIDE' | 'BIN';

/** Where an item of the pile stands on this page. */
export type Fate =
  | { type: 'waits'; problem?: string; changes?: Revision }
  | { type: 'decided'; step: Step; decision?: number }
  | { type: 'gone' };

export interface Lying {
  item: PileItem;
  fate: Fate;
  /** With which answer of the server it came: what comes later stands after what came before, in any order. */
  batch: number;
}

/** How many texts lie ready on the page; the next come while these are gone through. */
const READY = 60;
const AT_FIRST = 100;
/** More is not decided at once: nobody has read it. */
const MOST = 500;

export const keyOf = (item: { subject: string; id: number }) => `${item.subject}-${item.id}`;

/** The server's list laid onto the one on the page: nothing that one reads moves; what is new comes to the end, what somebody else decided folds away. */
function merge(before: Lying[], pile: Pile): Lying[] {
  const fresh = new Map(pile.items.map((i) => [keyOf(i), i]));
  // What waits shorter than the last that came is only not fetched yet.
  const cut = pile.items.length < pile.total ? pile.items.at(-1)?.since : undefined;
  const kept = before.map((l): Lying => {
    const now = fresh.get(keyOf(l.item));
    if (l.fate.type !== 'waits') return now ? { ...l, item: now } : l;
    if (now) return { ...l, item: now };
    return cut && l.item.since >= cut ? l : { ...l, fate: { type: 'gone' } };
  });
  const known = new Set(before.map((l) => keyOf(l.item)));
  const batch = (before.at(-1)?.batch ?? 0) + 1;
  return [
    ...kept,
    ...grouped(pile.items.filter((i) => !known.has(keyOf(i)))).map(
      (item): Lying => ({ item, fate: { type: 'waits' }, batch }),
    ),
  ];
}

/** Comments of one post stand together, where the first of them would stand. */
function grouped(items: PileItem[]): PileItem[] {
  const first = new Map<string, number>();
  const place = (item: PileItem, i: number) => {
    const group = item.under ? `p${item.under.postId}` : keyOf(item);
    if (!first.has(group)) first.set(group, i);
    return first.get(group)!;
  };
  return items
    .map((item, i) => ({ item, at: place(item, i), i }))
    .sort((a, b) => a.at - b.at || a.i - b.i)
    .map((x) => x.item);
}

/** The pile as it lies on the page, and deciding about it without waiting for the server. */
export function usePile(wish: PileWish) {
  const [most, setMost] = useState(AT_FIRST);
  const query = useQuery({ ...pileOptions({ ...wish, most }), placeholderData: keepPreviousData });
  const client = useQueryClient();
  const [pile, setPile] = useState<Lying[]>([]);
  const { data } = query;
  useEffect(() => {
    if (data && !query.isPlaceholderData) setPile((before) => merge(before, data));
  }, [data, query.isPlaceholderData]);
  const settle = useCallback(
    (key: string, fate: Fate) => setPile((before) => before.map((l) => (keyOf(l.item) === key ? { ...l, fate } : l))),
    [],
  );

  const waiting = pile.filter((l) => l.fate.type === 'waits').length;
  const total = data?.total ?? 0;
  // Before the pile runs low the next part is fetched, while one goes on deciding.
  const runsLow = !query.isFetching && data !== undefined && data.items.length < total && waiting < READY;
  useEffect(() => {
    if (!runsLow) return;
    if (waiting >= data!.items.length) setMost((m) => Math.min(MOST, m + AT_FIRST));
    else void query.refetch();
  }, [runsLow, waiting, data, query]);

  const decide = useCallback(
    async (items: PileItem[], step: Step, note = '') => {
      items.forEach((i) => settle(keyOf(i), { type: 'decided', step }));
      try {
        await client.cancelQueries({ queryKey: ['pile'] });
        const results = await postJson<Decided[]>('/api/pile/decisions', {
          step,
          note,
          items: items.map(({ subject, id, version, rev }) => ({ subject, id, version, rev })),
        });
        for (const r of results) {
          if (!r.problem) settle(keyOf(r), { type: 'decided', step, decision: r.decision });
          else
            settle(
              keyOf(r),
              r.code === 'already-decided' || r.code === 'not-waiting'
                ? { type: 'gone' }
                : { type: 'waits', problem: r.problem, changes: r.changes },
            );
        }
        if (results.some((r) => r.problem)) await client.invalidateQueries({ queryKey: ['pile'] });
      } catch (e) {
        items.forEach((i) =>
          settle(keyOf(i), {
            type: 'waits',
            problem: e instanceof ApiProblem ? e.message : 'This was not decided. Please try again.',
          }),
        );
      }
      void client.invalidateQueries({ queryKey: ['me'] });
    },
    [client, settle],
  );

  /** Takes decisions back, one or a whole lot. */
  const undo = useCallback(
    async (lot: Lying[]) => {
      const decided = lot.flatMap((l) =>
        l.fate.type === 'decided' && l.fate.decision ? [{ key: keyOf(l.item), decision: l.fate.decision }] : [],
      );
      for (const { key, decision } of decided) {
        try {
          await postJson(`/api/pile/decisions/${decision}/undo`);
        } catch (e) {
          settle(key, { type: 'gone' });
          if (!(e instanceof ApiProblem)) throw e;
        }
      }
      // The texts come back as the server has them now, so that the next decision names the right state of each.
      await client.refetchQueries({ queryKey: ['pile'] });
      const taken = new Set(decided.map((d) => d.key));
      setPile((before) =>
        before.map((l) =>
          taken.has(keyOf(l.item)) && l.fate.type === 'decided' ? { ...l, fate: { type: 'waits' } } : l,
        ),
      );
      void client.invalidateQueries({ queryKey: ['me'] });
    },
    [client, settle],
  );

  const fetchAll = useCallback(() => setMost(MOST), []);
  /** Looks again at what waits, after one of the texts was mended. */
  const lookAgain = useCallback(() => client.refetchQueries({ queryKey: ['pile'] }), [client]);
  return { query, pile, decide, undo, fetchAll, lookAgain };
}
