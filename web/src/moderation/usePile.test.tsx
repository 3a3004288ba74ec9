import { act, renderHook, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { PileWish } from '../api/queries';
import type { PileItem } from '../api/schema';
import { surroundings } from '../testing/page';
import { fakeServer } from '../testing/server';
import { keyOf, usePile } from './usePile';

const wish = { classId: 1 } as unknown as PileWish;

function post(id: number, over: Partial<PileItem> = {}): PileItem {
  return {
    subject: 'post',
    id,
    version: 1,
    rev: 1,
    since: `2026-09-0${id}T10:00:00Z`,
    title: `Post ${id}`,
    ...over,
  } as PileItem;
}
const comment = (id: number, under: number) =>
  post(id, { subject: 'comment', under: { postId: under } as PileItem['under'] });

describe('the pile on the page', () => {
  const server = fakeServer();

  async function open(...items: PileItem[]) {
    const { client, wrapper } = surroundings();
    const { result } = renderHook(() => usePile(wish), { wrapper });
    await serve(...items);
    await waitFor(() => expect(result.current.pile.length).toBe(items.length));
    return {
      client,
      page: result,
      fates: () => result.current.pile.map((l) => `${keyOf(l.item)} ${l.fate.type}`),
      again: () =>
        act(() => {
          void client.refetchQueries({ queryKey: ['pile'] });
        }),
    };
  }

  async function serve(...items: PileItem[]) {
    const call = await server.next('GET', /pile/);
    await act(async () => call.answer({ items, total: items.length, moreWaits: 0 }));
  }

  it('lets nothing move that one reads: what is new comes to the end, what somebody else decided folds away', async () => {
    const { again, fates } = await open(post(2), post(3));
    await again();
    await serve(post(1), post(3), post(4));
    await waitFor(() => expect(fates()).toEqual(['post-2 gone', 'post-3 waits', 'post-1 waits', 'post-4 waits']));
  });

  it('puts comments of one post together, where the first of them stands', async () => {
    const { fates } = await open(comment(1, 70), post(2), comment(3, 70), comment(4, 71));
    expect(fates()).toEqual(['comment-1 waits', 'comment-3 waits', 'post-2 waits', 'comment-4 waits']);
  });

  it('keeps what is only not fetched yet', async () => {
    const { client, page, fates, again } = await open(post(1), post(2), post(3));
    await again();
    const call = await server.next('GET', /pile/);
    await act(async () => call.answer({ items: [post(1), post(2)], total: 5 }));
    await waitFor(() => expect(page.current.query.data!.total).toBe(5));
    expect(fates()).toEqual(['post-1 waits', 'post-2 waits', 'post-3 waits']);
    client.clear();
  });

  it('shows a decision at once, and names the version and revision that were read', async () => {
    const { page, fates } = await open(post(1, { version: 2, rev: 6 }), post(2));
    void act(() => void page.current.decide([page.current.pile[0]!.item], 'RETURN', 'Count again.'));
    await waitFor(() => expect(fates()[0]).toBe('post-1 decided'));
    const call = await server.next('POST');
    expect(call.body).toEqual({
      step: 'RETURN',
      note: 'Count again.',
      items: [{ subject: 'post', id: 1, version: 2, rev: 6 }],
    });
    await act(async () => call.answer([{ subject: 'post', id: 1, decision: 90 }]));
    expect(page.current.pile[0]!.fate).toEqual({ type: 'decided', step: 'RETURN', decision: 90 });
  });

  it('gives a text back with the reason when it was not decided', async () => {
    const { page } = await open(post(1), post(2));
    void act(
      () =>
        void page.current.decide(
          page.current.pile.map((l) => l.item),
          'APPROVE',
        ),
    );
    const call = await server.next('POST');
    await act(async () =>
      call.answer([
        { subject: 'post', id: 1, code: 'changed', problem: 'Its author changed it since.' },
        { subject: 'post', id: 2, code: 'already-decided', problem: 'Somebody was faster.' },
      ]),
    );
    await waitFor(() =>
      expect(page.current.pile[0]!.fate).toEqual({
        type: 'waits',
        problem: 'Its author changed it since.',
        changes: undefined,
      }),
    );
    expect(page.current.pile[1]!.fate.type).toBe('gone');
  });

  it('gives all back when the server is not reached', async () => {
    const { page, fates } = await open(post(1), post(2));
    void act(
      () =>
        void page.current.decide(
          page.current.pile.map((l) => l.item),
          'APPROVE',
        ),
    );
    await act(async () => (await server.next('POST')).lose());
    await waitFor(() => expect(fates()).toEqual(['post-1 waits', 'post-2 waits']));
    expect(page.current.pile[0]!.fate).toMatchObject({ problem: 'The server cannot be reached just now.' });
  });

  it('takes decisions back, and reads the text as the server has it then', async () => {
    const { page, fates } = await open(post(1));
    void act(() => void page.current.decide([page.current.pile[0]!.item], 'APPROVE'));
    await act(async () => (await server.next('POST')).answer([{ subject: 'post', id: 1, decision: 90 }]));
    void act(() => void page.current.undo(page.current.pile));
    const call = await server.next('POST', /decisions\/90\/undo/);
    await act(async () => call.answer(undefined));
    await serve(post(1, { rev: 5 }));
    await waitFor(() => expect(fates()).toEqual(['post-1 waits']));
    expect(page.current.pile[0]!.item.rev).toBe(5);
  });

  it('says that a decision is not to be taken back any more', async () => {
    const { page, fates } = await open(post(1));
    void act(() => void page.current.decide([page.current.pile[0]!.item], 'APPROVE'));
    await act(async () => (await server.next('POST')).answer([{ subject: 'post', id: 1, decision: 90 }]));
    void act(() => void page.current.undo(page.current.pile));
    await act(async () =>
      (await server.next('POST', /undo/)).answer({ code: 'newer', detail: 'Something newer was decided.' }, 409),
    );
    await serve();
    await waitFor(() => expect(fates()).toEqual(['post-1 gone']));
  });
});
