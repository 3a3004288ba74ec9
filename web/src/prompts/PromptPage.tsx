import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { postJson } from '../api/client';
import { dueOptions, porchPage, promptOptions, stripOptions, writableOptions } from '../api/queries';
import type { Begun, PromptView } from '../api/schema';
import { useWrite } from '../api/write';
import { FeedAddress } from '../reading/FeedAddress';
import { Reading } from '../reading/Reading';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { LastingLink } from '../ui/LastingLink';
import { StateBoard } from '../ui/StateBoard';
import { Steps } from '../ui/Steps';
import { Loading, Trouble } from '../ui/Trouble';
import { Due, say, When } from '../ui/When';
import { Wrong } from '../ui/Wrong';
import { AskForExample, Examples } from '../writing/ExamplePosts';
import { homeFor } from '../writing/homeFor';
import css from './Prompt.module.css';
import { Questions } from './Questions';

/** A prompt for everybody who may know it: what is asked, what came of it, and what was asked about it. */
export function PromptPage() {
  const { id, name, staff, role, manages } = useClass();
  const promptId = Number(useParams().promptId);
  const { data: prompt, error, refetch } = useQuery(promptOptions(promptId));
  if (error || !prompt)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page">
      <title>{`${prompt.title} · ${name}`}</title>
      <main>
        <div className={css.due}>
          {prompt.letOff ? (
            <StateBoard state="LET_OFF" withWord />
          ) : (
            <>
              <Due at={prompt.due} />
              {prompt.ownDate && ', a date of your own'}{' '}
              {prompt.points > 0 && ` · ${t.count(prompt.points, 'point', 'points')}`}
              {prompt.closes && (
                <>
                  {' '}
                  · closes <When at={prompt.closes} />
                </>
              )}
            </>
          )}
        </div>
        <h1>{prompt.title}</h1>
        <div className={css.instructions}>
          <Reading html={prompt.instructions} />
        </div>
        {prompt.questions.length > 0 && (
          <ul className={css.questions}>
            {prompt.questions.map((q) => (
              <li key={q}>{q}</li>
            ))}
          </ul>
        )}
        <p className="muted">{asksOf(prompt)}</p>
        <Examples prompt={prompt} />
        {prompt.answers.namesKept && (
          <p className="muted">
            Names are kept back{prompt.answers.namesKept.until && ` until ${say(prompt.answers.namesKept.until)}`}:
            classmates do not read who wrote an answer, or who commented on it. Teachers do.
          </p>
        )}
        {role === 'STUDENT' && <Begin classId={id} prompt={prompt} />}
        <Answers classId={id} promptId={promptId} />
        <Questions promptId={promptId} />
        {prompt.rubric && (
          <section className="above-6">
            <h2>How it is marked</h2>
            <div className={css.stairs}>
              {prompt.rubric.criteria.map((c) => (
                <div key={c.id}>
                  <Steps criterion={c} />
                  <dl className={css.means}>
                    {c.levels
                      .filter((l) => l.descriptor)
                      .map((l) => (
                        <div key={l.name}>
                          <dt>{l.name}</dt>
                          <dd>{l.descriptor}</dd>
                        </div>
                      ))}
                  </dl>
                </div>
              ))}
            </div>
          </section>
        )}
      </main>
      <aside className="sill">
        {staff && <Came classId={id} promptId={promptId} />}
        {manages && (
          <p className="above-0">
            <Link className="word" to={`/classes/${id}/prompts/${promptId}`}>
              Change it
            </Link>
          </p>
        )}
        {staff && prompt.reviews.peers && (
          <p className="above-0">
            <Link className="word" to={`/classes/${id}/reviews/round/${promptId}`}>
              Reviews by classmates
            </Link>
          </p>
        )}
        {manages && <AskForExample prompt={prompt} />}
        <h2>A lasting link</h2>
        <LastingLink path={`/classes/${id}/prompt/${promptId}`} />
        <h2>A feed of its answers</h2>
        <FeedAddress classId={id} filter={`prompt=${promptId}`} />
      </aside>
    </div>
  );
}

/** What a prompt asks for, in a sentence. */
function asksOf(p: PromptView) {
  const each = [
    p.asked.words > 0 && t.count(p.asked.words, 'word', 'words'),
    p.asked.pictures > 0 && t.count(p.asked.pictures, 'picture', 'pictures'),
    p.asked.tags > 0 && t.count(p.asked.tags, 'tag', 'tags'),
    p.asked.links > 0 && t.count(p.asked.links, 'link', 'links'),
    p.asked.sources > 0 && t.count(p.asked.sources, 'source', 'sources'),
    p.asked.category > 0 && 'a category',
  ].filter(Boolean);
  const { posts, byGroups } = p.answers;
  const asked = [
    posts > 0 &&
      `${t.count(posts, 'post', 'posts')}${byGroups ? ' of each group' : ''}${each.length > 0 ? ` with ${each.join(', ')}` : ''}`,
    p.asked.comments > 0 && `${t.count(p.asked.comments, 'comment', 'comments')} for others`,
  ].filter(Boolean);
  return `Asked for: ${asked.join('; ')}.`;
}

