import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, memo, useCallback, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { scoreSheetOptions } from '../api/queries';
import type { Cell, Sheet, SheetPrompt, StudentLine } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { useOnPaper } from '../ui/useOnPaper';
import { say } from '../ui/When';
import { Word } from '../ui/Word';
import { BundlesDialog } from './BundlesDialog';
import { PaperBeside } from './PaperBeside';
import css from './ScoreSheet.module.css';
import { WhyThese } from './WhyThese';

type Order = 'name' | 'group' | 'low' | 'high';

/** The scores of a class: students by prompts, and what they come to. */
export function ScoreSheetPage() {
  const { id, name, manages } = useClass();
  const sheet = useQuery(scoreSheetOptions(id));
  const [bundling, setBundling] = useState(false);
  return (
    <div className="page wide">
      <title>{`Scores · ${name}`}</title>
      <main className={css.main}>
        <div className="row wrap">
          <h1>Scores</h1>
          <span className="push less">
            <Link className="word" to={`/classes/${id}/scores/picture`}>
              The class’s picture
            </Link>{' '}
            ·{' '}
            {manages && (
              <>
                <Word onClick={() => setBundling(true)}>Bundles and weights</Word> ·{' '}
              </>
            )}
            <Link className="word" to={`/classes/${id}/scores/bring-in`}>
              Bring marks in
            </Link>{' '}
            ·{' '}
            <a className="word" href={`/api/classes/${id}/score-sheet.csv`}>
              Take along (CSV)
            </a>{' '}
            ·{' '}
            <a className="word" href={`/api/classes/${id}/score-sheet-by-criterion.csv`}>
              by criterion
            </a>
          </span>
        </div>
        {sheet.isError && <Trouble error={sheet.error} onRetry={() => sheet.refetch()} />}
        {sheet.isPending && <Loading lines={9} />}
        {sheet.data && <Scores sheet={sheet.data} classId={id} />}
      </main>
      {bundling && sheet.data && <BundlesDialog prompts={sheet.data.prompts} onClose={() => setBundling(false)} />}
    </div>
  );
}

const KEY = ['RELEASED', 'MARKED', 'BEING_MARKED', 'HANDED_IN', 'IN_PART', 'WAITING', 'RETURNED', 'MISSING', 'LET_OFF'];

const ORDERS: Record<Order, (a: StudentLine, b: StudentLine) => number> = {
  name: () => 0,
  group: (a, b) => (a.group ?? '').localeCompare(b.group ?? '', undefined, { numeric: true }),
  low: (a, b) => (a.total ?? 1e9) - (b.total ?? 1e9),
  high: (a, b) => (b.total ?? -1) - (a.total ?? -1),
};

/** The prompts of a bundle stand together, those of none last; in each the one due first comes first. */
const columns = (sheet: Sheet) =>
  sheet.prompts
    .map((prompt, at) => ({ prompt, at }))
    .sort((a, b) => (a.prompt.bundle ?? 99) - (b.prompt.bundle ?? 99) || a.at - b.at);

function Scores({ sheet, classId }: { sheet: Sheet; classId: number }) {
  const [params, setParams] = useSearchParams();
  const [beside, setBeside] = useState<{ prompt: number; student: number } | null>(null);
  const [why, setWhy] = useState<{ student: StudentLine; bundle: number } | null>(null);
  const order = (params.get('sort') as Order) ?? 'name';
  const group = params.get('group') ?? '';
  const ask = (field: string, value: string) =>
    setParams(
      (p) => {
        if (value) p.set(field, value);
        else p.delete(field);
        return p;
      },
      { replace: true },
    );
  const cols = useMemo(() => columns(sheet), [sheet]);
  const groups = useMemo(
    () =>
      [...new Set(sheet.students.map((s) => s.group ?? ''))]
        .filter(Boolean)
        .sort((a, b) => a.localeCompare(b, undefined, { numeric: true })),
    [sheet],
  );
  const students = useMemo(
    () => sheet.students.filter((s) => !group || s.group === group).sort(ORDERS[order] ?? ORDERS.name),
    [sheet, group, order],
  );
  const shown = useMemo(() => new Set(sheet.students.flatMap((s) => s.cells.map((c) => c.state))), [sheet]);
  if (sheet.prompts.length === 0)
    return (
      <p className="muted">
        No prompt is set yet.{' '}
        <Link className="word" to={`/classes/${classId}/prompts/new`}>
          Set a prompt
        </Link>
      </p>
    );
  return (
    <>
      <div className={css.above}>
        <span className={css.key}>
          {KEY.filter((k) => shown.has(k as Cell['state'])).map((k) => (
            <StateBoard key={k} state={k} withWord />
          ))}
          <span>
            <span className={css.tick} /> late
          </span>
        </span>
        <span className="push less row">
          {groups.length > 0 && (
            <label>
              Of{' '}
              <select aria-label="Group" className="pick" value={group} onChange={(e) => ask('group', e.target.value)}>
                <option value="">everybody</option>
                {groups.map((g) => (
                  <option key={g}>{g}</option>
                ))}
              </select>
            </label>
          )}
          <label>
            by{' '}
            <select aria-label="Order" className="pick" value={order} onChange={(e) => ask('sort', e.target.value)}>
              <option value="name">name</option>
              <option value="group">group</option>
              <option value="low">total, lowest first</option>
              <option value="high">total, highest first</option>
            </select>
          </label>
        </span>
      </div>
      <p className="tiny muted above-2 below-2">
        {sheet.bundles.length > 0
          ? 'A total is made of what students have seen; what is marked and not released, and whoever was let off, is left out. What does not count in it stands in grey.'
          : 'There is no total yet: put the prompts into bundles that count together.'}
      </p>
      <Table
        sheet={sheet}
        cols={cols}
        students={students}
        classId={classId}
        onPaper={(prompt, student) => setBeside({ prompt, student })}
        onWhy={(student, bundle) => setWhy({ student, bundle })}
      />
      {beside && <PaperBeside {...beside} classId={classId} onClose={() => setBeside(null)} />}
      {why && <WhyThese {...why} sheet={sheet} onClose={() => setWhy(null)} />}
    </>
  );
}

