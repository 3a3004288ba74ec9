import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { agreementOptions } from '../api/queries';
import type { AgreementView, CriterionView, GapView, SideView } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import css from './Agreement.module.css';

const signed = (n: number, places = 1) => {
  const shown = Math.abs(n).toFixed(places);
  return Number(shown) === 0 ? shown : `${n < 0 ? '−' : '+'} ${shown}`;
};

/** How far two sides agree about the papers of a class, criterion by criterion. */
export function AgreementPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const [asTable, setAsTable] = useState(false);
  const search = new URLSearchParams({
    first: params.get('first') ?? 'lead',
    second: params.get('second') ?? 'second',
    ...(params.get('prompt') && { prompt: params.get('prompt') ?? '' }),
  }).toString();
  const { data, error, refetch } = useQuery({ ...agreementOptions(id, search), placeholderData: (was) => was });
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  const choose = (what: string) => (e: React.ChangeEvent<HTMLSelectElement>) => {
    const next = new URLSearchParams(params);
    if (e.target.value) next.set(what, e.target.value);
    else next.delete(what);
    setParams(next, { replace: true });
  };
  const side = (key: string) => data.sides.find((s) => s.key === key) ?? { key, name: 'nobody' };
  const [first, second] = [side(data.first), side(data.second)];
  return (
    <div className="page">
      <title>{`Agreement · ${name}`}</title>
      <main>
        <h1>Do two readers see the same?</h1>
        <p className={css.sides}>
          <Side label="One side" chosen={data.first} data={data} onChoose={choose('first')} /> and{' '}
          <Side label="The other side" chosen={data.second} data={data} onChoose={choose('second')} /> on{' '}
          <select aria-label="Prompt" value={params.get('prompt') ?? ''} onChange={choose('prompt')}>
            <option value="">all prompts</option>
            {data.prompts.map((p) => (
              <option key={p.id} value={p.id}>
                {p.title}
              </option>
            ))}
          </select>
          <span>
            {t.count(data.papers, 'paper', 'papers')}, {data.both} read by both
          </span>
        </p>
        <div className="above-5">
          {data.both === 0 && (
            <p className="muted">
              No paper was read by both of these sides yet. Students can be asked in a prompt how they see their own;
              colleagues are asked for second readings from Mark.
            </p>
          )}
          {data.both > 0 && asTable && <AsTable data={data} />}
          {data.both > 0 &&
            !asTable &&
            data.criteria.map((c) => (
              <Criterion
                key={`${c.name} ${c.levels}`}
                criterion={c}
                first={first}
                second={second}
                fewest={data.fewest}
              />
            ))}
        </div>
      </main>
      <aside className="sill">
        <h2>How to read the squares</h2>
        <p className="tiny muted">
          To the right the steps of {first.name}, upwards those of {second.name}. A dot on the dark diagonal is the same
          step twice; a bigger dot is more papers.
        </p>
        {data.widest.length > 0 && <h2>Worth talking about</h2>}
        {data.widest.slice(0, 6).map((g) => (
          <Gap key={`${g.promptId} ${g.studentId} ${g.criterion}`} gap={g} classId={id} />
        ))}
        {data.severity.length > 0 && (
          <>
            <h2>Severity</h2>
            {[...data.severity]
              .sort((a, b) => Number(a.student) - Number(b.student))
              .map((s) => (
                <p key={s.name} className="tiny above-0 below-1">
                  {s.name} <b>{signed(s.steps, 2)}</b> steps
                  {s.error !== undefined && ` (± ${s.error.toFixed(2)})`}
                  <span className="muted">
                    , {t.count(s.readings, 'paper', 'papers')}
                    {s.student && ', as a classmate'}
                  </span>
                </p>
              ))}
            <p className="tiny muted">
              How many steps somebody gives more than all who read the same papers, on average over all criteria; ± is
              its standard error.
            </p>
          </>
        )}
        <h2>As a table</h2>
        <p className="row">
          <Word aria-pressed={asTable} onClick={() => setAsTable(!asTable)}>
            {asTable ? 'Show the squares' : 'Show'}
          </Word>
          <a className="word" href={`/api/classes/${id}/agreement.csv?${search}`}>
            CSV
          </a>
        </p>
      </aside>
    </div>
  );
}

interface SideProps {
  label: string;
  chosen: string;
  data: AgreementView;
  onChoose: (e: React.ChangeEvent<HTMLSelectElement>) => void;
}

function Side({ label, chosen, data, onChoose }: SideProps) {
  return (
    <select aria-label={label} value={chosen} onChange={onChoose}>
      {!data.sides.some((s) => s.key === chosen) && <option value={chosen}>nobody yet</option>}
      {data.sides.map((s) => (
        <option key={s.key} value={s.key}>
          {s.name}
        </option>
      ))}
    </select>
  );
}

/** "about one step", "more than two steps": a difference for people. */
const aboutSteps = (difference: number) => {
  const n = Math.round(Math.abs(difference) * 2) / 2;
  return n < 0.75 ? 'about half a step' : n < 1.25 ? 'about one step' : `about ${n} steps`;
};

/** "Ms Tremaine gives", "Second readings give". */
const gives = ({ key, name }: SideView) =>
  `${name.charAt(0).toUpperCase()}${name.slice(1)} ${key.startsWith('p') ? 'gives' : 'give'}`;

interface CriterionProps {
  criterion: CriterionView;
  first: SideView;
  second: SideView;
  fewest: number;
}

