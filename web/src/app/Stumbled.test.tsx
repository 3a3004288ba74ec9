import { MantineProvider } from '@mantine/core';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Stumbled } from './Stumbled';

let broken = true;

function Page() {
  if (broken) throw new Error('no such thing');
  return <p>The page</p>;
}

beforeEach(() => {
  broken = true;
  vi.spyOn(console, 'error').mockImplementation(() => {});
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const house = (of: 'page' | 'frame', at: string) => (
  <MantineProvider>
    <nav>The band</nav>
    <Stumbled of={of} at={at}>
      <Page />
    </Stumbled>
  </MantineProvider>
);
const drawn = (of: 'page' | 'frame') => render(house(of, '/one'));

test('a page that cannot be drawn leaves the frame around it', () => {
  drawn('page');
  expect(screen.getByText('The band')).toBeTruthy();
  expect(screen.getByRole('heading', { name: 'Something went wrong on this page' })).toBeTruthy();
});

test('and is drawn again when somebody asks for it', async () => {
  drawn('page');
  broken = false;
  await userEvent.click(screen.getByRole('button', { name: 'Open it again' }));
  expect(screen.getByText('The page')).toBeTruthy();
});

test('another page is drawn without being asked for', () => {
  const { rerender } = drawn('page');
  broken = false;
  rerender(house('page', '/one'));
  expect(screen.queryByText('The page')).toBeNull();
  rerender(house('page', '/two'));
  expect(screen.getByText('The page')).toBeTruthy();
});

test('where all of it falls one goes back to the beginning', () => {
  drawn('frame');
  expect(screen.getByRole('button', { name: 'Back to the beginning' })).toBeTruthy();
});
