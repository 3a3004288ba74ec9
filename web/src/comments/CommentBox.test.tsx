import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { meOptions } from '../api/queries';
import type { CommentView, Me } from '../api/schema';
import { surroundings } from '../testing/page';
import { fakeServer } from '../testing/server';
import { CommentBox } from './CommentBox';

const comment = (over: Partial<CommentView> = {}) =>
  ({ id: 12, rev: 1, html: '<p>Which kind?</p>', state: 'PUBLISHED', own: true, ...over }) as CommentView;

describe('the box of a comment', () => {
  const server = fakeServer();
  async function open(change?: CommentView) {
    const { client, wrapper } = surroundings();
    client.setQueryData(meOptions.queryKey, { id: 5, name: 'Tama K.', classes: [] } as unknown as Me);
    const page = render(<CommentBox key="once" postId={3} label="Your comment" change={change} />, { wrapper });
    const box = () => screen.getByLabelText('Your comment') as HTMLTextAreaElement;
    return {
      box,
      type: (text: string) => fireEvent.change(box(), { target: { value: text } }),
      press: (name: string) => fireEvent.click(screen.getByRole('button', { name })),
      comes: (newer: CommentView) =>
        page.rerender(<CommentBox key="once" postId={3} label="Your comment" change={newer} />),
      leave: page.unmount,
    };
  }

  it('changes the comment on which it was begun, not one that came in since', async () => {
    const { type, comes, press } = await open(comment());
    type('Which kind of slug?');
    comes(comment({ rev: 2, html: '<p>Which kind, Wren?</p>' }));
    press('Keep the change');
    expect((await server.next('PUT')).body).toEqual({ rev: 1, text: 'Which kind of slug?' });
  });

  it('shows what stands there now beside what was typed, and writes it over only if asked', async () => {
    const { box, type, press } = await open(comment());
    type('Which slug?');
    press('Keep the change');
    await act(async () =>
      (await server.next('PUT')).answer(
        { code: 'changed-elsewhere', detail: 'It was changed.', rev: 7, html: '<p>Which kind of slug?</p>' },
        409,
      ),
    );
    expect((await screen.findByRole('alert')).textContent).toBe('It was changed.');
    expect(screen.getByText('Which kind of slug?')).toBeTruthy();
    expect(box().value).toBe('Which slug?');
    press('Keep mine instead');
    expect((await server.next('PUT')).body).toEqual({ rev: 7, text: 'Which slug?' });
  });

  it('goes on from the other one if that is chosen', async () => {
    const { box, type, press } = await open(comment());
    type('Which slug?');
    press('Keep the change');
    await act(async () =>
      (await server.next('PUT')).answer(
        { code: 'changed-elsewhere', detail: 'It was changed.', rev: 7, html: '<p>Theirs.</p>' },
        409,
      ),
    );
    press('Go on from this one');
    expect(box().value).toBe('Theirs.');
  });

  it('keeps typed words with the state on which they were typed, over leaving the page', async () => {
    const first = await open(comment());
    first.type('Half a sentence');
    first.leave();
    expect(localStorage.getItem('porch-5-comment-3-c12')).toBe('1 Half a sentence');
    const later = await open(comment({ rev: 4, html: '<p>Mended by Ms Quill.</p>' }));
    expect(later.box().value).toBe('Half a sentence');
    later.press('Keep the change');
    expect((await server.next('PUT')).body).toEqual({ rev: 1, text: 'Half a sentence' });
  });

  it('sends a new comment, and is empty then', async () => {
    const { box, type, press } = await open();
    type('It froze at our end, too.');
    press('Send');
    const call = await server.next('POST');
    expect(call.path).toBe('/api/posts/3/comments');
    await act(async () => call.answer(comment()));
    await waitFor(() => expect(box().value).toBe(''));
    expect(localStorage).toHaveLength(0);
  });

  it('keeps the words when they are refused', async () => {
    const { box, type, press } = await open();
    type('Too soon');
    press('Send');
    await act(async () =>
      (await server.next('POST')).answer({ code: 'closed', detail: 'Comments are closed here.' }, 403),
    );
    expect((await screen.findByRole('alert')).textContent).toBe('Comments are closed here.');
    expect(box().value).toBe('Too soon');
  });
});
