import { Textarea } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { putJson } from '../api/client';
import { receivedOptions } from '../api/queries';
import type { ReceivedReview, ReceivedReviews } from '../api/schema';
import { useWrite } from '../api/write';
import { Report } from '../moderation/Report';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Steps } from '../ui/Steps';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Peers.module.css';

/** What classmates say of a paper: by criterion, each with its words; to its author, or to those who mark. */
export function ReceivedPage() {
  const { id, name } = useClass();
  const { promptId, studentId } = useParams();
  const student = studentId ? Number(studentId) : undefined;
  const { data, error, refetch } = useQuery(receivedOptions(Number(promptId), student));
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page plain">
      <title>{`What classmates say · ${name}`}</title>
      <main>
        <p className="muted above-0 below-1">
          {student ? <Link to={`/classes/${id}/mark/${promptId}/${student}`}>{data.title}</Link> : data.title}
        </p>
        <h1>What classmates say</h1>
        {data.reviews.length === 0 ? (
          <p className="muted">Nothing yet. Reviews show here once they are sent and were looked at.</p>
        ) : (
          <Together of={data} isOwn={!student} />
        )}
      </main>
    </div>
  );
}

/** What a reviewer is called, where the name may be kept back. */
const called = (r: ReceivedReview, n: number) => r.reviewer ?? `Reviewer ${n + 1}`;

function Together({ of, isOwn }: { of: ReceivedReviews; isOwn: boolean }) {
  return (
    <>
      <p className="muted">
        {t.count(of.reviews.length, 'review', 'reviews')}
        {of.share > 0 && `; together they are ${of.share} % of the score`}. The filled step is the middle of what they
        gave, each dot is one of them.
      </p>
      <h2 className="smaller">By criterion</h2>
      {of.rubric.criteria.map((c) => (
        <section key={c.id} className={css.criterion}>
          <Steps
            criterion={c}
            mark={of.median.find((m) => m.criterion === c.id)}
            dots={of.reviews.flatMap((r, n) => {
              const points = r.marks.find((m) => m.criterion === c.id)?.points;
              return points === undefined ? [] : [{ who: called(r, n), points }];
            })}
          />
          {of.reviews.map((r, n) => {
            const remark = r.marks.find((m) => m.criterion === c.id)?.remark;
            return (
              remark && (
                <p key={r.id} className={css.said}>
                  <span className="muted tiny">{called(r, n)}</span>
                  <br />
                  {remark}
                </p>
              )
            );
          })}
        </section>
      ))}
      {of.reviews.map((r, n) => (
        <section key={r.id} className={css.review} aria-label={called(r, n)}>
          <h2>{called(r, n)}</h2>
          {r.answers
            .filter((a) => a.answer)
            .map((a) => (
              <p key={a.question} className={css.said}>
                <span className="muted tiny">{a.question}</span>
                <br />
                {a.answer}
              </p>
            ))}
          {r.word && <p className={css.said}>{r.word}</p>}
          {isOwn ? (
            <Reply review={r} promptId={of.promptId} canAnswer={of.answered} />
          ) : (
            r.helped !== undefined && (
              <p className="muted">The author says it helped{r.helped ? `: “${r.helped}”` : '.'}</p>
            )
          )}
        </section>
      ))}
    </>
  );
}

/** What an author can do with a review: say that it helped, and why, or report it. */
function Reply({ review, promptId, canAnswer }: { review: ReceivedReview; promptId: number; canAnswer: boolean }) {
  const [why, setWhy] = useState<string | null>(null);
  const say = useWrite(
    (helped: boolean) =>
      putJson<ReceivedReviews>(`/api/peer-reviews/${review.id}/helped`, { helped, why: helped ? (why ?? '') : '' }),
    { here: true, fills: receivedOptions(promptId).queryKey, onDone: () => setWhy(null) },
  );
  return (
    <>
      {canAnswer && review.helped !== undefined && (
        <p className="above-2 below-0">
          <b>You said that it helped{review.helped ? ':' : '.'}</b> {review.helped}{' '}
          <Word tiny onClick={() => say.run(false)} disabled={say.busy}>
            Take that back
          </Word>
        </p>
      )}
      {why !== null && (
        <form
          className="above-2 measure-s"
          onSubmit={(e) => {
            e.preventDefault();
            say.run(true);
          }}
        >
          <Textarea
            label="What helped, and how? You can leave this empty."
            data-autofocus
            autosize
            minRows={2}
            maxLength={1000}
            value={why}
            onChange={(e) => setWhy(e.target.value)}
          />
          <p className="row middle above-2">
            <Button type="submit" disabled={say.busy}>
              This helped
            </Button>
            <Word onClick={() => setWhy(null)}>Not now</Word>
          </p>
        </form>
      )}
      <Wrong says={say.problem} />
      {why === null && (
        <p className="row middle above-2 below-0">
          {canAnswer && review.helped === undefined && <Button onClick={() => setWhy('')}>This helped</Button>}
          <Report at={`/api/peer-reviews/${review.id}/reports`} what="this review" />
        </p>
      )}
    </>
  );
}
