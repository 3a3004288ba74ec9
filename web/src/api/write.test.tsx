import { QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, render, screen, waitFor } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { describe, expect, it } from 'vitest';
import { newClient } from '../app/queryClient';
import { fakeServer } from '../testing/server';
import { Told } from '../ui/Told';
import { Wrong } from '../ui/Wrong';
import { getJson, putJson } from './client';
import { useWrite } from './write';

/** A count that can be set, as a part of a page would do it. */
function Part({ here }: { here: boolean }) {
  const { data } = useQuery({ queryKey: ['count'], queryFn: () => getJson<number>('/api/count') });
  const set = useWrite((count: number) => putJson('/api/count', { count }), {
    stale: [['count']],
    scope: 'count',
    here,
  });
  return (
    <>
      <output>{data}</output>
      <button type="button" onClick={() => set.run(1)}>
        One
      </button>
      <button type="button" onClick={() => set.run(2)}>
        Two
      </button>
      <Wrong says={set.problem} />
    </>
  );
}

describe('writing', () => {
  const server = fakeServer();
  const open = async (here = false) => {
    render(
      <QueryClientProvider client={newClient()}>
        <MemoryRouter>
          <Part here={here} />
          <Told />
        </MemoryRouter>
      </QueryClientProvider>,
    );
    await answer('GET', 0);
  };
  const answer = async (method: string, body: unknown, status?: number) => {
    const call = await server.next(method);
    await act(async () => call.answer(body, status));
    return call.body;
  };
  const press = (name: string) => act(async () => screen.getByRole('button', { name }).click());
  const refusal = { code: 'too-late', detail: 'Somebody was faster.' };

  it('fetches anew what it made stale', async () => {
    await open();
    await press('One');
    expect(await answer('PUT', undefined)).toEqual({ count: 1 });
    await answer('GET', 1);
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('1'));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('never fails without a word: the frame says it until it is put away', async () => {
    await open();
    await press('One');
    await answer('PUT', refusal, 409);
    const away = await screen.findByRole('button', { name: 'Put away' });
    expect(away.parentElement?.textContent).toBe('Somebody was faster. Put away');
    expect(away.parentElement?.getAttribute('role')).toBe('alert');
    await press('Put away');
    expect(screen.queryByRole('button', { name: 'Put away' })).toBeNull();
  });

  it('is told once where the place says it itself', async () => {
    await open(true);
    await press('One');
    await answer('PUT', refusal, 409);
    expect((await screen.findByRole('alert')).textContent).toBe('Somebody was faster.');
    await press('Two');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    await answer('PUT', undefined);
  });

  it('says so when the server cannot be reached', async () => {
    await open(true);
    await press('One');
    await act(async () => (await server.next('PUT')).lose());
    expect((await screen.findByRole('alert')).textContent).toBe('The server cannot be reached just now.');
  });

  it('keeps writes of one scope in their order', async () => {
    await open();
    await press('One');
    await press('Two');
    expect(await answer('PUT', undefined)).toEqual({ count: 1 });
    await answer('GET', 1);
    expect(await answer('PUT', undefined)).toEqual({ count: 2 });
    await answer('GET', 2);
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('2'));
  });
});
