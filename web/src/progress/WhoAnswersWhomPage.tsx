import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import {
  type AnsweringOrder,
  classOptions,
  railOptions,
  whoAnswersWhomOptions,
  whoAnswersWhomPath,
} from '../api/queries';
import type { AnsweringView } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { TermRail } from '../ui/TermRail';
import { Loading, Trouble } from '../ui/Trouble';
import { chosenWeeks, weeksParam } from '../ui/terms';
import { Word } from '../ui/Word';
import { AnswerMatrix } from './AnswerMatrix';
import { AnswerTable } from './AnswerTable';
import { Silent } from './Silent';
import weeksCss from './Weeks.module.css';
import css from './WhoAnswersWhom.module.css';

const ORDERS: [AnsweringOrder, string][] = [
  ['GROUP', 'By group'],
  ['TOGETHER', 'In circles'],
];

const SPREAD: Record<AnsweringView['spread'], string> = {
  EVEN: 'Answers are spread evenly',
  UNEVEN: 'Answers are spread unevenly',
  VERY_UNEVEN: 'A few get most of the answers',
};

/** Who comments on whom in a class, over the weeks that are chosen. */
export function WhoAnswersWhomPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const by = ORDERS.find(([order]) => order === params.get('by'))?.[0] ?? 'GROUP';
  const asTable = params.has('table');
  const { data: of } = useQuery(classOptions(id));
  const { term, range, filter } = chosenWeeks(of, params);
  const { data: rail } = useQuery(railOptions(id, { term: filter.term }));
  const { data, error, refetch } = useQuery({
    ...whoAnswersWhomOptions(id, by, filter),
    placeholderData: (before) => before,
  });
  const set = (key: string, value?: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (key === 'term') next.delete('weeks');
        if (value === undefined) next.delete(key);
        else next.set(key, value);
        return next;
      },
      { replace: true },
    );
  const order = (to: AnsweringOrder) => {
    const next = new URLSearchParams(params);
    next.set('by', to);
    return `?${next}`;
  };
  return (
    <>
      <title>{`Who answers whom · ${name}`}</title>
      {of && rail && (
        <TermRail
          terms={of.terms}
          term={term}
          rail={rail}
          chosen={range}
          onChoose={(chosen) => set('weeks', weeksParam(chosen))}
          onTerm={(chosen) => set('term', `${chosen}`)}
        />
      )}
      <div className="page">
        <main className={css.main}>
          <div className="row wrap">
            <h1>Who answers whom</h1>
            <nav className={weeksCss.ways} aria-label="How the students stand">
              {ORDERS.map(([to, word]) => (
                <Link key={to} to={order(to)} replace aria-current={to === by ? 'page' : undefined}>
                  {word}
                </Link>
              ))}
            </nav>
            <Word
              className="push less"
              aria-pressed={asTable}
              onClick={() => set('table', asTable ? undefined : 'yes')}
            >
              {asTable ? 'As a picture' : 'As a table'}
            </Word>
            <a className="word" href={whoAnswersWhomPath(id, by, filter, '.csv')}>
              Take along (CSV)
            </a>
          </div>
          {error && <Trouble error={error} onRetry={() => refetch()} />}
          {!data && !error && <Loading lines={9} />}
          {data && <InWords view={data} />}
          {data &&
            data.comments > 0 &&
            (asTable ? <AnswerTable view={data} classId={id} /> : <AnswerMatrix view={data} classId={id} />)}
        </main>
        <aside className="sill" aria-label="Without an answer">
          {data && <Silent students={data.silent} classId={id} />}
        </aside>
      </div>
    </>
  );
}

/** What the picture says, in sentences. */
function InWords({ view }: { view: AnsweringView }) {
  if (view.comments === 0)
    return <p className="muted above-3">No student has commented on a classmate’s post in this time.</p>;
  return (
    <div className={css.words}>
      <p>
        {t.count(view.comments, 'comment', 'comments')} between {view.students.length} students.{' '}
        {view.threads.length > 0 && (
          <>
            {view.bothWays} of {view.threads.length} who answer somebody are answered by them too.
          </>
        )}
      </p>
      <p>
        {SPREAD[view.spread]} ({view.inequality.toFixed(2)} on a scale from 0, the same for all, to 1, all to one):{' '}
        {view.topThree.length > 1
          ? `${view.topThree.slice(0, -1).join(', ')} and ${view.topThree.at(-1)} get`
          : `${view.topThree[0]} gets`}{' '}
        {view.topShare} of {view.comments}.
      </p>
      {view.pairs.map((p) => (
        <p key={p.one}>
          {p.one} and {p.other} answer nobody but each other ({t.count(p.comments, 'comment', 'comments')}).
        </p>
      ))}
      {view.onlyOneGroup.length > 0 && (
        <p>{view.onlyOneGroup.map((o) => `${o.name} answers only ${o.group} (${o.comments})`).join('; ')}.</p>
      )}
    </div>
  );
}
