import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { postJson } from '../api/client';
import { dueOptions, ownPostsOptions, toReviewOptions, writableOptions } from '../api/queries';
import type { Begun, BlogView, DueLine } from '../api/schema';
import { useWrite } from '../api/write';
import { Elsewhere } from '../feeds/Elsewhere';
import { FeedAddress } from '../reading/FeedAddress';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { CleanHtml } from '../ui/CleanHtml';
import css from '../ui/Entry.module.css';
import { StateBoard } from '../ui/StateBoard';
import { Loading } from '../ui/Trouble';
import { Due, When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { homeFor } from './homeFor';

/** What to write: the prompts that are open, or something of one's own; drafts that were begun come first. */
export function ChoosePage() {
  const { id, name, role, manages } = useClass();
  const navigate = useNavigate();
  const { data: due } = useQuery(dueOptions(id));
  const { data: blogs } = useQuery(writableOptions(id));
  const { data: own } = useQuery(ownPostsOptions(id));
  // A lasting link to a prompt leads here, with the prompt at the top.
  const wanted = Number(useSearchParams()[0].get('prompt'));
  const write = useWrite(
    (of: { blogId: number; promptId?: number }) =>
      postJson<Begun>(`/api/blogs/${of.blogId}/posts`, { promptId: of.promptId }),
    { here: true, onDone: (begun) => navigate(`/classes/${id}/write/${begun.id}`) },
  );
  const [elsewhere, setElsewhere] = useState<{ blogId: number; prompt?: { id: number; title: string } } | null>(null);
  if (!due || !blogs || !own)
    return (
      <div className="page plain">
        <Loading />
      </div>
    );
  const home = homeFor(blogs);
  const begin = (blogId: number, promptId?: number) => write.run({ blogId, promptId });
  const drafts = own.filter((p) => p.state === 'DRAFT' || p.state === 'RETURNED');
  const lines = due.filter((d) => !drafts.some((p) => p.promptId === d.promptId) || d.owesComments);
  return (
    <div className="page plain">
      <title>{`Write · ${name}`}</title>
      <main>
        <h1>What will you write?</h1>
        <Wrong says={write.problem} />
        <ToReview classId={id} />
        {drafts.map((d) => (
          <article key={d.id} className={`${css.entry} inside-4 foot-4`}>
            <div>
              <div className={css.who}>
                <StateBoard state={d.state} withWord /> · {d.prompt ?? d.blog} · <When at={d.at} />
              </div>
              <h2>
                <Link to={`/classes/${id}/write/${d.id}`}>{d.title || 'Without a title yet'}</Link>
              </h2>
            </div>
          </article>
        ))}
        {home &&
          WHEN.map(([when, says]) => {
            const of = lines.filter((d) => (d.promptId === wanted ? 'WANTED' : d.when) === when);
            return (
              of.length > 0 && (
                <section key={when} aria-labelledby={`due-${when}`}>
                  <h2 id={`due-${when}`} className={css.heading}>
                    {says}
                  </h2>
                  {of.map((d) => (
                    <DuePrompt
                      key={d.promptId}
                      of={d}
                      classId={id}
                      begun={drafts.some((p) => p.promptId === d.promptId)}
                      into={d.into ? homeFor(blogs, d.into) : undefined}
                      onBegin={() => begin((homeFor(blogs, d.into) ?? home).id, d.promptId)}
                      onElsewhere={() =>
                        setElsewhere({
                          blogId: (homeFor(blogs, d.into) ?? home).id,
                          prompt: { id: d.promptId, title: d.title },
                        })
                      }
                    />
                  ))}
                </section>
              )
            );
          })}
        {blogs.length > 0 && (
          <section className="inside-5">
            <h2 className="smaller">Something of your own</h2>
            <p className="above-3 below-0">
              {blogs.map((b) => (
                <Button className="after-2 below-2" key={b.id} onClick={() => begin(b.id)}>
                  {b.title}
                </Button>
              ))}
            </p>
            {home && role === 'STUDENT' && (
              <p className="above-2 below-0">
                <Word onClick={() => setElsewhere({ blogId: home.id })}>Bring in a post from elsewhere</Word>
              </p>
            )}
          </section>
        )}
        {blogs.length === 0 && (
          <p className="muted">
            {role === 'STUDENT' ? (
              'There is no blog yet in which you can write. Your teacher makes them.'
            ) : manages ? (
              <>
                There is no blog here yet.{' '}
                <Link className="word" to={`/classes/${id}/blogs`}>
                  Make one
                </Link>
              </>
            ) : (
              'In this class you read and comment. Students and teachers write.'
            )}
          </p>
        )}
        {(role === 'STUDENT' || manages) && (
          <section className="above-5" aria-label="Calendar">
            <FeedAddress classId={id} filter="" due />
          </section>
        )}
      </main>
      {elsewhere && <Elsewhere {...elsewhere} onClose={() => setElsewhere(null)} />}
    </div>
  );
}

/** A prompt that was asked for by its lasting link stands before all others. */
const WHEN = [
  ['WANTED', 'You came for'],
  ['THIS_WEEK', 'This week'],
  ['LATE', 'Late, and still welcome'],
  ['LATER', 'Later'],
] as const;

/** That papers of classmates wait to be read. */
function ToReview({ classId }: { classId: number }) {
  const { data } = useQuery(toReviewOptions(classId));
  const open = data?.filter((r) => r.open) ?? [];
  if (open.length === 0) return null;
  const late = open.filter((r) => r.late).length;
  return (
    <p className="tell row wrap middle">
      <span className="grow">
        <b>{t.count(open.length, 'paper', 'papers')}</b> of classmates {open.length === 1 ? 'waits' : 'wait'} for your
        review
        {late > 0 ? <b className="warm">, {late} late</b> : <>, {<Due at={open[0].due} />}</>}.
      </span>
      <Link className="word" to={`/classes/${classId}/reviews`}>
        Read and review
      </Link>
    </p>
  );
}

interface DuePromptProps {
  of: DueLine;
  classId: number;
  /** Whether a draft for it lies above. */
  begun: boolean;
  /** The blog in which its answers are wanted, if that is one. */
  into?: BlogView;
  onBegin: () => void;
  onElsewhere: () => void;
}

function DuePrompt({ of: d, classId, begun, into, onBegin, onElsewhere }: DuePromptProps) {
  return (
    <article className={css.entry}>
      <div>
        <div className={css.who}>
          {d.letOff ? (
            <StateBoard state="LET_OFF" withWord />
          ) : (
            <>
              <Due at={d.due} />
              {d.ownDate && ', a date of your own'} {d.points > 0 && ` · ${t.count(d.points, 'point', 'points')}`}
              {d.closes && (
                <>
                  {' '}
                  · closes <When at={d.closes} />
                </>
              )}
            </>
          )}
        </div>
        <h2>
          <Link to={`/classes/${classId}/prompt/${d.promptId}`}>{d.title}</Link>
        </h2>
        {(d.owesPosts || (d.askedPosts === 0 && d.owesComments)) && (
          <CleanHtml className={css.lines} html={d.instructions} />
        )}
        {d.together.length > 0 && d.owesPosts && (
          <p className="less above-1 below-0">
            One for your group: {d.together.join(', ')} and you. Whoever hands it in does so for all.
          </p>
        )}
        {d.owesPosts && (into || d.namesKept) && (
          <p className="less above-1 below-0">
            {into && <>It goes into “{into.title}”. </>}
            {d.namesKept && (
              <>
                Classmates do not read your name on it
                {d.namesKept.until && (
                  <>
                    {' '}
                    until <When at={d.namesKept.until} />
                  </>
                )}
                ; your teachers do.
              </>
            )}
          </p>
        )}
        {d.letOff && <p className="muted less above-1 below-0">Nothing of this is asked of you.</p>}
        <p className="less above-1 below-0">
          {d.owesPosts && d.askedPosts > 1 && (
            <>
              {d.posts} of {d.askedPosts} posts handed in.{' '}
            </>
          )}
          {d.daysLate > 0 && (
            <b>
              Handed in now it is {t.count(d.daysLate, 'day', 'days')} late
              {d.percentLost > 0 && ` and loses ${d.percentLost} % of its score`}.{' '}
            </b>
          )}
          {d.owesComments && (
            <>
              {d.comments} of {t.count(d.askedComments, 'comment', 'comments')} given
              {d.commentsDue && (
                <>
                  , until <When at={d.commentsDue} />
                </>
              )}
              .{' '}
              {d.askedPosts > 0 && d.commentOn.length === 0 && (
                <Link className="word" to={`/classes/${classId}/porch?prompt=${d.promptId}&unanswered=yes`}>
                  Who waits for an answer
                </Link>
              )}
              {d.askedPosts === 0 && d.commentOn.length === 0 && (
                <Link className="word" to={`/classes/${classId}/porch?unanswered=yes`}>
                  Who waits for an answer
                </Link>
              )}
            </>
          )}
        </p>
        {d.owesComments && d.commentOn.length > 0 && (
          <ul className={css.named} aria-label="Posts to answer">
            {d.commentOn.map((p) => (
              <li key={p.id}>
                <Link className="word" to={`/classes/${classId}/posts/${p.id}`}>
                  {p.title}
                </Link>
              </li>
            ))}
          </ul>
        )}
      </div>
      {d.owesPosts && !begun && (
        <div className={css.begin}>
          <Button go onClick={onBegin} aria-label={`Write ${d.title}`}>
            Write
          </Button>
          <Word onClick={onElsewhere} aria-label={`I wrote it elsewhere: ${d.title}`}>
            I wrote it elsewhere
          </Word>
        </div>
      )}
    </article>
  );
}
