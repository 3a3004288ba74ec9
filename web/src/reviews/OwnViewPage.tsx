import { Textarea } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { putJson } from '../api/client';
import { ownViewOptions } from '../api/queries';
import type { MarkView, Own, OwnViewPage as View } from '../api/schema';
import { useWrite } from '../api/write';
import { Reading } from '../reading/Reading';
import { useClass } from '../session/useClass';
import { Loading, Trouble } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';
import { ReviewSteps } from './ReviewSteps';
import css from './Reviews.module.css';

/** A student reads the own paper again and says by its steps how they see it. */
export function OwnViewPage() {
  const { id, name } = useClass();
  const { data, error, refetch } = useQuery(ownViewOptions(Number(useParams().promptId)));
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page plain">
      <title>{`How do you see it? · ${name}`}</title>
      <main>
        <p className="muted above-0 below-1">{data.title}</p>
        <h1>How do you see it?</h1>
        <OwnSteps view={data} classId={id} />
      </main>
    </div>
  );
}

const WHY_NOT: Partial<Record<View['can'], string>> = {
  NOTHING_HANDED_IN: 'Hand it in first; then you can say how you see it.',
  MARKS_SHOWN: 'You have seen the marks for this, so how you saw it before stays as it is.',
  LET_OFF: 'Nothing of this is asked of you.',
};

function OwnSteps({ view, classId }: { view: View; classId: number }) {
  const client = useQueryClient();
  const { queryKey } = ownViewOptions(view.promptId);
  // What was pressed and is on its way.
  const [sent, setSent] = useState<MarkView[]>([]);
  const rev = () => client.getQueryData<View>(queryKey)?.own.rev ?? view.own.rev;
  const wishes = {
    scope: `own-view-${view.promptId}`,
    here: true,
    stale: [['feedback', classId]],
    onDone: (own: Own) => client.setQueryData<View>(queryKey, (v) => v && { ...v, own }),
  };
  const at = `/api/prompts/${view.promptId}/own-view`;
  const give = useWrite(
    ({ criterion, points, remark }: MarkView) =>
      putJson<Own>(`${at}/criteria/${criterion}`, { rev: rev(), points, remark }),
    {
      ...wishes,
      onDone: (own: Own, mark: MarkView) => {
        wishes.onDone(own);
        setSent((was) => was.filter((m) => m !== mark));
      },
      onWrong: () => {
        setSent([]);
        void client.invalidateQueries({ queryKey });
      },
    },
  );
  const say = useWrite((word: string) => putJson<Own>(`${at}/word`, { rev: rev(), word }), wishes);
  const can = view.can === 'ALLOWED';
  const open = view.rubric.criteria.length - view.own.marks.filter((m) => m.points !== undefined).length;
  const marks = [...view.own.marks.filter((m) => sent.every((s) => s.criterion !== m.criterion)), ...sent];
  return (
    <>
      {can ? (
        <p className="above-2 measure">
          Read it once more, then choose the step that fits and say why.{' '}
          {view.first ? 'Your marks show once you have chosen a step on every stair.' : 'Your teacher reads it too.'}{' '}
          {view.share > 0
            ? `It is ${view.share} % of your score.`
            : 'It does not change your score: it is about seeing your own work.'}
        </p>
      ) : (
        <p className="tell">{WHY_NOT[view.can]}</p>
      )}
      {view.posts.map((p) => (
        <article key={p.postId} className="above-4">
          <h2>
            <Link to={`/classes/${classId}/posts/${p.postId}`}>{p.title}</Link>
          </h2>
          <div className={css.text}>
            <Reading html={p.html} />
          </div>
        </article>
      ))}
      <section className="above-6" aria-labelledby="own-steps">
        <h2 id="own-steps">Your steps</h2>
        <ReviewSteps
          rubric={view.rubric}
          marks={marks}
          asks="Why this step?"
          onGive={
            can
              ? (mark) => {
                  const asked = { ...mark, notCounted: false };
                  setSent((was) => [...was.filter((m) => m.criterion !== mark.criterion), asked]);
                  give.run(asked);
                }
              : undefined
          }
        />
        {can && (
          <Textarea
            className="above-4 measure"
            label="On the whole"
            description="What went well, what was hard?"
            autosize
            minRows={2}
            maxLength={10_000}
            defaultValue={view.own.word}
            onBlur={(e) => {
              if (e.currentTarget.value.trim() !== view.own.word) say.run(e.currentTarget.value);
            }}
          />
        )}
        {!can && view.own.word && <p className={css.remark}>{view.own.word}</p>}
        <Wrong says={give.problem ?? say.problem} />
        {can && (
          <p className="above-4" role="status">
            {give.busy || say.busy ? (
              <span className="muted">Being kept …</span>
            ) : open > 0 ? (
              <span className="muted">
                {open === view.rubric.criteria.length
                  ? 'What you choose is kept at once.'
                  : `Kept. ${open === 1 ? 'One stair is' : `${open} stairs are`} still open.`}
              </span>
            ) : (
              <b>
                That is all of it, and it is kept.{' '}
                <Link className="word" to={`/classes/${classId}/feedback`}>
                  To your feedback
                </Link>
              </b>
            )}
          </p>
        )}
      </section>
    </>
  );
}
