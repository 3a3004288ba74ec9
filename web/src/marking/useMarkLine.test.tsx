import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { meOptions, paperOptions, stripOptions } from '../api/queries';
import type { Me, Paper, Seen, Standing, Strip } from '../api/schema';
import { surroundings } from '../testing/page';
import { fakeServer } from '../testing/server';
import { useMarkLine } from './useMarkLine';

const PROMPT = 7;
/** What stands given for a paper of one post. */
const given = ({ post = 40, rev = 1, marks = [] as { criterion: string; points: number }[] } = {}) =>
  ({
    word: '',
    marks: marks.map((m) => ({ notCounted: false, remark: '', ...m })),
    seen: { posts: [{ post, version: 1 }], rev },
  }) as unknown as Standing;
const paper = (of: Parameters<typeof given>[0] = {}) =>
  ({ posts: [{ postId: of?.post ?? 40 }], evidence: {}, given: given(of) }) as unknown as Paper;
const strip = {
  promptId: PROMPT,
  title: 'Log',
  students: [
    { studentId: 1, name: 'Wren Castellane' },
    { studentId: 2, name: 'Pia Aurelio' },
  ],
} as unknown as Strip;
const level = (criterion: number, points: number) => ({
  path: `criteria/c${criterion}`,
  body: { points, notCounted: false, remark: '' },
  says: `Criterion ${criterion}: ${points}`,
});

