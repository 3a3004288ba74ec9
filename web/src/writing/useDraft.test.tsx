import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Draft } from '../api/schema';
import { fakeServer } from '../testing/server';
import { type Kept, keptHere, useDraft } from './useDraft';

const NAME = 'porch-5-draft-40';
const draft = {
  id: 40,
  title: '',
  html: '',
  tags: [],
  audience: 'MY_CLASS',
  works: [],
  beside: { rev: 3, savedAt: '2026-09-01T10:00:00Z' },
} as unknown as Draft;
const typed: Kept = { title: '', html: '', tags: [], audience: 'MY_CLASS', works: [], rev: 3 };
const beside = (rev: number) => ({ rev, savedAt: '2026-09-01T10:05:00Z' });

describe('keeping what is typed', () => {
  const server = fakeServer();
  beforeEach(() => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
  });
  afterEach(() => {
    vi.useRealTimers();
  });

  const writing = () => renderHook(() => useDraft(draft, typed, NAME)).result;
  const pause = () => act(() => vi.advanceTimersByTimeAsync(1_000));
  const answer = async (body: unknown, status?: number) => {
    const call = await server.next('PUT');
    await act(async () => call.answer(body, status));
    return call.body as Kept;
  };

  it('keeps every word in the browser at once, and sends them after a pause', async () => {
    const page = writing();
    act(() => page.current.change({ html: '<p>Slugs</p>' }));
    expect(keptHere(NAME)).toMatchObject({ html: '<p>Slugs</p>', rev: 3 });
    expect(server.calls).toHaveLength(0);
    act(() => page.current.change({ html: '<p>Slugs, again</p>' }));
    await pause();
    expect(await answer(beside(4))).toMatchObject({ html: '<p>Slugs, again</p>', rev: 3 });
    expect(page.current.saving).toEqual({ type: 'saved', at: '2026-09-01T10:05:00Z' });
    expect(keptHere(NAME)).toBeNull();
  });

  it('has one save on its way at a time; what is typed meanwhile goes on top of it', async () => {
    const page = writing();
    act(() => page.current.change({ title: 'One' }));
    await pause();
    act(() => page.current.change({ title: 'Two' }));
    await pause();
    expect(server.calls).toHaveLength(1);
    expect((await answer(beside(4))).title).toBe('One');
    expect(keptHere(NAME)).toMatchObject({ title: 'Two', rev: 4 });
    expect(await answer(beside(5))).toMatchObject({ title: 'Two', rev: 4 });
  });

  it('keeps it here while the server cannot be reached, and tries again by itself', async () => {
    const page = writing();
    act(() => page.current.change({ title: 'Offline' }));
    await pause();
    await act(async () => (await server.next('PUT')).lose());
    expect(page.current.saving).toMatchObject({ type: 'kept-here' });
    expect(keptHere(NAME)).toMatchObject({ title: 'Offline' });
    await act(() => vi.advanceTimersByTimeAsync(4_100));
    expect((await answer(beside(4))).title).toBe('Offline');
    expect(page.current.saving.type).toBe('saved');
  });

  it('writes nothing over that changed elsewhere: both are there to choose from', async () => {
    const page = writing();
    act(() => page.current.change({ title: 'Mine' }));
    await pause();
    await answer(
      {
        code: 'changed-elsewhere',
        detail: 'It changed elsewhere.',
        rev: 8,
        title: 'Theirs',
        html: '',
        tags: [],
        works: [],
      },
      409,
    );
    expect(page.current.saving).toMatchObject({ type: 'elsewhere', rev: 8, theirs: { title: 'Theirs' } });
    expect(keptHere(NAME)).toMatchObject({ title: 'Mine' });
    act(() => void page.current.keepMine(8));
    expect(await answer(beside(9))).toMatchObject({ title: 'Mine', rev: 8 });
  });

  it('takes what is there if that is chosen, and keeps nothing of its own', async () => {
    const page = writing();
    act(() => page.current.change({ title: 'Mine' }));
    await pause();
    await answer(
      {
        code: 'changed-elsewhere',
        detail: 'It changed elsewhere.',
        rev: 8,
        title: 'Theirs',
        html: '',
        tags: [],
        works: [],
      },
      409,
    );
    act(() => page.current.takeTheirs({ ...typed, title: 'Theirs' }, 8));
    expect(keptHere(NAME)).toBeNull();
    act(() => page.current.change({ tags: ['frost'] }));
    await pause();
    expect(await answer(beside(9))).toMatchObject({ title: 'Theirs', tags: ['frost'], rev: 8 });
  });

  it('knows its own save again whose answer was lost, and asks nobody about it', async () => {
    const page = writing();
    act(() => page.current.change({ title: 'Mine', html: '<p>a</p>' }));
    await pause();
    await act(async () => (await server.next('PUT')).lose());
    act(() => page.current.change({ html: '<p>ab</p>' }));
    await pause();
    await answer(
      {
        code: 'changed-elsewhere',
        detail: 'It changed elsewhere.',
        rev: 4,
        title: 'Mine',
        html: '<p>a</p>',
        tags: [],
        works: [],
      },
      409,
    );
    expect(await answer(beside(5))).toMatchObject({ html: '<p>ab</p>', rev: 4 });
    expect(page.current.saving.type).toBe('saved');
  });

  it('marks the field that the server refuses, and keeps the words', async () => {
    const page = writing();
    act(() => page.current.change({ title: 'x'.repeat(400) }));
    await pause();
    await answer({ code: 'too-long', detail: 'A title has at most 200 letters.', field: 'title' }, 422);
    expect(page.current.saving).toEqual({ type: 'refused', field: 'title', why: 'A title has at most 200 letters.' });
    expect(keptHere(NAME)!.title).toHaveLength(400);
  });

  it('sends what is not sent yet when the page is left', async () => {
    const { result, unmount } = renderHook(() => useDraft(draft, typed, NAME));
    act(() => result.current.change({ title: 'Last word' }));
    unmount();
    expect((await answer(beside(4))).title).toBe('Last word');
  });

  it('reads nothing from what is no draft', () => {
    localStorage.setItem(NAME, '{broken');
    expect(keptHere(NAME)).toBeNull();
  });
});
