/// <reference types="vite/client" />
import { describe, expect, it } from 'vitest';

const FILES = import.meta.glob<string>('./**/*.{ts,tsx}', { query: '?raw', import: 'default', eager: true });
/** What every feature may use; the rest are features, but for the frame. */
const SHARED = ['api', 'ui', 'texts', 'session', 'testing'];

const folderOf = (path: string) => path.split('/')[1]!;
const resolved = (from: string, to: string) => new URL(to, `file:///${from.slice(2)}`).pathname;

/** Every import between two folders of ours. */
const imports = Object.entries(FILES)
  .filter(([path]) => !path.includes('.test.'))
  .flatMap(([from, text]) =>
    [...text.matchAll(/(?:from|import\()\s*'(\.[^']*)'/g)].map(([, to]) => ({
      from,
      to: `.${resolved(from, to!)}`,
    })),
  )
  .filter(({ from, to }) => folderOf(from) !== folderOf(to));

const said = (found: typeof imports) => found.map(({ from, to }) => `${from} takes ${to}`);

describe('the house', () => {
  it('finds what it looks for', () => {
    expect(imports.length).toBeGreaterThan(100);
  });

  it('is known as a whole by its frame alone', () => {
    expect(said(imports.filter(({ from, to }) => folderOf(to) === 'app' && from !== './main.tsx'))).toEqual([]);
  });

  it('shares what knows no feature', () => {
    const known = ['api', 'ui', 'texts', 'session'];
    expect(
      said(imports.filter(({ from, to }) => known.includes(folderOf(from)) && !SHARED.includes(folderOf(to)))),
    ).toEqual([]);
  });

  it('keeps the look of a feature inside it', () => {
    expect(said(imports.filter(({ to }) => to.endsWith('.css') && !SHARED.includes(folderOf(to))))).toEqual([]);
  });
});

describe('the night of the front pages', () => {
  const styles = import.meta.glob<string>('./**/*.css', { query: '?raw', import: 'default', eager: true });
  /** The colours that stand behind a selector, one to a line. */
  const colours = (text: string, selector: RegExp) =>
    [...text.matchAll(selector)].map((m) => (m[1] ?? '').trim().split(/\s*\n\s*/));

  it('has the very colours of the application', () => {
    const night = styles['./frontpage/night.css'] ?? '';
    expect(colours(night, /:root \{\n([^}]*)\}/g)).toEqual(
      colours(styles['./app/look.css'] ?? '', /\[data-mantine-color-scheme='dark'\] \{\n([^}]*)\}/g),
    );
    expect(colours(night, /\[data-look[^\]]*\] \{\n([^}]*)\}/g)).toEqual(
      colours(
        styles['./blogs/Look.css'] ?? '',
        /\[data-mantine-color-scheme='dark'\] \[data-look[^\]]*\] \{\n([^}]*)\}/g,
      ),
    );
    expect(night).toContain('--look-paper');
  });
});
