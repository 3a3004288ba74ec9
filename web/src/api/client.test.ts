import { afterEach, describe, expect, it, vi } from 'vitest';
import { fakeServer } from '../testing/server';
import { type ApiProblem, deleteJson, getJson, postJson, sendEyes, whenSignedOut, withParams } from './client';

describe('asking the server', () => {
  const server = fakeServer();
  afterEach(() => {
    sendEyes(null);
    whenSignedOut(() => {});
    document.cookie = 'XSRF-TOKEN=; max-age=0';
  });

  const failing = async (asked: Promise<unknown>) =>
    asked.then(
      () => {
        throw new Error('it was answered');
      },
      (e: unknown) => e as ApiProblem,
    );

  it('fetches a token first where there is none yet', async () => {
    document.cookie = 'XSRF-TOKEN=; max-age=0';
    void postJson('/api/session', { username: 'wren' });
    const first = await server.next('GET', /me/);
    document.cookie = 'XSRF-TOKEN=fresh';
    first.answer({ detail: 'Please sign in.' }, 401);
    expect((await server.next('POST')).headers['X-XSRF-TOKEN']).toBe('fresh');
  });

  it('sends the token with what changes something, and only then', async () => {
    document.cookie = 'XSRF-TOKEN=one-of-many';
    void getJson('/api/me');
    void postJson('/api/session', { username: 'wren' });
    expect((await server.next('GET')).headers['X-XSRF-TOKEN']).toBeUndefined();
    const post = await server.next('POST');
    expect(post.headers).toMatchObject({ 'X-XSRF-TOKEN': 'one-of-many', 'Content-Type': 'application/json' });
    expect(post.body).toEqual({ username: 'wren' });
  });

  it('reads a refusal: its code, its sentence, the field, and what it tells besides', async () => {
    const asked = failing(postJson('/api/x', {}));
    (await server.next('POST')).answer(
      { code: 'too-long', detail: 'A title has at most 200 letters.', field: 'title', most: 200 },
      422,
    );
    expect(await asked).toMatchObject({
      status: 422,
      code: 'too-long',
      message: 'A title has at most 200 letters.',
      field: 'title',
      facts: { most: 200 },
    });
  });

  it('has a sentence even when the answer is none of ours', async () => {
    const asked = failing(getJson('/api/x'));
    (await server.next('GET')).answer(undefined, 502);
    expect(await asked).toMatchObject({
      status: 502,
      code: 'unexpected',
      message: 'The server did not answer as expected. Please try again.',
    });
  });

  it('tells a lost network from a question that is not needed any more', async () => {
    const lost = failing(getJson('/api/x'));
    (await server.next('GET')).lose();
    expect(await lost).toMatchObject({ status: 0, code: 'offline' });
    const stop = new AbortController();
    const stopped = failing(getJson('/api/y', stop.signal));
    await server.next('GET');
    stop.abort();
    expect(await stopped).toMatchObject({ name: 'AbortError' });
  });

  it('looks through other eyes, but asks who it is itself with its own', async () => {
    sendEyes('student-12');
    void getJson('/api/classes/1/porch');
    void getJson('/api/me');
    expect((await server.next('GET', /porch/)).headers['X-Porch-Eyes']).toBe('student-12');
    expect((await server.next('GET', /me/)).headers['X-Porch-Eyes']).toBeUndefined();
  });

  it('says once that nobody is signed in any more, though not because of borrowed eyes', async () => {
    const out = vi.fn();
    whenSignedOut(out);
    const asked = failing(getJson('/api/x'));
    (await server.next('GET')).answer({ code: 'sign-in-first', detail: 'Please sign in.' }, 401);
    await asked;
    expect(out).toHaveBeenCalledTimes(1);
    sendEyes('visitor');
    const borrowed = failing(getJson('/api/x'));
    (await server.next('GET')).answer({ code: 'sign-in-first', detail: 'Please sign in.' }, 401);
    await borrowed;
    expect(out).toHaveBeenCalledTimes(1);
  });

  it('sends a file as it is, and reads an answer of nothing', async () => {
    const form = new FormData();
    form.append('file', new Blob(['a']));
    void postJson('/api/posts/1/pictures', form);
    const call = await server.next('POST');
    expect(call.body).toBe(form);
    expect(call.headers['Content-Type']).toBeUndefined();
    const gone = deleteJson('/api/posts/1');
    (await server.next('DELETE')).answer(undefined);
    expect(await gone).toBeUndefined();
  });

  it('leaves empty parameters out of an address and writes the others safely', () => {
    expect(
      withParams('/api/search', { words: 'slugs & snails', tag: '', cursor: undefined, page: 0, all: false }),
    ).toBe('/api/search?words=slugs+%26+snails&page=0');
    expect(withParams('/api/search', { words: null })).toBe('/api/search');
  });
});
