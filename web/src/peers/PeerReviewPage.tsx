import { Textarea } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { postJson, putJson } from '../api/client';
import { peerReviewOptions } from '../api/queries';
import type { Own, PeerReviewPage as View } from '../api/schema';
import { useWrite } from '../api/write';
import { Judging } from '../reviews/Judging';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Due } from '../ui/When';
import { Wrong } from '../ui/Wrong';

/** A student reads a classmate's paper, judges it by the steps of its prompt, and answers what is asked. */
export function PeerReviewPage() {
  const { id } = useClass();
  const reviewId = Number(useParams().reviewId);
  const { data, error, refetch } = useQuery(peerReviewOptions(reviewId));
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page plain" key={reviewId}>
      <title>{`Review a paper · ${data.title}`}</title>
      <main>
        <p className="muted above-0 below-1">{data.title}, a review</p>
        <h1>{data.author ? `${data.author}’s paper` : 'A classmate’s paper'}</h1>
        {data.can === 'WARM_UP_FIRST' && data.warmUp ? (
          <p className="tell">
            This paper opens once you have warmed up: your teacher has marked{' '}
            {t.count(data.warmUp.of, 'paper', 'papers')} for you to judge first.{' '}
            <Link className="word" to={`/classes/${id}/reviews/warm-up/${data.warmUp.at}`}>
              {data.warmUp.done === 0 ? 'Begin' : 'Go on'}
            </Link>
          </p>
        ) : (
          <>
            <Where view={data} />
            <Review view={data} classId={id} />
          </>
        )}
      </main>
    </div>
  );
}

function Where({ view }: { view: View }) {
  if (view.can === 'ENDED') return <p className="tell">This review is not asked of you any more.</p>;
  if (view.can === 'PAPER_GONE')
    return <p className="tell">Its author has taken this paper back. You need not review it.</p>;
  if (view.can === 'SENT')
    return (
      <p className="tell">
        {view.stage === 'WAITS'
          ? 'You have sent it. Somebody looks at your words before its author gets them.'
          : view.stage === 'TAKEN_DOWN'
            ? 'A teacher has taken this review down. Ask them why.'
            : 'You have sent it, and its author can read it.'}
        {view.helped !== undefined && <b> Its author says that it helped{view.helped ? `: “${view.helped}”` : '.'}</b>}
      </p>
    );
  return (
    <>
      <p className="muted above-1 below-0">
        <Due at={view.due} />
      </p>
      {view.note !== undefined && (
        <p className="tell">
          It came back to you: <b>{view.note}</b> Change it, and send it again.
        </p>
      )}
      <p className="above-2 measure">
        Read the paper, choose the step that fits on each stair, and say why: kindly, and so that it helps.{' '}
        {view.namesReviewer
          ? 'Its author reads your name with it.'
          : 'Its author does not read your name; your teacher does.'}{' '}
        {view.share > 0 && `What classmates give together is ${view.share} % of the score.`}
      </p>
    </>
  );
}

function Review({ view, classId }: { view: View; classId: number }) {
  const client = useQueryClient();
  const key = peerReviewOptions(view.id).queryKey;
  const at = `/api/peer-reviews/${view.id}`;
  const can = view.can === 'ALLOWED';
  const answer = useWrite(
    ({ no, said }: { no: number; said: string }) =>
      putJson<Own>(`${at}/answers/${no}`, {
        rev: client.getQueryData<View>(key)?.own.rev ?? view.own.rev,
        answer: said,
      }),
    {
      scope: at,
      here: true,
      onDone: (own, { no, said }) =>
        client.setQueryData<View>(
          key,
          (v) => v && { ...v, own, answers: v.answers.map((a, i) => (i === no ? { ...a, answer: said.trim() } : a)) },
        ),
    },
  );
  const send = useWrite(
    () => postJson<View>(`${at}/sent`, { rev: client.getQueryData<View>(key)?.own.rev ?? view.own.rev }),
    { scope: at, here: true, fills: key, stale: [['to-review', classId]] },
  );
  const open = view.answers.filter((a) => !a.answer).length;
  const steps = view.rubric.criteria.filter(
    (c) => view.own.marks.find((m) => m.criterion === c.id)?.points === undefined,
  ).length;
  return (
    <>
      <Judging
        classId={classId}
        view={view}
        queryKey={key}
        at={at}
        stale={[['to-review', classId]]}
        can={can}
        heading="Your steps"
        asks="Why this step?"
        whole="What did you like, what would you try next?"
        between={view.answers.map((a, no) =>
          can ? (
            <Textarea
              // The questions of a prompt have no other name than their place.
              key={a.question}
              className="above-4 measure"
              label={a.question}
              autosize
              minRows={2}
              maxLength={4000}
              defaultValue={a.answer}
              onBlur={(e) => {
                const said = e.currentTarget.value;
                if (said.trim() !== a.answer) answer.run({ no, said });
              }}
            />
          ) : (
            a.answer && (
              <p key={a.question} className="measure">
                <span className="muted">{a.question}</span>
                <br />
                {a.answer}
              </p>
            )
          ),
        )}
      />
      {can && (
        <section className="above-4">
          <Wrong says={answer.problem || send.problem} />
          <p className="row wrap middle">
            <Button go disabled={send.busy || steps > 0 || open > 0} onClick={() => send.run()}>
              Send the review
            </Button>
            <span className="muted">
              {steps > 0 || open > 0
                ? 'Once every stair has a step and every question an answer.'
                : view.looked
                  ? 'Somebody looks at your words first. Once sent it stays as it is.'
                  : 'Its author gets it at once. Once sent it stays as it is.'}
            </span>
          </p>
        </section>
      )}
      {!can && (
        <p className="above-4">
          <Link
            className="word"
            to={view.next ? `/classes/${classId}/reviews/${view.next}` : `/classes/${classId}/reviews`}
          >
            {view.next ? 'The next paper' : 'All your reviews'}
          </Link>
        </p>
      )}
    </>
  );
}
