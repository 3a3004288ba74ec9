import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { feedbackOptions, notedOptions } from '../api/queries';
import type { CriterionOverTime, Feedback, JudgementOverTime } from '../api/schema';
import { Asides } from '../asides/Asides';
import { apartInWords, stepsApart } from '../reviews/apart';
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
        {data?.toSay.map((w) => (
          <p key={w.promptId} className="tell row wrap middle">
            <span className="grow">
              {w.marksWait ? (
                <>
                  <b>{w.prompt}</b> is marked. Say first how you see it yourself; then the marks show.
                </>
              ) : (
                <>
                  How do you see <b>{w.prompt}</b> yourself?
                </>
              )}
            </span>
            <Link className="word" to={`/classes/${id}/own-view/${w.promptId}`}>
              Say how you see it
            </Link>
          </p>
        ))}
        {data?.reviewed.map((r) => (
          <p key={r.promptId} className="above-2 below-0">
            {t.count(r.reviews, 'classmate has', 'classmates have')} reviewed your paper for <b>{r.prompt}</b>:{' '}
            <Link className="word" to={`/classes/${id}/reviews/of/${r.promptId}`}>
              what they say
            </Link>
          </p>
        ))}
        {data?.papers.length === 0 && (
          <p className="muted">
            Nothing here yet. When your teacher has marked your posts and shows you the scores, you find them here. Only
            you and the staff see them.
          </p>
        )}
        {data && data.papers.length > 1 && <OverTime lines={data.overTime} />}
        {data && data.judgement.length > 0 && <Judgement lines={data.judgement} />}
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

const NEARER: Record<JudgementOverTime['nearer'], string> = {
  UP: 'getting nearer to your teacher’s',
  DOWN: 'further apart than before',
  STEADY: 'about as near as before',
  TOO_FEW: '',
};

/** How the student's own steps compare with the marker's, criterion by criterion. */
function Judgement({ lines }: { lines: JudgementOverTime[] }) {
  return (
    <section className={css.overTime} aria-labelledby="judgement">
      <h2 id="judgement" className="smaller">
        Your own eye
      </h2>
      <p className="tiny muted above-1 below-0">
        Where you saw yourself: a dot on the line is the step your teacher gave, above it higher, below it lower.
      </p>
      <ul>
        {lines.map((line) => (
          <li key={line.criterion}>
            <span className={css.name}>{line.criterion}</span>
            <ApartLine line={line} />
            <span className="less muted">
              last: {stepsApart(line.judged[line.judged.length - 1].steps)}
              {NEARER[line.nearer] && (
                <>
                  : <b>{NEARER[line.nearer]}</b>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A dot for each paper, above or below a line by how many steps. */
function ApartLine({ line }: { line: JudgementOverTime }) {
  const most = Math.max(2, ...line.judged.map((j) => Math.abs(j.steps)));
  const at = line.judged.map((j, i) => ({
    ...j,
    x: 6 + ((WIDE - 12) * i) / Math.max(1, line.judged.length - 1),
    y: HIGH / 2 - ((HIGH / 2 - 6) * j.steps) / most,
  }));
  return (
    <svg
      width={WIDE}
      height={HIGH}
      role="img"
      aria-label={at.map((j) => `${j.prompt}: you saw it ${stepsApart(j.steps)}`).join('; ')}
    >
      <line x1="0" x2={WIDE} y1={HIGH / 2} y2={HIGH / 2} className={css.ground} />
      {at.map((j) => (
        <circle key={j.prompt} cx={j.x} cy={j.y} r="4" className={css.own}>
          <title>{`${j.prompt}: ${stepsApart(j.steps)}`}</title>
        </circle>
      ))}
    </svg>
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
      {f.own && (
        <p className="above-3 below-0 less">
          <span className={mark.dot} />{' '}
          {f.apart.some((a) => a.steps !== 0)
            ? `You saw yourself ${apartInWords(f.apart)}.`
            : 'You saw it just as your teacher did.'}
          {f.ownShare > 0 && ` Your own steps are ${f.ownShare} % of this score.`}
          {f.peersShare > 0 && ` What classmates gave is ${f.peersShare} % of it.`}
        </p>
      )}
      <div className={mark.stairs}>
        {f.rubric.criteria.map((c) => {
          const given = f.marks.find((m) => m.criterion === c.id);
          const own = f.own?.marks.find((m) => m.criterion === c.id);
          const next = f.next.find((n) => n.criterion === c.id);
          return (
            <div key={c.id} className={mark.stair}>
              <Steps
                criterion={c}
                mark={given}
                dots={own?.points === undefined ? [] : [{ who: 'you', points: own.points }]}
              />
              {given?.remark && <p className={mark.given}>{given.remark}</p>}
              {own?.remark && <p className={mark.evidence}>You: “{own.remark}”</p>}
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
