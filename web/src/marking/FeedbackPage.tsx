import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { feedbackOptions, notedOptions } from '../api/queries';
import type { CriterionOverTime, Feedback } from '../api/schema';
import { Asides } from '../asides/Asides';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Steps } from '../ui/Steps';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './Feedback.module.css';
import mark from './Mark.module.css';
import { NotedText } from './NotedText';
import { Recordings } from './Recordings';

/** A student's own scores, level by level, and where they go. */
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
        {data?.papers.length === 0 && (
          <p className="muted">
            Nothing here yet. When your teacher has marked your posts and shows you the scores, you find them here. Only
            you and the staff see them.
          </p>
        )}
        {data && data.papers.length > 1 && <OverTime lines={data.overTime} />}
        {data?.papers.map((f) => (
          <One key={f.promptId} feedback={f} classId={id} student={data.studentId} />
        ))}
      </main>
    </div>
  );
}

const WORDS: Record<CriterionOverTime['trend'], string> = {
  UP: 'going up',
  DOWN: 'going down',
  STEADY: 'about the same',
  TOO_FEW: '',
};

/** Each criterion as a line over the prompts, and the same in words. */
function OverTime({ lines }: { lines: CriterionOverTime[] }) {
  return (
    <section className={css.overTime} aria-labelledby="over-time">
      <h2 id="over-time" className="smaller">
        Over time
      </h2>
      <ul>
        {lines.map((line) => (
          <li key={line.criterion}>
            <span className={css.name}>{line.criterion}</span>
            <Line line={line} />
            <span className="less muted">
              {line.reached
                .slice(-6)
                .map((r) => r.level)
                .join(', ')}
              {WORDS[line.trend] && (
                <>
                  : <b>{WORDS[line.trend]}</b>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const WIDE = 132;
const HIGH = 34;

function Line({ line }: { line: CriterionOverTime }) {
  const at = line.reached.map((r, i) => ({
    ...r,
    x: 5 + ((WIDE - 10) * i) / Math.max(1, line.reached.length - 1),
    y: HIGH - 5 - ((HIGH - 10) * r.points) / r.highest,
  }));
  return (
    <svg
      width={WIDE}
      height={HIGH}
      role="img"
      aria-label={at.map((p) => `${p.prompt}: ${p.level}, ${p.points} of ${p.highest}`).join('; ')}
    >
      <line x1="0" x2={WIDE} y1={HIGH - 1} y2={HIGH - 1} className={css.ground} />
      <polyline points={at.map((p) => `${p.x},${p.y}`).join(' ')} className={css.line} />
      {at.map((p) => (
        <circle key={p.prompt} cx={p.x} cy={p.y} r="3.2" className={css.dot}>
          <title>{`${p.prompt}: ${p.level}, ${p.points} of ${p.highest}`}</title>
        </circle>
      ))}
    </svg>
  );
}

/** A post as it was marked, with what was written beside its words. */
function Noted({ prompt, post }: { prompt: number; post: number }) {
  const { data, error, refetch } = useQuery(notedOptions(prompt, post));
  if (error) return <Trouble error={error} onRetry={() => refetch()} />;
  if (!data) return <Loading />;
  return (
    <div className={css.noted}>
      <NotedText html={data.html} postId={post} notes={data.notes} />
    </div>
  );
}

interface OneProps {
  feedback: Feedback;
  classId: number;
  student: number;
}

function One({ feedback: f, classId, student }: OneProps) {
  const [open, setOpen] = useState<number | null>(null);
  const [answering, setAnswering] = useState(false);
  return (
    <section className={mark.feedback} aria-label={f.prompt}>
      <div className="row wrap wide">
        <div>
          <div className={mark.who}>
            {f.prompt} · <When at={f.releasedAt} />
          </div>
          {f.posts.map((post) => (
            <div key={post.postId}>
              <h2>
                <Link to={`/classes/${classId}/posts/${post.postId}`}>{post.title}</Link>
              </h2>
              {post.notes > 0 && (
                <Word
                  tiny
                  aria-expanded={open === post.postId}
                  onClick={() => setOpen(open === post.postId ? null : post.postId)}
                >
                  {t.count(post.notes, 'note', 'notes')} beside your words
                </Word>
              )}
            </div>
          ))}
        </div>
        <div className={`${mark.sum} ${mark.total}`}>
          <b>{f.score.points}</b>
          <span className={mark.of}> of {f.score.outOf}</span>
          {f.daysLate > 0 && (
            <div className="tiny muted">
              {t.count(f.daysLate, 'day', 'days')} late: {f.score.before} before, − {f.score.percentLost} %
            </div>
          )}
        </div>
      </div>
      {open !== null && <Noted prompt={f.promptId} post={open} />}
      {f.again && (
        <p className="tell">
          You may hand this in again. Open the post, change it, and hand it in; it counts in place of what was there.
        </p>
      )}
      {f.changed && (
        <p className="tell">
          This score changed <When at={f.changed.at} />: {f.changed.reason}
        </p>
      )}
      {f.word && (
        <p className={`${mark.given} above-3 below-0`}>
          {f.word}
          <br />
          <span className="muted tiny">{f.marker}</span>
        </p>
      )}
      <Recordings recordings={f.recordings} />
      <div className={mark.stairs}>
        {f.rubric.criteria.map((c) => {
          const given = f.marks.find((m) => m.criterion === c.id);
          const next = f.next.find((n) => n.criterion === c.id);
          return (
            <div key={c.id} className={mark.stair}>
              <Steps criterion={c} mark={given} />
              {given?.remark && <p className={mark.given}>{given.remark}</p>}
              {next?.descriptor && (
                <p className={css.next}>
                  <b>To try next:</b> {next.descriptor}
                </p>
              )}
            </div>
          );
        })}
      </div>
      {f.words > 0 || answering ? (
        <div className="above-4 measure">
          <Asides
            at={`/api/prompts/${f.promptId}/marking/${student}/words`}
            heading="Between you and the staff"
            label="Say something to whoever marked this"
            verb="Send it"
          />
        </div>
      ) : (
        <p className="above-4 below-0">
          <Word onClick={() => setAnswering(true)}>Answer</Word>
        </p>
      )}
    </section>
  );
}
