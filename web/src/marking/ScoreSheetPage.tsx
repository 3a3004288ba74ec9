import { useQuery } from '@tanstack/react-query';
import { memo, useCallback, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { scoreSheetOptions } from '../api/queries';
import type { Cell, Sheet, SheetPrompt, StudentLine } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { byGroup, CellKey, CellTable, GroupAndOrder, groupsOf, LateTick } from '../ui/CellTable';
import shared from '../ui/CellTable.module.css';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
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
  group: byGroup,
  low: (a, b) => (a.total ?? 1e9) - (b.total ?? 1e9),
  high: (a, b) => (b.total ?? -1) - (a.total ?? -1),
};

const BY: [Order, string][] = [
  ['name', 'name'],
  ['group', 'group'],
  ['low', 'total, lowest first'],
  ['high', 'total, highest first'],
];

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
  const groups = useMemo(() => groupsOf(sheet.students), [sheet]);
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
      <CellKey
        boards={
          <>
            {KEY.filter((k) => shown.has(k as Cell['state'])).map((k) => (
              <StateBoard key={k} state={k} withWord />
            ))}
            <LateTick />
          </>
        }
      >
        <GroupAndOrder groups={groups} group={group} order={order} orders={BY} onAsk={ask} />
      </CellKey>
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

function Table({ sheet, cols, students, classId, onPaper, onWhy }: TableProps) {
  const { bundles } = sheet;
  const acts = useRef({ onPaper, onWhy });
  acts.current = { onPaper, onWhy };
  const open = useCallback((prompt: number, student: number) => acts.current.onPaper(prompt, student), []);
  const tellWhy = useCallback((student: StudentLine, bundle: number) => acts.current.onWhy(student, bundle), []);
  const columns = `216px repeat(${cols.length}, 92px)${bundles.length > 0 ? ` repeat(${bundles.length + 1}, 112px)` : ''}`;
  return (
    <CellTable
      label="Students by prompts"
      columns={columns}
      lines={students}
      head={<Head sheet={sheet} cols={cols} classId={classId} />}
      row={(s, isFirst) => (
        <Row
          key={s.studentId}
          student={s}
          isFirst={isFirst}
          bundles={bundles}
          cols={cols}
          onPaper={open}
          onWhy={tellWhy}
        />
      )}
    />
  );
}

function Head({ sheet, cols, classId }: Pick<TableProps, 'sheet' | 'cols' | 'classId'>) {
  const { bundles } = sheet;
  return (
    <>
      {bundles.length > 0 && (
        <tr>
          <td />
          {runs(cols, sheet).map((run) => (
            <th
              key={run.name}
              colSpan={run.many}
              scope="colgroup"
              className={css.bundle}
              style={{ gridColumn: `span ${run.many}` }}
            >
              {run.name}
            </th>
          ))}
          <td colSpan={bundles.length + 1} />
        </tr>
      )}
      <tr>
        <th scope="col" className={shared.who}>
          Student
        </th>
        {cols.map(({ prompt }) => (
          <th key={prompt.id} scope="col" className={css.prompt} title={`${prompt.title}, due ${say(prompt.due)}`}>
            <Link to={`/classes/${classId}/mark/${prompt.id}`}>{prompt.title}</Link>
            <span>of {prompt.points}</span>
          </th>
        ))}
        {bundles.map((b) => (
          <th key={b.id} scope="col" className={shared.sum}>
            {b.name}
            <span>
              {b.best > 0 ? `best ${b.best}, ` : ''}weight {b.weight}
            </span>
          </th>
        ))}
        {bundles.length > 0 && (
          <th scope="col" className={`${shared.sum} ${css.total}`}>
            Total
          </th>
        )}
      </tr>
    </>
  );
}

interface RowProps extends Pick<TableProps, 'cols' | 'onPaper' | 'onWhy'> {
  student: StudentLine;
  bundles: Sheet['bundles'];
  isFirst: boolean;
}

const Row = memo(function Row({ student: s, bundles, cols, isFirst, onPaper, onWhy }: RowProps) {
  return (
    <tr>
      <th scope="row" className={shared.who}>
        {s.name}
        {s.group && <span>{s.group}</span>}
      </th>
      {cols.map(({ prompt, at }, i) => (
        <td key={prompt.id}>
          <Paper
            cell={s.cells[at]}
            prompt={prompt}
            student={s}
            tab={isFirst && i === 0 ? 0 : -1}
            bundled={bundles.length > 0}
            onPaper={onPaper}
          />
        </td>
      ))}
      {s.percents.map((p, i) => (
        <td key={bundles[i].id} className={shared.sum}>
          {p.value === undefined ? (
            percent(p.value)
          ) : (
            <button
              type="button"
              className={css.why}
              aria-label={`${percent(p.value)}, why: ${s.name}, ${bundles[i].name}`}
              onClick={() => onWhy(s, i)}
            >
              {percent(p.value)}
            </button>
          )}
        </td>
      ))}
      {bundles.length > 0 && <td className={`${shared.sum} ${css.total}`}>{percent(s.total)}</td>}
    </tr>
  );
});

interface PaperProps {
  cell: Cell;
  prompt: SheetPrompt;
  student: StudentLine;
  tab: number;
  bundled: boolean;
  onPaper: (prompt: number, student: number) => void;
}

function Paper({ cell, prompt, student, tab, bundled, onPaper }: PaperProps) {
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
      tabIndex={tab}
      className={`${shared.cell} ${css.paper} ${bundled && !cell.counts ? css.aside : ''} ${cell.late ? shared.late : ''}`}
      title={`${student.name}, ${prompt.title}: ${says}`}
      aria-label={`${student.name}, ${prompt.title}: ${says}`}
    >
      <StateBoard state={cell.state} ownDate={cell.ownDate} silent />
      <span className={css.points}>
        {cell.points ?? ''}
        {cell.provisional && cell.points !== undefined ? '…' : ''}
      </span>
    </button>
  );
}

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
