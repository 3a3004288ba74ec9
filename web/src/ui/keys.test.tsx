import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { KeysProvider, useKeys } from './keys';

function Page({ run }: { run: (what: string) => void }) {
  useKeys([
    { key: 'a', says: 'Approve', run: () => run('a') },
    { key: 'Enter', says: 'Next', run: () => run('Enter') },
  ]);
  return (
    <>
      <button type="button" onClick={() => run('pressed')}>
        A button
      </button>
      <input aria-label="A field" />
    </>
  );
}

const open = () => {
  const run = vi.fn();
  const page = (shown: boolean) => (
    <MantineProvider env="test">
      <KeysProvider>{shown && <Page run={run} />}</KeysProvider>
    </MantineProvider>
  );
  const { rerender } = render(page(true));
  return { run, leave: () => rerender(page(false)) };
};

describe('the keys of a page', () => {
  it('hears them, in either case, and takes them from the browser', () => {
    const { run } = open();
    expect(fireEvent.keyDown(document.body, { key: 'A' })).toBe(false);
    expect(fireEvent.keyDown(document.body, { key: 'z' })).toBe(true);
    expect(run.mock.calls).toEqual([['a']]);
  });

  it('leaves letters to whoever is typing, and combinations to the browser', () => {
    const { run } = open();
    fireEvent.keyDown(screen.getByLabelText('A field'), { key: 'a' });
    fireEvent.keyDown(document.body, { key: 'a', ctrlKey: true });
    fireEvent.keyDown(document.body, { key: 'a', metaKey: true });
    expect(run).not.toHaveBeenCalled();
  });

  it('leaves Enter to a button in focus', () => {
    const { run } = open();
    fireEvent.keyDown(screen.getByRole('button'), { key: 'Enter' });
    expect(run).not.toHaveBeenCalled();
    fireEvent.keyDown(document.body, { key: 'Enter' });
    expect(run).toHaveBeenCalledWith('Enter');
  });

  it('lists them at "?", and does nothing behind the list', () => {
    const { run } = open();
    fireEvent.keyDown(document.body, { key: '?' });
    expect(screen.getByText('Approve')).toBeTruthy();
    fireEvent.keyDown(document.body, { key: 'a' });
    expect(run).not.toHaveBeenCalled();
  });

  it('forgets them with the page', () => {
    const { run, leave } = open();
    leave();
    fireEvent.keyDown(document.body, { key: 'a' });
    expect(run).not.toHaveBeenCalled();
  });
});
