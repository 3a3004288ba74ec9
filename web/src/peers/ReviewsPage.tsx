import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { roundsOptions, toReviewOptions } from '../api/queries';
import type { ReviewToGive } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Loading, Trouble } from '../ui/Trouble';
import { Due, When } from '../ui/When';
import css from './Peers.module.css';
import { STAGE } from './stage';

/** Reviews of papers: for students those that they give, for those who mark how each round stands. */
export function ReviewsPage() {
  const { name, role } = useClass();
  return (
    <div className="page plain">
      <title>{`Reviews · ${name}`}</title>
      <main>
        <h1>Reviews</h1>
        {role === 'STUDENT' ? <ToReview /> : <Rounds />}
      </main>
    </div>
  );
}

function ToReview() {
  const { id } = useClass();
  const { data, error, refetch } = useQuery(toReviewOptions(id));
  if (!data) return error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />;
  if (data.length === 0) return <p className="muted">No paper of a classmate is yours to review just now.</p>;
  const open = data.filter((r) => r.open);
  const rest = data.filter((r) => !r.open);
  return (
    <>
      {warmUps(open).map((r) => (
        <WarmUpLine key={r.promptId} review={r} classId={id} />
      ))}
      {open.length === 0 && <p className="muted">You have sent all of them.</p>}
      <ul className={css.bare}>
        {open.map((r) => (
          <Line key={r.id} review={r} classId={id} n={among(data, r)} />
        ))}
      </ul>
      {rest.length > 0 && (
        <section className="above-6">
          <h2>Sent</h2>
          <ul className={css.bare}>
            {rest.map((r) => (
              <Line key={r.id} review={r} classId={id} n={among(data, r)} />
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** One review of each prompt that has papers to warm up on. */
const warmUps = (open: ReviewToGive[]) =>
  open.filter((r, i) => r.warmUp && open.findIndex((o) => o.promptId === r.promptId) === i);

function WarmUpLine({ review: { warmUp, title }, classId }: { review: ReviewToGive; classId: number }) {
  if (!warmUp) return null;
  const left = warmUp.of - warmUp.done;
  const to = `/classes/${classId}/reviews/warm-up/${warmUp.at}`;
  if (left === 0)
    return (
      <p className="muted">
        You have warmed up for “{title}”.{' '}
        <Link className="word" to={to}>
          Look at it again
        </Link>
      </p>
    );
  return (
    <p className="tell">
      Before you review for “{title}”, warm up on {t.count(left, 'paper', 'papers')} that your teacher has marked:
      choose your steps, then see how near you came.{' '}
      <Link className="word" to={to}>
        {warmUp.done === 0 ? 'Begin' : 'Go on'}
      </Link>
    </p>
  );
}

/** The place of a review among those for the same prompt, since their authors may have no names here. */
const among = (all: ReviewToGive[], review: ReviewToGive) =>
  all.filter((r) => r.promptId === review.promptId && r.id <= review.id).length;

function Line({ review: r, classId, n }: { review: ReviewToGive; classId: number; n: number }) {
  return (
    <li className="above-4">
      <p className="muted tiny above-0 below-0">
        {r.title}
        {r.open && (
          <>
            {' '}
            · <Due at={r.due} />
          </>
        )}
      </p>
      <Link className="word" to={`/classes/${classId}/reviews/${r.id}`}>
        {r.author ? `${r.author}’s paper` : `Paper ${n} of a classmate`}
      </Link>{' '}
      <span className={r.late ? 'warm tiny' : 'muted tiny'}>
        {r.late ? 'late' : r.stage === 'RETURNED' ? 'came back to you' : r.stage === 'WAITS' ? 'sent' : STAGE[r.stage]}
      </span>
    </li>
  );
}

function Rounds() {
  const { id, manages } = useClass();
  const { data, error, refetch } = useQuery(roundsOptions(id));
  if (!data) return error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />;
  if (data.length === 0)
    return (
      <p className="muted">
        No prompt of this class asks classmates to review each other’s papers.
        {manages && ' You can ask for it in the rules of a prompt, under “How classmates review”.'}
      </p>
    );
  return (
    <table className="rows above-2">
      <thead>
        <tr>
          <th>Week</th>
          <th>Prompt</th>
          <th>Due</th>
          <th className="nums">Done</th>
          <th className="nums">Late</th>
        </tr>
      </thead>
      <tbody>
        {data.map((r) => (
          <tr key={r.promptId}>
            <td>{r.week ?? ''}</td>
            <td>
              <Link className="word" to={`/classes/${id}/reviews/round/${r.promptId}`}>
                {r.title}
              </Link>
            </td>
            <td className="one-line">
              <When at={r.due} />
            </td>
            <td className="nums">
              {r.givenAt ? `${r.done} of ${r.given}` : <span className="muted">not given out</span>}
            </td>
            <td className="nums">{r.late > 0 ? <b className="warm">{r.late}</b> : ''}</td>
          </tr>
        ))}
      </tbody>
      <caption className="away">{t.count(data.length, 'round', 'rounds')} of reviews, the last due first</caption>
    </table>
  );
}
