import type { KeyboardEvent } from 'react';

const WAYS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** The arrows walk through the cells of a table from button to button. */
export function walkCells(e: KeyboardEvent) {
  const by = WAYS[e.key];
  const cell = (e.target as HTMLElement).closest<HTMLTableCellElement>('tbody td');
  const row = cell?.parentElement as HTMLTableRowElement | undefined;
  if (!by || !cell || !row) return;
  const rows = (row.parentElement as HTMLTableSectionElement).rows;
  let [r, c] = [row.sectionRowIndex + by[0], cell.cellIndex + by[1]];
  // Over cells in which there is nothing to open.
  while (rows[r]?.cells[c]) {
    const button = rows[r].cells[c].querySelector<HTMLElement>('button');
    if (button) {
      e.preventDefault();
      button.focus();
      return;
    }
    [r, c] = [r + by[0], c + by[1]];
  }
}
