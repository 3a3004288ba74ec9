import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { walkCells } from './walkCells';

function Sheet() {
  return (
    <table onKeyDown={walkCells}>
      <tbody>
        <tr>
          <th>Wren</th>
          <td>
            <button type="button">1</button>
          </td>
          <td>break</td>
          <td>
            <button type="button">2</button>
          </td>
        </tr>
        <tr>
          <th>Pia</th>
          <td>
            <button type="button">3</button>
          </td>
          <td />
          <td />
        </tr>
      </tbody>
    </table>
  );
}

const at = (name: string) => screen.getByRole('button', { name });

test('arrows go from cell to cell, over those that open nothing, and stay at the edges', () => {
  render(<Sheet />);
  at('1').focus();
  fireEvent.keyDown(at('1'), { key: 'ArrowRight' });
  expect(document.activeElement).toBe(at('2'));
  fireEvent.keyDown(at('2'), { key: 'ArrowDown' });
  expect(document.activeElement).toBe(at('2'));
  fireEvent.keyDown(at('2'), { key: 'ArrowLeft' });
  expect(document.activeElement).toBe(at('1'));
  fireEvent.keyDown(at('1'), { key: 'ArrowDown' });
  expect(document.activeElement).toBe(at('3'));
  fireEvent.keyDown(at('3'), { key: 'ArrowLeft' });
  expect(document.activeElement).toBe(at('3'));
  fireEvent.keyDown(at('3'), { key: 'x' });
  expect(document.activeElement).toBe(at('3'));
});
