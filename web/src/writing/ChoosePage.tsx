import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { postJson } from '../api/client';
import { ownPostsOptions, promptsOptions, writableOptions } from '../api/queries';
import type { Begun, PromptView } from '../api/schema';
import { useWrite } from '../api/write';
import { Elsewhere } from '../feeds/Elsewhere';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import css from '../ui/Entry.module.css';
import { StateBoard } from '../ui/StateBoard';
import { Loading } from '../ui/Trouble';
import { Due, When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

/** What to write: the prompts that are open, or something of one's own; drafts that were begun come first. */
export function ChoosePage() {
  const { id, name, role, manages } = useClass();
  const navigate = useNavigate();
  const { data: prompts } = useQuery(promptsOptions(id));
  const { data: blogs } = useQuery(writableOptions(id));
  const { data: own } = useQuery(ownPostsOptions(id));
  // A lasting link to a prompt leads here, with the prompt at the top.
  const wanted = Number(useSearchParams()[0].get('prompt'));
  const write = useWrite(
    (of: { blogId: number; promptId?: number }) =>
      postJson<Begun>(`/api/blogs/${of.blogId}/posts`, { promptId: of.promptId }),
    { here: true, onDone: (begun) => navigate(`/classes/${id}/write/${begun.id}`) },
  );
  const [elsewhere, setElsewhere] = useState<{ blogId: number; prompt?: PromptView } | null>(null);
  if (!prompts || !blogs || !own)
    return (
      <div className="page plain">
        <Loading />
      </div>
    );
  const home = blogs.find((b) => b.kind === 'ONE_EACH') ?? blogs.find((b) => b.kind === 'SHARED') ?? blogs[0];
  const begin = (blogId: number, promptId?: number) => write.run({ blogId, promptId });
  const drafts = own.filter((p) => p.state === 'DRAFT' || p.state === 'RETURNED');
  const answered = new Set(own.filter((p) => p.state !== 'DRAFT' && p.state !== 'BINNED').map((p) => p.promptId));
  const open =
    role === 'STUDENT'
      ? [...prompts]
          .filter((p) => !answered.has(p.id) && !p.letOff && !p.closed)
          .sort((a, b) => Number(b.id === wanted) - Number(a.id === wanted) || a.due.localeCompare(b.due))
      : [];
  return (
    <div className="page plain">
      <title>{`Write · ${name}`}</title>
      <main>
        <h1>What will you write?</h1>
        <Wrong says={write.problem} />
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
          open.map((p) => (
            <Prompt
              key={p.id}
              prompt={p}
              onBegin={() => begin(home.id, p.id)}
              onElsewhere={() => setElsewhere({ blogId: home.id, prompt: p })}
            />
          ))}
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
      </main>
      {elsewhere && <Elsewhere {...elsewhere} onClose={() => setElsewhere(null)} />}
    </div>
  );
}

function Prompt({
  prompt,
  onBegin,
  onElsewhere,
}: {
  prompt: PromptView;
  onBegin: () => void;
  onElsewhere: () => void;
}) {
  return (
    <article className={css.entry}>
      <div>
        <div className={css.who}>
          <Due at={prompt.due} />
          {prompt.ownDate ? ', a date of your own' : ''}
          {prompt.closes ? ', closes ' : ''}
          {prompt.closes && <When at={prompt.closes} />}
          {prompt.late ? ' · late now, and still welcome' : ''} · {t.count(prompt.points, 'point', 'points')}
        </div>
        <h2>{prompt.title}</h2>
        <p className={css.lines}>{prompt.instructions}</p>
      </div>
      <div className={css.begin}>
        <Button go onClick={onBegin} aria-label={`Write ${prompt.title}`}>
          Write
        </Button>
        <Word onClick={onElsewhere} aria-label={`I wrote it elsewhere: ${prompt.title}`}>
          I wrote it elsewhere
        </Word>
      </div>
    </article>
  );
}
