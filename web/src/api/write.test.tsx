import { useForm } from '@mantine/form';
import { QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
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

/** A form with two fields, of which the second says what names none. */
function Filled({ field }: { field?: 'owner' }) {
  const form = useForm({ initialValues: { name: 'Jar of seeds', owner: '' } });
  const { data } = useQuery({ queryKey: ['jar'], queryFn: () => getJson<{ name: string }>('/api/jar') });
  const save = useWrite((jar: typeof form.values) => putJson<{ name: string }>('/api/jar', jar), {
    form,
    field,
    fills: ['jar'],
  });
  return (
    <form onSubmit={form.onSubmit((jar) => save.run(jar))}>
      <output>{data?.name}</output>
      <input aria-label="Name" {...form.getInputProps('name')} />
      <p data-testid="name">{form.errors.name}</p>
      <p data-testid="owner">{form.errors.owner}</p>
      <Wrong says={save.problem} />
      <button type="submit">Keep</button>
    </form>
  );
}

describe('writing', () => {
  const server = fakeServer();
  const show = (part: ReactNode) =>
    render(
      <QueryClientProvider client={newClient()}>
        <MemoryRouter>
          {part}
          <Told />
        </MemoryRouter>
      </QueryClientProvider>,
    );
  const open = async (here = false) => {
    show(<Part here={here} />);
    await answer('GET', 0);
  };
  const openForm = async (field?: 'owner') => {
    show(<Filled field={field} />);
    await answer('GET', { name: 'Jar' });
    await press('Keep');
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

  it('marks the field that a refusal names, leads there, and says it nowhere else', async () => {
    await openForm();
    await answer('PUT', { code: 'too-long', detail: 'A shorter name, please.', field: 'name' }, 422);
    await waitFor(() => expect(screen.getByTestId('name').textContent).toBe('A shorter name, please.'));
    expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Name' }));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says beside the form what names no field of it, or at the field that is there for that', async () => {
    await openForm();
    await answer('PUT', { ...refusal, field: 'shelf' }, 409);
    expect((await screen.findByRole('alert')).textContent).toBe('Somebody was faster.');
    cleanup();
    await openForm('owner');
    await answer('PUT', refusal, 409);
    await waitFor(() => expect(screen.getByTestId('owner').textContent).toBe('Somebody was faster.'));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('shows at once what it was answered, without asking again', async () => {
    await openForm();
    await answer('PUT', { name: 'Jar of beans' });
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Jar of beans'));
    expect(server.calls).toEqual([]);
  });
});
