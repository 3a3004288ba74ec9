import { type KeyboardEvent, memo, type PointerEvent, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { AnsweringView } from '../api/schema';
import { t } from '../texts/en';
import css from './WhoAnswersWhom.module.css';

/** What is pointed at: a row and a column, or a student's own row and column. */
interface Pointed {
  row: number;
  column: number;
}

const WIDEST = 24;
const NARROWEST = 9;
/** Below that no name can be read beside a row. */
const READABLE = 15;
const ROOM = 500;
/** For the sums, and the last name that leans over. */
const RIGHT = 84;

const WAYS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** A row and a column for each student; the bigger a dot, the more comments the one in the row gave to the one in the column. */
export function AnswerMatrix({ view, classId }: { view: AnsweringView; classId: number }) {
  const [at, setAt] = useState<Pointed | null>(null);
  const { students } = view;
  const n = students.length;
  const size = Math.max(NARROWEST, Math.min(WIDEST, Math.floor(ROOM / n)));
  const named = size >= READABLE;
  const left = named ? 148 : 8;
  const top = named ? 108 : 8;
  const given = useMemo(() => new Map(view.threads.map((c) => [c.from * n + c.to, c.comments])), [view, n]);

  const point = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const column = Math.floor((e.clientX - box.left - left) / size);
    const row = Math.floor((e.clientY - box.top - top) / size);
    const inRows = row >= 0 && row < n;
    const inColumns = column >= 0 && column < n;
    if (inRows && inColumns) setAt({ row, column });
    else if (inRows) setAt({ row, column: row });
    else if (inColumns) setAt({ row: column, column });
    else setAt(null);
  };
  const walk = (e: KeyboardEvent) => {
    const by = WAYS[e.key];
    if (!by) return;
    e.preventDefault();
    setAt((now) =>
      now
        ? {
            row: Math.max(0, Math.min(n - 1, now.row + by[0])),
            column: Math.max(0, Math.min(n - 1, now.column + by[1])),
          }
        : { row: 0, column: 0 },
    );
  };
  return (
    <>
      <p className={css.says} aria-live="polite">
        {at ? says(view, given, at) : 'From the left, on whose posts: above. Point at a dot, or walk with the arrows.'}
      </p>
      <section className={css.frame} aria-label="Who answers whom, as a picture" tabIndex={0} onKeyDown={walk}>
        <svg
          className={css.matrix}
          width={left + n * size + RIGHT}
          height={top + n * size + 30}
          onPointerMove={point}
          onPointerLeave={() => setAt(null)}
          role="group"
          aria-label={`${t.count(view.comments, 'comment', 'comments')} between ${n} students; the same stands in the table.`}
        >
          {at && (
            <>
              <rect className={css.lit} x={0} y={top + at.row * size} width={left + n * size + RIGHT} height={size} />
              <rect className={css.lit} x={left + at.column * size} y={0} width={size} height={top + n * size + 30} />
            </>
          )}
          <Dots view={view} size={size} left={left} top={top} />
          {named && <NamesBeside view={view} classId={classId} size={size} left={left} top={top} />}
        </svg>
      </section>
    </>
  );
}

function says(view: AnsweringView, given: Map<number, number>, { row, column }: Pointed): string {
  const from = view.students[row];
  const to = view.students[column];
  if (row === column)
    return `${from.name}: gave ${t.count(from.given, 'comment', 'comments')}, got ${from.received} from ${from.answeredBy}, answered ${from.answeredBack} of them back.`;
  const there = given.get(row * view.students.length + column) ?? 0;
  const back = given.get(column * view.students.length + row) ?? 0;
  return `${from.name} to ${to.name}: ${there || 'no'} ${there === 1 ? 'comment' : 'comments'}; ${back || 'none'} back.`;
}

interface PartProps {
  view: AnsweringView;
  size: number;
  left: number;
  top: number;
}

const Dots = memo(function Dots({ view, size, left, top }: PartProps) {
  const { students } = view;
  const n = students.length;
  const most = Math.max(1, ...view.threads.map((c) => c.comments));
  const half = size / 2;
  const opensGroup = (i: number) => view.by === 'GROUP' && i > 0 && students[i].group !== students[i - 1].group;
  return (
    <g>
      {students.map((s, i) => (
        <g key={s.studentId}>
          <rect className={css.self} x={left + i * size} y={top + i * size} width={size} height={size} />
          <line className={css.line} x1={left} x2={left + n * size} y1={top + i * size} y2={top + i * size} />
          <line className={css.line} y1={top} y2={top + n * size} x1={left + i * size} x2={left + i * size} />
          {opensGroup(i) && (
            <>
              <line className={css.border} x1={left} x2={left + n * size} y1={top + i * size} y2={top + i * size} />
              <line className={css.border} y1={top} y2={top + n * size} x1={left + i * size} x2={left + i * size} />
            </>
          )}
        </g>
      ))}
      <rect className={css.edge} x={left} y={top} width={n * size} height={n * size} />
      {view.threads.map((c) => (
        <circle
          key={`${c.from}-${c.to}`}
          className={css.dot}
          cx={left + c.to * size + half}
          cy={top + c.from * size + half}
          r={Math.max(1.6, half * 0.86 * Math.sqrt(c.comments / most))}
        />
      ))}
    </g>
  );
});

const NamesBeside = memo(function NamesBeside({ view, classId, size, left, top }: PartProps & { classId: number }) {
  const n = view.students.length;
  return (
    <g className={css.names}>
      {view.students.map((s, i) => (
        <g key={s.studentId}>
          <Link to={`/classes/${classId}/persons/${s.place}`}>
            <text x={left - 8} y={top + i * size + size / 2} textAnchor="end" dominantBaseline="central">
              {short(s.name)}
            </text>
          </Link>
          <text
            transform={`translate(${left + i * size + size / 2 - 3}, ${top - 7}) rotate(-52)`}
            dominantBaseline="central"
          >
            {short(s.name)}
          </text>
          <text
            className={css.total}
            x={left + n * size + 26}
            y={top + i * size + size / 2}
            textAnchor="end"
            dominantBaseline="central"
          >
            {s.given}
          </text>
          <text className={css.total} x={left + i * size + size / 2} y={top + n * size + 15} textAnchor="middle">
            {s.received}
          </text>
        </g>
      ))}
      <text className={css.total} x={left + n * size + 26} y={top + n * size + 15} textAnchor="end">
        gave
      </text>
      <text className={css.total} x={left - 8} y={top + n * size + 15} textAnchor="end">
        got
      </text>
    </g>
  );
});

/** A long name beside a narrow row; the whole of it is said when one points at it. */
const short = (name: string) => (name.length > 19 ? `${name.slice(0, 18).trimEnd()}…` : name);
