import { useQuery } from '@tanstack/react-query';
import { memo, useCallback, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { weeksOptions } from '../api/queries';
import type { WeeksCell, WeeksHead, WeeksLine, WeeksView } from '../api/schema';
import { PaperBeside } from '../marking/PaperBeside';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { byGroup, CellKey, CellTable, GroupAndOrder, groupsOf, LateTick } from '../ui/CellTable';
import shared from '../ui/CellTable.module.css';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { WeekBeside } from './WeekBeside';
import css from './Weeks.module.css';
import { WordToSeveral } from './WordToSeveral';

const WAYS: [WeeksView['by'], string][] = [
  ['WEEK', 'By week'],
  ['PROMPT', 'By prompt'],
  ['POST', 'By any post'],
];

const SAYS: Record<WeeksView['by'], string> = {
  WEEK: 'A board tells what was due in that week; of several papers the one that wants most.',
  PROMPT: 'A board for each prompt that students have seen, the one due first first.',
  POST: 'A board tells whether anything was written in that week, asked for or not.',
};

/** In the address: those who handed in nothing for two weeks. No group has such a name. */
const QUIET = ' quiet';

const KEY = [
  'RELEASED',
  'MARKED',
  'BEING_MARKED',
  'HANDED_IN',
  'PUBLISHED',
  'IN_PART',
  'WAITING',
  'RETURNED',
  'HIDDEN',
  'MISSING',
  'LET_OFF',
];

const ORDERS: Record<string, (a: WeeksLine, b: WeeksLine) => number> = {
  name: () => 0,
  group: byGroup,
  late: (a, b) => b.of - b.onTime - (a.of - a.onTime),
  comments: (a, b) => a.comments - b.comments,
};

const BY: [string, string][] = [
  ['', 'name'],
  ['group', 'group'],
  ['late', 'most not on time first'],
  ['comments', 'fewest comments first'],
];

/** How a class goes: its students by weeks, by prompts, or by whatever they wrote. */
export function WeeksPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const by = WAYS.find(([way]) => way === params.get('by'))?.[0] ?? 'WEEK';
  const term = params.get('term') ?? undefined;
  const { data, error, refetch } = useQuery(weeksOptions(id, by, term));
  const ask = (field: string, value: string) =>
    setParams(
      (p) => {
        if (value) p.set(field, value);
        else p.delete(field);
        return p;
      },
      { replace: true },
    );
  const way = (to: WeeksView['by']) => {
    const next = new URLSearchParams(params);
    next.set('by', to);
    return `?${next}`;
  };
  return (
    <div className="page wide">
      <title>{`The weeks · ${name}`}</title>
      <main className={css.main}>
        <div className="row wrap">
          <h1>The weeks</h1>
          <nav className={css.ways} aria-label="What the boards tell">
            {WAYS.map(([to, word]) => (
              <Link key={to} to={way(to)} replace aria-current={to === by ? 'page' : undefined}>
                {word}
              </Link>
            ))}
          </nav>
          <Link className="word push less" to={`/classes/${id}/weeks/reports`}>
            Reports
          </Link>
          <Link className="word" to={`/classes/${id}/weeks/who-answers-whom`}>
            Who answers whom
          </Link>
          <a className="word" href={`/api/classes/${id}/weeks.csv?by=${by}${term ? `&term=${term}` : ''}`}>
            Take along (CSV)
          </a>
        </div>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading lines={9} />}
        {data && (
          <Sheet
            view={data}
            classId={id}
            group={params.get('group') ?? ''}
            order={params.get('sort') ?? ''}
            onAsk={ask}
          />
        )}
      </main>
    </div>
  );
}

interface SheetProps {
  view: WeeksView;
  classId: number;
  group: string;
  order: string;
  onAsk: (field: string, value: string) => void;
}

function Sheet({ view, classId, group, order, onAsk }: SheetProps) {
  const [beside, setBeside] = useState<{ head: WeeksHead; student: number } | null>(null);
  const groups = useMemo(() => groupsOf(view.lines), [view]);
  const lines = useMemo(
    () =>
      view.lines
        .filter((l) => (group === QUIET ? l.quiet : !group || l.group === group))
        .sort(ORDERS[order] ?? ORDERS.name),
    [view, group, order],
  );
  const quiet = view.lines.filter((l) => l.quiet).length;
  const [writing, setWriting] = useState(false);
  const isLate = view.lines.some((l) => l.cells.some((c) => c.late));
  const there = useMemo(() => new Set(view.lines.flatMap((l) => l.cells.map((c) => c.state as string))), [view]);
  const open = useCallback((head: WeeksHead, student: number) => setBeside({ head, student }), []);
  return (
    <>
      <CellKey
        boards={
          <>
            {KEY.filter((k) => there.has(k)).map((k) => (
              <StateBoard key={k} state={k} withWord />
            ))}
            {isLate && <LateTick />}
          </>
        }
      >
        {view.terms.length > 1 && (
          <label>
            Term{' '}
            <select
              className="pick"
              aria-label="Term"
              value={view.term ?? -1}
              onChange={(e) => onAsk('term', e.target.value)}
            >
              {view.terms.map((term, i) => (
                <option key={term} value={i}>
                  {term}
                </option>
              ))}
              <option value={-1}>all of them</option>
            </select>
          </label>
        )}
        <GroupAndOrder
          also={quiet > 0 || group === QUIET ? [[QUIET, 'silent for two weeks']] : []}
          groups={groups}
          group={group}
          order={order}
          orders={BY}
          onAsk={onAsk}
        />
      </CellKey>
      <p className="tiny muted above-2 below-2">
        {SAYS[view.by]}
        {group === QUIET && lines.length > 0 && (
          <>
            {' '}
            <Word tiny onClick={() => setWriting(true)}>
              Write a private word to them
            </Word>
          </>
        )}
      </p>
      {writing && <WordToSeveral classId={classId} students={lines} onClose={() => setWriting(false)} />}
      {view.heads.length === 0 ? (
        <p className="muted">No prompt of this term has opened yet.</p>
      ) : (
        <Table view={view} lines={lines} classId={classId} onOpen={open} />
      )}
      {beside?.head.promptId !== undefined && beside && (
        <PaperBeside
          prompt={beside.head.promptId}
          student={beside.student}
          classId={classId}
          onClose={() => setBeside(null)}
        />
      )}
      {beside && beside.head.promptId === undefined && (
        <WeekBeside
          classId={classId}
          monday={beside.head.day}
          week={beside.head.name}
          student={beside.student}
          onClose={() => setBeside(null)}
        />
      )}
    </>
  );
}

