import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { surroundings } from '../testing/page';
import { fakeServer } from '../testing/server';
import { WordsToMe, WordWaits } from './WordsToMe';

describe('a private word to a student', () => {
  const server = fakeServer();
  const said = (id: number, own: boolean) => ({
    id,
    author: own ? 'Natsuo' : 'Ms Quill',
    html: '<p>Is all well?</p>',
    at: '2026-11-28T10:00:00Z',
    own,
  });
  const open = (list: unknown[], page: React.ReactNode) => {
    server.always.set('GET /api/classes/1/words', () => ({ list, mayWrite: true }));
    server.always.set('GET /api/me', () => null);
    const { wrapper: Wrapper } = surroundings();
    return render(<Wrapper>{page}</Wrapper>);
  };

  it('is told until it was looked at, and told again when a new one comes', async () => {
    localStorage.clear();
    open([said(7, false)], <WordWaits classId={1} />);
    expect(await screen.findByText(/Ms Quill wrote to you/)).toBeDefined();
    cleanup();
    open([said(7, false)], <WordsToMe classId={1} />);
    await screen.findByText('Is all well?');
    await waitFor(() => expect(localStorage.getItem('word-seen-7')).toBe('yes'));
    cleanup();
    open([said(7, false), said(9, false)], <WordWaits classId={1} />);
    expect(await screen.findByText(/Ms Quill wrote to you/)).toBeDefined();
  });

  it('says nothing after an own answer', async () => {
    localStorage.clear();
    open(
      [said(7, false), said(8, true)],
      <>
        <WordWaits classId={1} />
        <WordsToMe classId={1} />
      </>,
    );
    expect(await screen.findAllByText('Is all well?')).toHaveLength(2);
    expect(screen.queryByText(/wrote to you/)).toBeNull();
  });
});
