import { Textarea } from '@mantine/core';
import { type QueryKey, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { putJson } from '../api/client';
import type { JudgedPost, MarkView, Own, Rubric } from '../api/schema';
import { useWrite } from '../api/write';
import { Reading } from '../reading/Reading';
import type { Dot } from '../ui/Steps';
import { Wrong } from '../ui/Wrong';
import { ReviewSteps } from './ReviewSteps';
import css from './Reviews.module.css';

/** A paper as somebody has it who judges it and is not its marker. */
interface Judged {
  rubric: Rubric;
  posts: JudgedPost[];
  own: Own;
}

interface JudgingProps<V extends Judged> {
  classId: number;
  view: V;
  /** The question that the view answers. */
  queryKey: QueryKey;
  /** Where steps and words are sent. */
  at: string;
  stale: QueryKey[];
  /** Whether steps can be given now. */
  can: boolean;
  heading: string;
  /** What is asked beside each stair; without it steps alone are given. */
  asks?: string;
  /** What is asked about the whole; without it nothing is. */
  whole?: string;
  dots?: (criterion: string) => Dot[];
  /** What else is asked, between the stairs and the whole. */
  between?: ReactNode;
  /** What follows once every stair has its step. */
  done?: ReactNode;
}

/** The texts of a paper and, under them, the stairs with room for words; what is chosen is kept at once. */
export function Judging<V extends Judged>(props: JudgingProps<V>) {
  const { classId, view, queryKey, at, stale, can, heading, asks, whole, dots, between, done } = props;
  const client = useQueryClient();
  // What was pressed and is on its way.
  const [sent, setSent] = useState<MarkView[]>([]);
  const rev = () => client.getQueryData<V>(queryKey)?.own.rev ?? view.own.rev;
  const keep = (own: Own) => client.setQueryData<V>(queryKey, (v) => v && { ...v, own });
  // What else the view says, such as what others gave, may be told once all is given.
  const after = (own: Own) => {
    keep(own);
    if (own.finished && !view.own.finished) void client.invalidateQueries({ queryKey });
  };
  const give = useWrite(
    ({ criterion, points, remark }: MarkView) =>
      putJson<Own>(`${at}/criteria/${criterion}`, { rev: rev(), points, remark }),
    {
      scope: at,
      stale,
      onDone: (own, mark) => {
        after(own);
        setSent((was) => was.filter((m) => m !== mark));
      },
      onWrong: () => {
        setSent([]);
        void client.invalidateQueries({ queryKey });
      },
    },
  );
  const say = useWrite((word: string) => putJson<Own>(`${at}/word`, { rev: rev(), word }), {
    scope: at,
    here: true,
    stale,
    onDone: after,
  });
  const marks = [...view.own.marks.filter((m) => sent.every((s) => s.criterion !== m.criterion)), ...sent];
  const open = view.rubric.criteria.filter((c) => marks.find((m) => m.criterion === c.id)?.points === undefined).length;
  return (
    <>
      {view.posts.map((p, i) => (
        <article key={p.postId ?? i} className="above-4">
          <h2>{p.postId ? <Link to={`/classes/${classId}/posts/${p.postId}`}>{p.title}</Link> : p.title}</h2>
          <div className={css.text}>
            <Reading html={p.html} postId={p.postId} />
          </div>
        </article>
      ))}
      <section className="above-6" aria-labelledby="judging">
        <h2 id="judging">{heading}</h2>
        <ReviewSteps
          rubric={view.rubric}
          marks={marks}
          asks={asks}
          dots={dots}
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
        {between}
        {can && whole && (
          <Textarea
            className="above-4 measure"
            label="On the whole"
            description={whole}
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
              <b>That is all of it, and it is kept. {done}</b>
            )}
          </p>
        )}
      </section>
    </>
  );
}