/** What the numbers of a criterion come to, for somebody who does not read them. */
function verdict({ criterion: c, first, second, fewest }: CriterionProps): string {
  if (c.verdict === undefined || c.meanDifference === undefined)
    return `Too few to say anything: ${t.count(c.pairs, 'paper', 'papers')} read by both, it takes ${fewest}.`;
  if (c.verdict === 'SECOND_GIVES_MORE') return `${gives(second)} ${aboutSteps(c.meanDifference)} more.`;
  if (c.verdict === 'FIRST_GIVES_MORE') return `${gives(first)} ${aboutSteps(c.meanDifference)} more.`;
  return c.verdict === 'ALIKE' ? 'They agree well.' : 'They are often apart, and neither gives more.';
}

const numbersOf = (c: CriterionView) =>
  [
    c.meanDifference !== undefined &&
      Math.abs(c.meanDifference) >= 0.05 &&
      `mean difference ${signed(c.meanDifference)} steps`,
    c.exact !== undefined && `exact ${c.exact} of ${c.pairs}`,
    c.withinOne !== undefined && `within one step ${c.withinOne} of ${c.pairs}`,
    c.kappa
      ? `kappa ${c.kappa.value.toFixed(2)} (${c.kappa.low.toFixed(2)} to ${c.kappa.high.toFixed(2)})`
      : c.exact !== undefined && 'one side gives nearly always the same step, so kappa says nothing',
  ].filter(Boolean);

function Criterion(props: CriterionProps) {
  const { criterion: c } = props;
  return (
    <section className={css.criterion} aria-label={c.name}>
      <Squares criterion={c} />
      <div>
        <h2>{c.name}</h2>
        <p>{verdict(props)}</p>
        {c.exact !== undefined && <p className="tiny muted">{numbersOf(c).join(' · ')}</p>}
      </div>
    </section>
  );
}

const WIDE = 122;
const FAR = 2;

/** Steps by steps, a dot where papers lie. */
function Squares({ criterion: c }: { criterion: CriterionView }) {
  const side = WIDE / c.levels;
  const most = Math.max(1, ...c.grid.map((g) => g.papers));
  const steps = Array.from({ length: c.levels }, (_, i) => i);
  return (
    <figure className={css.grid}>
      <svg
        width={WIDE}
        height={WIDE}
        role="img"
        aria-label={
          c.grid.map((g) => `${t.count(g.papers, 'paper', 'papers')}: ${g.first + 1} and ${g.second + 1}`).join('; ') ||
          'No paper'
        }
      >
        {steps.flatMap((x) =>
          steps.map((y) => (
            <rect
              key={`${x} ${y}`}
              x={x * side + 1}
              y={WIDE - (y + 1) * side + 1}
              width={side - 2}
              height={side - 2}
              rx="1"
              className={x === y ? css.same : css.cell}
            />
          )),
        )}
        {c.grid.map((g) => (
          <circle
            key={`${g.first} ${g.second}`}
            cx={(g.first + 0.5) * side}
            cy={WIDE - (g.second + 0.5) * side}
            r={side * (0.2 + 0.22 * Math.sqrt(g.papers / most))}
            className={Math.abs(g.first - g.second) >= FAR ? css.far : css.dot}
          >
            <title>{`${t.count(g.papers, 'paper', 'papers')}: step ${g.first + 1} and step ${g.second + 1}`}</title>
          </circle>
        ))}
      </svg>
      <figcaption className={css.ends}>
        <span>lowest</span>
        <span>highest</span>
      </figcaption>
    </figure>
  );
}

/** One paper with both steps on a small stair. */
function Gap({ gap: g, classId }: { gap: GapView; classId: number }) {
  const wide = Math.abs(g.first - g.second);
  return (
    <div className={css.gap}>
      <p>
        <Link className="word" to={`/classes/${classId}/mark/${g.promptId}/${g.studentId}`}>
          {g.student}
        </Link>
      </p>
      <p className="tiny muted">
        {g.criterion}, {wide === 2 ? 'two' : wide} steps apart · {g.prompt}
      </p>
      <svg className={css.stair} width={g.levels * 15} height="36" aria-hidden="true">
        {Array.from({ length: g.levels }, (_, i) => (
          <rect
            key={i}
            x={i * 15}
            y={30 - 7 * i}
            width="13"
            height={6 + 7 * i}
            className={i === g.first ? css.first : undefined}
          />
        ))}
        <circle cx={g.second * 15 + 6.5} cy={Math.max(4, 24 - 7 * g.second)} r="3.5" className={css.second} />
      </svg>
    </div>
  );
}

function AsTable({ data }: { data: AgreementView }) {
  return (
    <table className="rows">
      <thead>
        <tr>
          <th>Criterion</th>
          <th className="nums">Papers</th>
          <th className="nums">Difference</th>
          <th className="nums">Same step</th>
          <th className="nums">Within one</th>
          <th className="nums">Kappa</th>
        </tr>
      </thead>
      <tbody>
        {data.criteria.map((c) => (
          <tr key={`${c.name} ${c.levels}`}>
            <td>{c.name}</td>
            <td className="nums">{c.pairs}</td>
            <td className="nums">{c.meanDifference === undefined ? 'too few' : signed(c.meanDifference)}</td>
            <td className="nums">{c.exact}</td>
            <td className="nums">{c.withinOne}</td>
            <td className="nums">
              {c.kappa && `${c.kappa.value.toFixed(2)} (${c.kappa.low.toFixed(2)} to ${c.kappa.high.toFixed(2)})`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
