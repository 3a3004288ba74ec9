import { t } from '../texts/en';
import css from './StateBoard.module.css';

interface StateBoardProps {
  state: string;
  /** Whether the word stands beside it. Without, the board carries the word for those who do not see it. @default false */
  withWord?: boolean;
  big?: boolean;
  /** Whether what it stands in says the word. @default false */
  silent?: boolean;
  /** Whether it is due at another time than for the others: a small lamp at the corner. @default false */
  ownDate?: boolean;
}

/** The board of where a text stands after a decision. */
export const boardAfter: Record<string, string> = {
  APPROVE: 'PUBLISHED',
  RETURN: 'RETURNED',
  HIDE: 'HIDDEN',
  BIN: 'BINNED',
};

/** Our mark of a state: a small square board. */
export function StateBoard({ state, withWord = false, big = false, silent = false, ownDate = false }: StateBoardProps) {
  const word = t.states[state] ?? state;
  const board = (
    <span
      className={`${css.board} ${big ? css.big : ''}`}
      data-state={state}
      data-own-date={ownDate || undefined}
      {...(silent ? { 'aria-hidden': true } : { title: word })}
      {...(withWord || silent ? {} : { role: 'img', 'aria-label': word })}
    />
  );
  return withWord ? (
    <span>
      {board}&ensp;{word}
    </span>
  ) : (
    board
  );
}
