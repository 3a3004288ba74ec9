import { useState } from 'react';
import { Link } from 'react-router';
import { deleteJson, putJson } from '../api/client';
import type { SilentPost, SilentStudent } from '../api/schema';
import { useWrite } from '../api/write';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './WhoAnswersWhom.module.css';

const AT_FIRST = 8;

/** Whose posts no classmate has answered; each can be put up for an answer. */
export function Silent({ students, classId }: { students: SilentStudent[]; classId: number }) {
  const [all, setAll] = useState(false);
  if (students.length === 0)
    return (
      <>
        <h2>Without an answer</h2>
        <p className="muted above-0">Every post of this time has an answer from a classmate.</p>
      </>
    );
  const never = students.filter((s) => s.neverAnswered).length;
  return (
    <>
      <h2>Without an answer</h2>
      <p className="tiny muted above-0 below-2">
        {never > 0 && `${never === 1 ? 'One student has' : `${never} students have`} had no answer at all. `}
        What you put up is offered to classmates first, until one of them answers. They see the post, never this list.
      </p>
      {(all ? students : students.slice(0, AT_FIRST)).map((s) => (
        <section key={s.place} className={css.silent} aria-label={s.name}>
          <p className="above-0 below-0">
            <Link className={css.whose} to={`/classes/${classId}/persons/${s.place}`}>
              {s.name}
            </Link>
            {s.neverAnswered && <span className="tiny warm"> never answered</span>}
          </p>
          {s.posts.map((p) => (
            <Post key={p.postId} post={p} classId={classId} />
          ))}
          {s.more > 0 && <p className="tiny muted above-0 below-0">and {s.more} before these</p>}
        </section>
      ))}
      {students.length > AT_FIRST && (
        <p className="above-2">
          <Word onClick={() => setAll(!all)}>{all ? 'Fewer' : `All ${students.length} students`}</Word>
        </p>
      )}
    </>
  );
}

function Post({ post: p, classId }: { post: SilentPost; classId: number }) {
  const at = `/api/posts/${p.postId}/answer-wanted`;
  const put = useWrite(() => (p.wanted ? deleteJson(at) : putJson(at)), {
    stale: [['who-answers-whom', classId]],
  });
  const title = p.title || 'Without a title';
  const words = p.wanted ? 'up for an answer; take it down' : 'put it up for an answer';
  return (
    <p className={css.post}>
      <Link className="word" to={`/classes/${classId}/posts/${p.postId}`}>
        {title}
      </Link>
      <span className="tiny muted">
        <When at={p.at} />
        {p.answerable ? (
          <>
            {' · '}
            <Word tiny disabled={put.busy} aria-label={`${title}: ${words}`} onClick={() => put.run()}>
              {words}
            </Word>
          </>
        ) : (
          ' · no classmate can comment on it'
        )}
      </span>
    </p>
  );
}
