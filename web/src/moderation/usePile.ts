import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { ApiProblem, postJson } from '../api/client';
import { pileOptions } from '../api/queries';
import type { Decided, PileItem } from '../api/schema';

export type Step = 'APPROVE' | 'RETURN' | 'HIDE';

/** Where an item of the pile stands on this page. */
export type Fate =
  | { type: 'waits'; problem?: string }
  | { type: 'decided'; step: Step; decision?: number }
  | { type: 'gone' };

export interface Lying {
  item: PileItem;
  fate: Fate;
}

export const keyOf = (item: { subject: string; id: number }) => `${item.subject}-${item.id}`;

/** The server's list laid onto the one on the page: nothing that one reads moves; what is new comes to the end, what somebody else decided folds away. */
function merge(before: Lying[], items: PileItem[]): Lying[] {
  const fresh = new Map(items.map((i) => [keyOf(i), i]));
  const kept = before.map((l): Lying => {
    const now = fresh.get(keyOf(l.item));
    if (l.fate.type !== 'waits') return now ? { ...l, item: now } : l;
    return now ? { item: now, fate: l.fate } : { ...l, fate: { type: 'gone' } };
  });
  const known = new Set(before.map((l) => keyOf(l.item)));
  return [...kept, ...grouped(items.filter((i) => !known.has(keyOf(i)))).map((item): Lying => ({ item, fate: { type: 'waits' } }))];
}

/** Comments of one post stand together, where the first of them would stand. */
function grouped(items: PileItem[]): PileItem[] {
  const first = new Map<string, number>();
  const place = (item: PileItem, i: number) => {
    const group = item.under ? `p${item.under.postId}` : keyOf(item);
    if (!first.has(group)) first.set(group, i);
    return first.get(group)!;
  };
  return items.map((item, i) => ({ item, at: place(item, i), i })).sort((a, b) => a.at - b.at || a.i - b.i).map((x) => x.item);
}

/** The pile as it lies on the page, and deciding about it without waiting for the server. */
export function usePile() {
  const query = useQuery(pileOptions);
  const client = useQueryClient();
  const [pile, setPile] = useState<Lying[]>([]);
  useEffect(() => {
    if (query.data) setPile((before) => merge(before, query.data));
  }, [query.data]);
  const settle = useCallback((key: string, fate: Fate) => setPile((before) => before.map((l) => (keyOf(l.item) === key ? { ...l, fate } : l))), []);

  const decide = useCallback(async (items: PileItem[], step: Step, note = '') => {
    items.forEach((i) => settle(keyOf(i), { type: 'decided', step }));
    try {
      await client.cancelQueries({ queryKey: ['pile'] });
      const results = await postJson<Decided[]>('/api/pile/decisions', { step, note, items: items.map(({ subject, id, version, rev }) => ({ subject, id, version, rev })) });
      for (const r of results) {
        if (!r.problem) settle(keyOf(r), { type: 'decided', step, decision: r.decision });
        else settle(keyOf(r), r.code === 'already-decided' ? { type: 'gone' } : { type: 'waits', problem: r.problem });
      }
      if (results.some((r) => r.problem)) await client.invalidateQueries({ queryKey: ['pile'] });
    } catch (e) {
      items.forEach((i) => settle(keyOf(i), { type: 'waits', problem: e instanceof ApiProblem ? e.message : 'This was not decided. Please try again.' }));
    }
    void client.invalidateQueries({ queryKey: ['me'] });
  }, [client, settle]);

  const undo = useCallback(async (lying: Lying) => {
    if (lying.fate.type !== 'decided' || !lying.fate.decision) return;
    try {
      await postJson(`/api/pile/decisions/${lying.fate.decision}/undo`);
      // The text comes back as the server has it now, so that the next decision names the right state of it.
      await client.refetchQueries({ queryKey: ['pile'] });
      settle(keyOf(lying.item), { type: 'waits' });
      void client.invalidateQueries({ queryKey: ['me'] });
    } catch (e) {
      settle(keyOf(lying.item), { type: 'gone' });
      if (!(e instanceof ApiProblem)) throw e;
    }
  }, [client, settle]);

  return { query, pile, decide, undo };
}