interface TableProps {
  view: WeeksView;
  lines: WeeksLine[];
  classId: number;
  onOpen: (head: WeeksHead, student: number) => void;
}

function Table({ view, lines, classId, onOpen }: TableProps) {
  const { heads, by } = view;
  return (
    <CellTable
      label="Students by weeks"
      columns={`216px repeat(${heads.length}, ${by === 'PROMPT' ? 92 : 44}px) repeat(3, 80px)`}
      lines={lines}
      head={<Head view={view} classId={classId} />}
      row={(l, isFirst) => (
        <Row key={l.studentId} line={l} heads={heads} classId={classId} isFirst={isFirst} onOpen={onOpen} />
      )}
    />
  );
}

function Head({ view: { heads, by }, classId }: Pick<TableProps, 'view' | 'classId'>) {
  const isByPrompt = by === 'PROMPT';
  return (
    <tr>
      <th scope="col" className={shared.who}>
        Student
      </th>
      {heads.map((h) => (
        <th
          key={h.promptId ?? h.day}
          scope="col"
          className={`${css.head} ${h.isBreak ? css.break : ''} ${h.isNow ? css.now : ''}`}
          title={isByPrompt ? `${h.name}, due ${day(h.day)}` : `${headName(h)}, from ${day(h.day)}`}
        >
          {h.term && <span className={css.term}>{h.term}</span>}
          {isByPrompt ? (
            <Link to={`/classes/${classId}/mark/${h.promptId}`}>{h.name}</Link>
          ) : h.isBreak ? (
            'break'
          ) : (
            h.name
          )}
        </th>
      ))}
      <th scope="col" className={shared.sum}>
        {by === 'POST' ? 'wrote in' : 'on time'}
      </th>
      <th scope="col" className={shared.sum}>
        in a row
      </th>
      <th scope="col" className={shared.sum}>
        comments
      </th>
    </tr>
  );
}

const short = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const day = (date: string) => short.format(new Date(`${date}T12:00`));
const headName = (h: WeeksHead) => (h.promptId !== undefined ? h.name : h.isBreak ? 'break' : `week ${h.name}`);

interface RowProps {
  line: WeeksLine;
  heads: WeeksHead[];
  classId: number;
  isFirst: boolean;
  onOpen: TableProps['onOpen'];
}

const Row = memo(function Row({ line: l, heads, classId, isFirst, onOpen }: RowProps) {
  return (
    <tr>
      <th scope="row" className={shared.who}>
        <Link to={`/classes/${classId}/persons/${l.place}`}>{l.name}</Link>
        {l.group && <span>{l.group}</span>}
      </th>
      {l.cells.map((c, i) => {
        const head = heads[i];
        return (
          <td key={head.promptId ?? head.day} className={`${css.week} ${head.isBreak ? css.break : ''}`}>
            <Board
              cell={c}
              says={`${l.name}, ${headName(head)}`}
              tab={isFirst && i === 0 ? 0 : -1}
              onOpen={() => onOpen(head, l.studentId)}
            />
          </td>
        );
      })}
      <td className={shared.sum}>{l.of > 0 ? `${l.onTime} of ${l.of}` : ''}</td>
      <td className={shared.sum}>{l.streak || ''}</td>
      <td className={shared.sum}>{l.comments}</td>
    </tr>
  );
});

interface BoardProps {
  cell: WeeksCell;
  /** Whose, and of which week or prompt. */
  says: string;
  tab: number;
  onOpen: () => void;
}

function Board({ cell, says, tab, onOpen }: BoardProps) {
  if (cell.state === 'BREAK') return <span className="away">break</span>;
  if (cell.state === 'NOTHING') return null;
  if (cell.state === 'NOT_HERE')
    return (
      <span className={css.outside} title={t.states.NOT_HERE}>
        <span aria-hidden="true">·</span>
        <span className="away">{t.states.NOT_HERE}</span>
      </span>
    );
  const is = [
    t.states[cell.state],
    cell.late && 'late',
    cell.ownDate && 'own date',
    cell.parts > 1 && `${cell.parts} in all`,
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <button
      type="button"
      className={`${shared.cell} ${cell.late ? `${shared.late} ${css.withTick}` : ''}`}
      tabIndex={tab}
      title={`${says}: ${is}`}
      aria-label={`${says}: ${is}`}
      onClick={onOpen}
    >
      <StateBoard state={cell.state} ownDate={cell.ownDate} big silent />
    </button>
  );
}