interface TableProps {
  sheet: Sheet;
  cols: { prompt: SheetPrompt; at: number }[];
  students: StudentLine[];
  classId: number;
  onPaper: (prompt: number, student: number) => void;
  onWhy: (student: StudentLine, bundle: number) => void;
}

const ROW = 33;
const COLUMN = 92;
const AT_ONCE = 2;

/** Only the rows and prompts that are in sight are drawn; on paper that is all of them. */
function Table({ sheet, cols, students, classId, onPaper, onWhy }: TableProps) {
  const table = useRef<HTMLTableElement>(null);
  const frame = useRef<HTMLElement>(null);
  const inSight = useVirtualizer({
    count: students.length,
    estimateSize: () => ROW,
    overscan: 3,
    getScrollElement: () => frame.current,
    getItemKey: (i) => students[i].studentId,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: cols.length,
    estimateSize: () => COLUMN,
    overscan: 0,
    getScrollElement: () => frame.current,
  });
  const onPaperSheet = useOnPaper();
  const rows = onPaperSheet
    ? students.map((s, i) => ({ key: s.studentId, index: i, start: i * ROW, end: (i + 1) * ROW }))
    : inSight.getVirtualItems();
  const wide = cols.length + sheet.bundles.length + 2;
  // Some at once, so that not each step to the side draws every row anew.
  const { startIndex = 0, endIndex = 0 } = across.range ?? {};
  const from = onPaperSheet ? 0 : Math.max(0, Math.floor((startIndex - 1) / AT_ONCE) * AT_ONCE);
  const to = onPaperSheet ? cols.length : Math.min(cols.length, Math.ceil((endIndex + 2) / AT_ONCE) * AT_ONCE);
  const acts = useRef({ onPaper, onWhy });
  acts.current = { onPaper, onWhy };
  const open = useCallback((prompt: number, student: number) => acts.current.onPaper(prompt, student), []);
  const tellWhy = useCallback((student: StudentLine, bundle: number) => acts.current.onWhy(student, bundle), []);
  /** The arrows walk from cell to cell; Enter opens the paper beside the sheet. */
  const walk = (e: KeyboardEvent) => {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[e.key];
    const at = (e.target as HTMLElement).dataset.at?.split(' ').map(Number);
    if (!by || !at) return;
    e.preventDefault();
    table.current?.querySelector<HTMLElement>(`[data-at="${at[0] + by[0]} ${at[1] + by[1]}"]`)?.focus();
  };
  return (
    <section ref={frame} className={onPaperSheet ? '' : css.frame} aria-label="Students by prompts" tabIndex={0}>
      <table
        ref={table}
        className={css.table}
        aria-rowcount={students.length + 1}
        aria-colcount={wide}
        onKeyDown={walk}
      >
        <colgroup>
          <col className={css.names} />
          <col span={cols.length} className={css.prompts} />
          {sheet.bundles.length > 0 && <col span={sheet.bundles.length + 1} className={css.sums} />}
        </colgroup>
        <thead>
          {sheet.bundles.length > 0 && (
            <tr>
              <td />
              {runs(cols, sheet).map((run) => (
                <th key={run.name} colSpan={run.many} scope="colgroup" className={css.bundle}>
                  {run.name}
                </th>
              ))}
              <td colSpan={sheet.bundles.length + 1} />
            </tr>
          )}
          <tr>
            <th scope="col" className={css.who}>
              Student
            </th>
            <Skip many={from} />
            {cols.slice(from, to).map(({ prompt }, i) => (
              <th
                key={prompt.id}
                scope="col"
                aria-colindex={from + i + 2}
                title={`${prompt.title}, due ${say(prompt.due)}`}
              >
                <Link to={`/classes/${classId}/mark/${prompt.id}`}>{prompt.title}</Link>
                <span>of {prompt.points}</span>
              </th>
            ))}
            <Skip many={cols.length - to} />
            {sheet.bundles.map((b) => (
              <th key={b.id} scope="col" className={css.sum}>
                {b.name}
                <span>
                  {b.best > 0 ? `best ${b.best}, ` : ''}weight {b.weight}
                </span>
              </th>
            ))}
            {sheet.bundles.length > 0 && (
              <th scope="col" className={`${css.sum} ${css.total}`}>
                Total
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.length > 0 && rows[0].start > 0 && <Gap height={rows[0].start} wide={wide} />}
          {rows.map((r) => (
            <Row
              key={r.key}
              student={students[r.index]}
              row={r.index}
              sheet={sheet}
              cols={cols}
              from={from}
              to={to}
              onPaper={open}
              onWhy={tellWhy}
            />
          ))}
          {rows.length > 0 && (
            <Gap height={Math.max(0, inSight.getTotalSize() - rows[rows.length - 1].end)} wide={wide} />
          )}
        </tbody>
      </table>
    </section>
  );
}

/** Holds the room of rows that are not in sight. */
function Gap({ height, wide }: { height: number; wide: number }) {
  return (
    // biome-ignore lint/a11y/noAriaHiddenOnFocusable: it holds room and nothing else
    <tr aria-hidden="true" style={{ height }}>
      <td className={css.gap} colSpan={wide} />
    </tr>
  );
}

/** Holds the room of prompts that are not in sight. */
function Skip({ many }: { many: number }) {
  return many > 0 ? <td aria-hidden="true" colSpan={many} /> : null;
}

interface RowProps extends Pick<TableProps, 'sheet' | 'cols' | 'onPaper' | 'onWhy'> {
  student: StudentLine;
  row: number;
  /** The first of the prompts that are drawn, and the one after the last. */
  from: number;
  to: number;
}

const Row = memo(function Row({ student: s, row, sheet, cols, from, to, onPaper, onWhy }: RowProps) {
  return (
    <tr aria-rowindex={row + 2}>
      <th scope="row" className={css.who}>
        {s.name}
        {s.group && <span>{s.group}</span>}
      </th>
      <Skip many={from} />
      {cols.slice(from, to).map(({ prompt, at }, i) => (
        <td key={prompt.id} aria-colindex={from + i + 2}>
          <Paper
            cell={s.cells[at]}
            prompt={prompt}
            student={s}
            at={`${row} ${from + i}`}
            tab={row === 0 && from + i === 0 ? 0 : -1}
            bundled={sheet.bundles.length > 0}
            onPaper={onPaper}
          />
        </td>
      ))}
      <Skip many={cols.length - to} />
      {s.percents.map((p, i) => (
        <td key={sheet.bundles[i].id} className={css.sum}>
          {p.value === undefined ? (
            percent(p.value)
          ) : (
            <button
              type="button"
              className={css.why}
              aria-label={`${percent(p.value)}, why: ${s.name}, ${sheet.bundles[i].name}`}
              onClick={() => onWhy(s, i)}
            >
              {percent(p.value)}
            </button>
          )}
        </td>
      ))}
      {sheet.bundles.length > 0 && <td className={`${css.sum} ${css.total}`}>{percent(s.total)}</td>}
    </tr>
  );
});

interface PaperProps {
  cell: Cell;
  prompt: SheetPrompt;
  student: StudentLine;
  at: string;
  tab: number;
  bundled: boolean;
  onPaper: (prompt: number, student: number) => void;
}

const Paper = memo(function Paper({ cell, prompt, student, at, tab, bundled, onPaper }: PaperProps) {
  const says = [
    t.states[cell.state],
    cell.points !== undefined && `${cell.points} of ${prompt.points}`,
    cell.provisional && cell.points !== undefined && 'provisional',
    cell.late && 'late',
    cell.ownDate && 'own date',
    cell.changed && 'handed in again since it was marked',
    bundled && (cell.counts ? 'counts' : 'does not count'),
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <button
      type="button"
      onClick={() => onPaper(prompt.id, student.studentId)}
      data-at={at}
      tabIndex={tab}
      className={`${css.cell} ${bundled && !cell.counts ? css.aside : ''} ${cell.late ? css.late : ''}`}
      title={`${student.name}, ${prompt.title}: ${says}`}
      aria-label={`${student.name}, ${prompt.title}: ${says}`}
    >
      <span aria-hidden="true">
        <StateBoard state={cell.state} ownDate={cell.ownDate} />
      </span>
      <span className={css.points}>
        {cell.points ?? ''}
        {cell.provisional && cell.points !== undefined ? '…' : ''}
      </span>
    </button>
  );
});

export const percent = (value?: number) => (value === undefined ? '–' : `${value.toFixed(1)} %`);

/** How many columns stand under the name of each bundle. */
function runs(cols: TableProps['cols'], sheet: Sheet) {
  const found: { name: string; many: number }[] = [];
  for (const { prompt } of cols) {
    const name = prompt.bundle === undefined ? 'In no bundle' : sheet.bundles[prompt.bundle].name;
    const last = found.at(-1);
    if (last?.name === name) last.many++;
    else found.push({ name, many: 1 });
  }
  return found;
}