/** The way to write it, as long as the student owes something. */
function Begin({ classId, prompt }: { classId: number; prompt: PromptView }) {
  const navigate = useNavigate();
  const { data: due } = useQuery(dueOptions(classId));
  const { data: blogs } = useQuery(writableOptions(classId));
  const write = useWrite((blogId: number) => postJson<Begun>(`/api/blogs/${blogId}/posts`, { promptId: prompt.id }), {
    here: true,
    onDone: (begun) => navigate(`/classes/${classId}/write/${begun.id}`),
  });
  const owed = due?.find((d) => d.promptId === prompt.id);
  const home = blogs && homeFor(blogs, prompt.answers.into);
  if (!due || !blogs) return null;
  const own = (
    <>
      {prompt.reviews.self !== 'NOT_ASKED' && (
        <>
          <Link className="word" to={`/classes/${classId}/own-view/${prompt.id}`}>
            How do you see yours?
          </Link>{' '}
        </>
      )}
      {prompt.reviews.peers && (
        <Link className="word" to={`/classes/${classId}/reviews/of/${prompt.id}`}>
          What classmates say of yours
        </Link>
      )}{' '}
      {prompt.reviews.peers && (
        <Link className="word" to={`/classes/${classId}/reviews`}>
          What you review
        </Link>
      )}
    </>
  );
  if (!owed || (!owed.owesPosts && !owed.owesComments))
    return (
      <p className="tell">{prompt.letOff ? 'Nothing of this is asked of you.' : <>You owe nothing here. {own}</>}</p>
    );
  return (
    <p className="row wrap above-4">
      {owed.owesPosts && home && (
        <Button go onClick={() => write.run(home.id)} disabled={write.busy}>
          Write
        </Button>
      )}
      <span className="muted less">
        {owed.askedPosts > 1 && `${owed.posts} of ${owed.askedPosts} posts handed in. `}
        {owed.owesComments && `${owed.comments} of ${owed.askedComments} comments given.`}
        {owed.daysLate > 0 && ` Handed in now it is ${t.count(owed.daysLate, 'day', 'days')} late.`}
      </span>
      <Wrong says={write.problem} />
    </p>
  );
}

/** The answers that the reader may read, the newest first. */
function Answers({ classId, promptId }: { classId: number; promptId: number }) {
  const filter = { prompt: promptId, most: 8 };
  const { data } = useInfiniteQuery({
    queryKey: ['porch', classId, filter],
    queryFn: ({ signal }) => porchPage(classId, filter, undefined, signal),
    initialPageParam: undefined,
    getNextPageParam: () => undefined,
  });
  const porch = data?.pages[0];
  if (!porch) return null;
  return (
    <section className="above-6">
      <h2>{porch.total === 0 ? 'No answer that you can read yet' : t.count(porch.total, 'answer', 'answers')}</h2>
      <ul className={css.answers}>
        {porch.entries.map((p) => (
          <li key={p.id}>
            <Link to={`/classes/${classId}/posts/${p.id}`}>{p.title}</Link>{' '}
            <span className="muted tiny">{p.author}</span>
          </li>
        ))}
      </ul>
      {porch.total > porch.entries.length && (
        <Link className="word" to={`/classes/${classId}/porch?prompt=${promptId}`}>
          Read all of them
        </Link>
      )}
    </section>
  );
}

/** Who has handed in, for those who mark. */
function Came({ classId, promptId }: { classId: number; promptId: number }) {
  const { data: strip } = useQuery(stripOptions(promptId));
  if (!strip) return null;
  const open = strip.students.filter((s) => s.standing === 'NOT_HANDED_IN' || s.standing === 'MISSING');
  return (
    <>
      <h2>Handed in</h2>
      <p className="above-0">
        <b>
          {strip.handedIn} of {strip.students.length}
        </b>
        , {strip.marked} marked ·{' '}
        <Link className="word" to={`/classes/${classId}/mark/${promptId}`}>
          Mark
        </Link>
      </p>
      {open.length > 0 && (
        <details className="below-3">
          <summary className="tiny points">Nothing yet from {open.length}</summary>
          <p className="tiny">{open.map((s) => s.name).join(', ')}</p>
        </details>
      )}
    </>
  );
}