describe('giving marks one after the other', () => {
  const server = fakeServer();
  let signedIn = { id: 7 };
  beforeEach(() => {
    signedIn = { id: 7 };
  });

  function marking(papers: Record<number, Paper> = { 1: paper(), 2: paper({ post: 50 }) }) {
    const { client, wrapper } = surroundings();
    client.setQueryData(meOptions.queryKey, { id: 7 } as Me);
    server.always.set('GET /api/me', () => signedIn);
    for (const [student, one] of Object.entries(papers))
      client.setQueryData(paperOptions(PROMPT, Number(student)).queryKey, one);
    client.setQueryData(stripOptions(PROMPT).queryKey, strip);
    const told: string[] = [];
    const hook = renderHook(
      ({ student }) =>
        useMarkLine(strip, student, (what) => {
          if (what) told.push(what);
        }),
      { wrapper, initialProps: { student: 1 } },
    );
    return {
      client,
      hook,
      told,
      put: (wanted: ReturnType<typeof level>) => act(async () => hook.result.current.put(wanted)),
      shown: (student = 1) => client.getQueryData(paperOptions(PROMPT, student).queryKey),
    };
  }

  const answer = async (of: Parameters<typeof given>[0]) => {
    const call = await server.next('PUT');
    await act(async () => call.answer(given(of)));
    return call.body as { points: number; seen: Seen };
  };

  it('sends one at a time, each naming the paper as the one before it left it', async () => {
    const { put } = marking();
    await put(level(0, 6));
    await put(level(1, 4));
    await put(level(2, 2));
    await server.next('PUT');
    expect(server.calls.filter((c) => c.method === 'PUT')).toHaveLength(1);
    expect((await answer({ rev: 2 })).seen.rev).toBe(1);
    expect((await answer({ rev: 3 })).seen.rev).toBe(2);
    expect((await answer({ rev: 4 })).seen.rev).toBe(3);
  });

  it('names what it was told last, though the page has not drawn it yet', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    const first = await server.next('PUT');
    const early = hook.result.current.put;
    await act(async () => first.answer(given({ rev: 2 })));
    await act(async () => early(level(1, 4)));
    expect((await answer({ rev: 3 })).seen.rev).toBe(2);
  });

  it('does not fall back to an older look at the paper that was drawn after a newer one', async () => {
    const { put, client } = marking();
    await put(level(0, 6));
    await answer({ rev: 5 });
    client.setQueryData(paperOptions(PROMPT, 1).queryKey, paper({ rev: 1 }));
    await put(level(1, 4));
    expect((await answer({ rev: 6 })).seen.rev).toBe(5);
  });

  it('names the post that is shown when its author has handed in another one', async () => {
    const { put, client } = marking();
    await put(level(0, 6));
    await answer({ rev: 5 });
    client.setQueryData(paperOptions(PROMPT, 1).queryKey, paper({ post: 41, rev: 1 }));
    await put(level(1, 4));
    expect((await answer({ post: 41, rev: 2 })).seen).toEqual({ posts: [{ post: 41, version: 1 }], rev: 1 });
  });

  it('shows only the last of several answers, so that no earlier one takes a newer step back', async () => {
    const { put, shown } = marking();
    await put(level(0, 6));
    await put(level(0, 4));
    await answer({ rev: 2, marks: [{ criterion: 'c0', points: 6 }] });
    expect(shown()!.given.seen.rev).toBe(1);
    await answer({ rev: 3, marks: [{ criterion: 'c0', points: 4 }] });
    await waitFor(() => expect(shown()!.given.marks[0]!.points).toBe(4));
  });

  it('stops at a refusal: what was typed behind it was meant for another paper', async () => {
    const { put, hook, told } = marking();
    await put(level(0, 6));
    await put(level(1, 4));
    const first = await server.next('PUT');
    await act(async () =>
      first.answer({ code: 'marked-meanwhile', detail: 'Mr Fennimore has marked here since.' }, 409),
    );
    await waitFor(() => expect(hook.result.current.meanwhile?.wanted.says).toBe('Criterion 0: 6'));
    expect(server.calls.filter((c) => c.method === 'PUT')).toHaveLength(0);
    expect(told).toEqual([]);
    act(() => hook.result.current.leave());
    expect(hook.result.current.meanwhile).toBeNull();
  });

  it('goes on after a refusal from what stands there now', async () => {
    const { put, client, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).answer({ code: 'marked-meanwhile', detail: 'Changed.' }, 409));
    client.setQueryData(paperOptions(PROMPT, 1).queryKey, paper({ rev: 9 }));
    await put(hook.result.current.meanwhile!.wanted as ReturnType<typeof level>);
    expect((await answer({ rev: 10 })).seen.rev).toBe(9);
    await waitFor(() => expect(hook.result.current.meanwhile).toBeNull());
  });

  it('keeps the paper of each student apart when one steps on before the answer', async () => {
    const { put, hook, shown } = marking();
    await put(level(0, 6));
    hook.rerender({ student: 2 });
    await put(level(0, 2));
    expect((await answer({ rev: 2 })).seen.posts[0]!.post).toBe(40);
    expect((await answer({ post: 50, rev: 2 })).seen).toEqual({ posts: [{ post: 50, version: 1 }], rev: 1 });
    expect(shown(1)!.given.seen.rev).toBe(2);
    expect(shown(2)!.given.seen.posts[0]!.post).toBe(50);
  });

  it('tells of a refusal for a student whose page one has left, by name', async () => {
    const { put, hook, told } = marking();
    await put(level(0, 6));
    hook.rerender({ student: 2 });
    await act(async () => (await server.next('PUT')).answer({ code: 'marked-meanwhile', detail: 'Changed.' }, 409));
    expect(told).toEqual(['Wren Castellane, Criterion 0: 6: this was not kept. Changed.']);
    expect(hook.result.current.meanwhile).toBeNull();
  });

  const keptNames = () => Object.keys(localStorage).filter((name) => name.includes(`-marks-${PROMPT}-`));
  const back = () => act(async () => window.dispatchEvent(new Event('online')));

  it('keeps steps here while the server is away, and sends them in their order when it is back', async () => {
    const { put, hook, told } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).lose());
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    await put(level(1, 4));
    expect(hook.result.current.waiting).toBe(2);
    expect(keptNames()).toHaveLength(1);
    expect(told).toEqual([]);
    await back();
    expect((await answer({ rev: 2 })).points).toBe(6);
    const second = await answer({ rev: 3 });
    expect(second.points).toBe(4);
    expect(second.seen.rev).toBe(2);
    await waitFor(() => expect(hook.result.current.waiting).toBe(0));
    expect(keptNames()).toHaveLength(0);
  });

  it('sends nothing of it while somebody else is signed in', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).lose());
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    signedIn = { id: 8 };
    await back();
    expect(server.calls.filter((c) => c.method === 'PUT')).toHaveLength(0);
    expect(keptNames()).toHaveLength(1);
    signedIn = { id: 7 };
    await back();
    expect((await answer({ rev: 2 })).points).toBe(6);
  });

  it('says at once that nothing can be released, if the server goes while it is waited for', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    const settled = hook.result.current.settled();
    const refused = expect(settled).rejects.toThrow('What you gave is not sent yet.');
    await act(async () => (await server.next('PUT')).lose());
    await refused;
  });

  it('sends after a restart what an earlier page could not', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).answer({ code: 'sign-in-first', detail: 'Please sign in.' }, 401));
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    hook.unmount();
    expect(keptNames()).toHaveLength(1);
    marking();
    const sent = await answer({ rev: 2 });
    expect(sent.points).toBe(6);
    expect(sent.seen.rev).toBe(1);
    await waitFor(() => expect(keptNames()).toHaveLength(0));
  });

  it('leaves a paper to come that is asked for while kept steps are sent', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).lose());
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    hook.unmount();
    const { client, shown } = marking({});
    const asked = client.fetchQuery(paperOptions(PROMPT, 1));
    await answer({ rev: 2 });
    await act(async () => (await server.next('GET', /marking/)).answer(paper({ rev: 2 })));
    await asked;
    expect(shown()!.given.seen.rev).toBe(2);
  });

  it('takes for given what came through though its answer was lost', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).lose());
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    await back();
    await act(async () => (await server.next('PUT')).answer({ code: 'marked-meanwhile', detail: 'Changed.' }, 409));
    await act(async () =>
      (await server.next('GET', /marking/)).answer(paper({ rev: 2, marks: [{ criterion: 'c0', points: 6 }] })),
    );
    await waitFor(() => expect(hook.result.current.waiting).toBe(0));
    expect(hook.result.current.meanwhile).toBeNull();
    await put(level(1, 4));
    expect((await answer({ rev: 3 })).seen.rev).toBe(2);
  });

  it('asks what to do where somebody else gave something else while the server was away', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).lose());
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    await back();
    await act(async () => (await server.next('PUT')).answer({ code: 'marked-meanwhile', detail: 'Changed.' }, 409));
    await act(async () =>
      (await server.next('GET', /marking/)).answer(paper({ rev: 2, marks: [{ criterion: 'c0', points: 2 }] })),
    );
    await waitFor(() => expect(hook.result.current.meanwhile?.wanted.says).toBe('Criterion 0: 6'));
    expect(keptNames()).toHaveLength(0);
  });

  it('releases nothing before what was given is sent', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    await act(async () => (await server.next('PUT')).lose());
    await waitFor(() => expect(hook.result.current.waiting).toBe(1));
    await expect(hook.result.current.settled()).rejects.toThrow('What you gave is not sent yet.');
  });

  it('gives the strip with the newest state of each paper, once all is answered', async () => {
    const { put, hook } = marking();
    await put(level(0, 6));
    let settled: Strip | undefined;
    void hook.result.current.settled().then((s) => {
      settled = s;
    });
    await server.next('PUT');
    expect(settled).toBeUndefined();
    await answer({ rev: 2 });
    await waitFor(() => expect(settled!.students[0]!.seen).toEqual({ posts: [{ post: 40, version: 1 }], rev: 2 }));
  });

  it('sends nothing for somebody who handed nothing in', async () => {
    const { put } = marking({ 1: { ...paper(), posts: [], evidence: undefined } as unknown as Paper });
    await put(level(0, 6));
    expect(server.calls.filter((c) => c.method === 'PUT')).toHaveLength(0);
  });
});
