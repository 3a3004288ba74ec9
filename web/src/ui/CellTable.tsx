import type { CSSProperties, ReactNode } from 'react';
import css from './CellTable.module.css';
import { useGrowing } from './useGrowing';
import { walkCells } from './walkCells';

interface CellTableProps<T> {
  label: string;
  /** How wide the columns are, as a grid says it. */
  columns: string;
  head: ReactNode;
  lines: T[];
  /** A row: a head and cells, drawn by something that remembers what it drew. */
  row: (line: T, isFirst: boolean) => ReactNode;
}

/**
 * A large table of cells that open something: arrows walk it, its head and names stay in sight. Its rows are boxes of
 * one height, each laid out by itself, and only where it is in sight; so it can grow while somebody rolls through it.
 */
export function CellTable<T>({ label, columns, head, lines, row }: CellTableProps<T>) {
  const drawn = useGrowing(lines.length);
  return (
    <section className={css.frame} aria-label={label} tabIndex={0}>
      <table className={css.table} style={{ '--columns': columns } as CSSProperties} onKeyDown={walkCells}>
        <thead>{head}</thead>
        <tbody>{lines.slice(0, drawn).map((line, i) => row(line, i === 0))}</tbody>
      </table>
    </section>
  );
}

/** The key to a table's boards, with what narrows and sorts it beside it. */
export function CellKey({ boards, children }: { boards: ReactNode; children: ReactNode }) {
  return (
    <div className={css.above}>
      <span className={css.key}>{boards}</span>
      <span className="push less row wrap">{children}</span>
    </div>
  );
}

/** The sign for late in such a key. */
export function LateTick() {
  return (
    <span>
      <span className={css.tick} /> late
    </span>
  );
}

interface GroupAndOrderProps {
  /** Of what, apart from the groups. */
  also?: [string, string][];
  groups: string[];
  group: string;
  order: string;
  orders: [string, string][];
  onAsk: (field: 'group' | 'sort', value: string) => void;
}

/** Which rows of such a table one sees, and in which order. */
export function GroupAndOrder({ also = [], groups, group, order, orders, onAsk }: GroupAndOrderProps) {
  return (
    <>
      {groups.length + also.length > 0 && (
        <label>
          Of{' '}
          <select aria-label="Group" className="pick" value={group} onChange={(e) => onAsk('group', e.target.value)}>
            <option value="">everybody</option>
            {also.map(([value, word]) => (
              <option key={value} value={value}>
                {word}
              </option>
            ))}
            {groups.map((g) => (
              <option key={g}>{g}</option>
            ))}
          </select>
        </label>
      )}
      <label>
        by{' '}
        <select aria-label="Order" className="pick" value={order} onChange={(e) => onAsk('sort', e.target.value)}>
          {orders.map(([value, word]) => (
            <option key={value} value={value}>
              {word}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

/** The groups of some students, as people count them: group 2 before group 10. */
export const groupsOf = (lines: { group?: string }[]) =>
  [...new Set(lines.map((line) => line.group ?? ''))].filter(Boolean).sort(byNumber);

export const byGroup = (a: { group?: string }, b: { group?: string }) => byNumber(a.group ?? '', b.group ?? '');

const byNumber = (a: string, b: string) => a.localeCompare(b, undefined, { numeric: true });
