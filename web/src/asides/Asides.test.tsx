import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { surroundings } from '../testing/page';
import { fakeServer } from '../testing/server';
import { Asides } from './Asides';

describe('a word beside a text', () => {
  const server = fakeServer();
  const open = async () => {
    server.always.set('GET /api/posts/7/words', () => ({ list: [], mayWrite: true }));
    server.always.set('GET /api/me', () => null);
    const { wrapper } = surroundings();
    render(<Asides at="/api/posts/7/words" label="A private word" verb="Send" />, { wrapper });
    return (await screen.findByRole('textbox')) as HTMLTextAreaElement;
  };
  const type = (box: HTMLElement, value: string) => fireEvent.change(box, { target: { value } });

  it('leaves what is typed while it is on its way', async () => {
    const box = await open();
    type(box, 'Look at the jar');
    fireEvent.click(screen.getByRole('button', { name: 'Send' }));
    const call = await server.next('POST');
    expect(call.body).toEqual({ text: 'Look at the jar' });
    type(box, 'Look at the jar, the blue one');
    await act(async () => call.answer(undefined));
    await waitFor(() => expect(screen.getByRole('button', { name: 'Send' })).toBeDefined());
    expect(box.value).toBe('Look at the jar, the blue one');
  });

  it('is empty once it is sent, and keeps the words if it is refused', async () => {
    const box = await open();
    type(box, 'Look at the jar');
    fireEvent.click(screen.getByRole('button', { name: 'Send' }));
    await act(async () => (await server.next('POST')).answer({ detail: 'Not now.', code: 'later' }, 409));
    expect((await screen.findByRole('alert')).textContent).toBe('Not now.');
    expect(box.value).toBe('Look at the jar');
    fireEvent.click(screen.getByRole('button', { name: 'Send' }));
    await act(async () => (await server.next('POST')).answer(undefined));
    await waitFor(() => expect(box.value).toBe(''));
  });
});
