import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { classPictureOptions } from '../api/queries';
import type { CriterionSpread, StrengthView } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Loading, Trouble } from '../ui/Trouble';
import css from './ClassPicture.module.css';

/** How the class stands in its criteria: how many papers reached which step, and what it is strong and weak in. */
export function ClassPicturePage() {
  const { id, name } = useClass();
  const { data, error, refetch } = useQuery(classPictureOptions(id));
  return (
    <div className="page wide">
      <title>{`The class’s picture · ${name}`}</title>
      <main>
        <div className="row wrap">
          <h1>The class’s picture</h1>
          <Link className="word push less" to={`/classes/${id}/scores`}>
            Scores
          </Link>
        </div>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading />}
        {data && <Strengths of={data.strengths} />}
        {data?.prompts.map((p) => (
          <section key={p.promptId} className="above-6">
            <h2>
              <Link to={`/classes/${id}/prompt/${p.promptId}`}>{p.title}</Link>
            </h2>
            <div className={css.spreads}>
              {p.criteria.map((c) => (
                <Spread key={c.criterion} of={c} />
              ))}
            </div>
          </section>
        ))}
        {data?.prompts.length === 0 && <p className="muted">Nothing is marked yet.</p>}
      </main>
    </div>
  );
}

function Strengths({ of }: { of: StrengthView[] }) {
  if (of.length < 2)
    return <p className="muted">What the class is strong in is said once five papers have two criteria.</p>;
  const strongest = of[0];
  const weakest = of[of.length - 1];
  return (
    <>
      <p>
        Strongest in <b>{strongest.criterion}</b>, with {strongest.percent} % of its points; weakest in{' '}
        <b>{weakest.criterion}</b>, with {weakest.percent} %.
      </p>
      <p className="tiny muted above-0">
        {of.map((s) => `${s.criterion} ${s.percent} % (${t.count(s.papers, 'paper', 'papers')})`).join(' · ')}
      </p>
    </>
  );
}

/** How many papers reached each step, as columns over a table of the same numbers. */
function Spread({ of }: { of: CriterionSpread }) {
  const most = Math.max(...of.levels.map((l) => l.papers), 1);
  return (
    <table className={css.spread}>
      <caption>
        {of.criterion} <span>{of.percent} %</span>
      </caption>
      <tbody>
        <tr>
          {of.levels.map((l) => (
            <td key={l.level}>
              <svg className={css.column} viewBox="0 0 10 40" preserveAspectRatio="none" aria-hidden="true">
                <rect x="1" width="8" y={40 - (40 * l.papers) / most} height={(40 * l.papers) / most} />
              </svg>
              {l.papers}
            </td>
          ))}
        </tr>
      </tbody>
      <tfoot>
        <tr>
          {of.levels.map((l) => (
            <th key={l.level} scope="col">
              {l.level}
            </th>
          ))}
        </tr>
      </tfoot>
    </table>
  );
}
