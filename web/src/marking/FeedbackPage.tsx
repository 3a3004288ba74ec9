import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { feedbackOptions } from '../api/queries';
import type { Feedback } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Steps } from '../ui/Steps';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import css from './Mark.module.css';

/** A student's own scores, level by level. */
export function FeedbackPage() {
  const { id, name } = useClass();
  const { data, error, refetch } = useQuery(feedbackOptions(id));
  return (
    <div className="page plain">
      <title>{`Feedback · ${name}`}</title>
      <main>
        <h1>Feedback</h1>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading />}
        {data?.length === 0 && (
          <p className="muted">
            Nothing here yet. When your teacher has marked your posts and shows you the scores, you find them here. Only
            you and the staff see them.
          </p>
        )}
        {data?.map((f) => (
          <One key={f.promptId} feedback={f} classId={id} />
        ))}
      </main>
    </div>
  );
}

function One({ feedback: f, classId }: { feedback: Feedback; classId: number }) {
  return (
    <section className={css.feedback} aria-label={f.prompt}>
      <div className="row wrap wide">
        <div>
          <div className={css.who}>
            {f.prompt} · <When at={f.releasedAt} />
          </div>
          <h2>
            <Link to={`/classes/${classId}/posts/${f.postId}`}>{f.title}</Link>
          </h2>
        </div>
        <div className={`${css.sum} ${css.total}`}>
          <b>{f.score.points}</b>
          <span className={css.of}> of {f.score.outOf}</span>
          {f.daysLate > 0 && (
            <div className="tiny muted">
              {t.count(f.daysLate, 'day', 'days')} late: {f.score.before} before, − {f.score.percentLost} %
            </div>
          )}
        </div>
      </div>
      {f.word && (
        <p className={`${css.given} above-3 below-0`}>
          {f.word}
          <br />
          <span className="muted tiny">{f.marker}</span>
        </p>
      )}
      <div className={css.stairs}>
        {f.rubric.criteria.map((c, i) => {
          const mark = f.marks.find((m) => m.criterion === i);
          return (
            <div key={c.name} className={css.stair}>
              <Steps criterion={c} mark={mark} />
              {mark?.remark && <p className={css.given}>{mark.remark}</p>}
            </div>
          );
        })}
      </div>
    </section>
  );
}
