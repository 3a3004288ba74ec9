import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { deleteJson, getJson, postJson, putJson } from '../api/client';
import { warmUpPapersOptions } from '../api/queries';
import type { AskedFor, WarmUpPaper, WarmUpPapers } from '../api/schema';
import { useWrite } from '../api/write';
import { PromptText } from '../prompts/PromptText';
import { Judging } from '../reviews/Judging';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { AskItsAuthor } from '../writing/ExamplePosts';
import css from './Peers.module.css';

/** A teacher writes and marks papers by which classmates learn to judge. */
export function WarmUpPapersPage() {
  const { id, manages } = useClass();
  const promptId = Number(useParams().promptId);
  const { data, error, refetch } = useQuery(warmUpPapersOptions(promptId));
  const [writing, setWriting] = useState(false);
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page plain">
      <title>{`Warm-up papers · ${data.title}`}</title>
      <main>
        <p className="muted above-0 below-1">
          <Link to={`/classes/${id}/reviews/round/${promptId}`}>{data.title}, its round of reviews</Link>
        </p>
        <h1>Warm-up papers</h1>
        <p className="measure">
          Everybody who reviews for this prompt judges these first, and sees after each one what you gave and how near
          they came. A paper is theirs once it has a step on every stair; three are a good number.
        </p>
        {data.papers.map((paper, i) => (
          <Paper key={paper.id} paper={paper} no={i + 1} promptId={promptId} />
        ))}
        {manages &&
          (writing ? (
            <section className="above-6" aria-label="A new paper">
              <h2>A new paper</h2>
              <Text
                promptId={promptId}
                begin={{ title: '', html: '' }}
                verb="Add it, and mark it"
                onSend={(text) => postJson<WarmUpPapers>(`/api/prompts/${promptId}/warm-ups`, { rev: 0, ...text })}
                onClose={() => setWriting(false)}
              />
            </section>
          ) : (
            data.papers.length < data.most && (
              <div className={css.another}>
                <div>
                  <Button onClick={() => setWriting(true)}>
                    {data.papers.length === 0 ? 'Write the first one' : 'Write another one'}
                  </Button>
                </div>
                <section aria-label="A student’s post">
                  <AskItsAuthor at={`/api/prompts/${promptId}/warm-ups/asked`} stale={[['warm-up-papers', promptId]]} />
                  <p className="tiny muted above-2 below-0">
                    Its author is asked whether reviewers may warm up on it, without the name.
                  </p>
                </section>
              </div>
            )
          ))}
      </main>
    </div>
  );
}

function Paper({ paper, no, promptId }: { paper: WarmUpPaper; no: number; promptId: number }) {
  const { id, manages } = useClass();
  const all = warmUpPapersOptions(promptId).queryKey;
  const [open, setOpen] = useState(!paper.ready);
  const [changing, setChanging] = useState(false);
  const remove = useWrite(() => deleteJson<WarmUpPapers>(`/api/warm-ups/${paper.id}`), { here: true, fills: all });
  // Steps are kept one by one, each in the state that the one before left.
  const key = [...all, paper.id];
  const { data: view = { ...paper, posts: [] } } = useQuery({
    queryKey: key,
    queryFn: async ({ signal }) => {
      const fresh = await getJson<WarmUpPapers>(`/api/prompts/${promptId}/warm-ups`, signal);
      return { ...(fresh.papers.find((p) => p.id === paper.id) ?? paper), posts: [] };
    },
    initialData: { ...paper, posts: [] },
  });
  return (
    <section className="above-6" aria-labelledby={`paper-${paper.id}`}>
      <h2 id={`paper-${paper.id}`}>
        {no}. {paper.title}
      </h2>
      <p className="muted above-1">
        {[paper.asked && saidTo(paper.asked), paper.html !== '' && state(paper, view.own.finished)]
          .filter(Boolean)
          .join(' ')}{' '}
        {paper.asked && (
          <Link className="word after-3" to={`/posts/${paper.asked.postId}`}>
            The post
          </Link>
        )}
        {paper.html !== '' && (
          <Word
            aria-expanded={open}
            aria-label={`${open ? 'Fold it' : 'Open it'}: ${paper.title}`}
            onClick={() => setOpen(!open)}
          >
            {open ? 'Fold it' : 'Open it'}
          </Word>
        )}
        {manages && (
          <>
            {paper.tried === 0 && !paper.asked && (
              <Word
                className="before-3"
                aria-label={`Change the text: ${paper.title}`}
                onClick={() => setChanging(true)}
              >
                Change the text
              </Word>
            )}
            <Word
              className="before-3"
              aria-label={`Take out: ${paper.title}`}
              disabled={remove.busy}
              onClick={() => remove.run()}
            >
              Take out
            </Word>
          </>
        )}
      </p>
      <Wrong says={remove.problem} />
      {paper.tried > 0 && <Near paper={paper} />}
      {changing && (
        <Text
          promptId={promptId}
          begin={paper}
          verb="Keep the text"
          onSend={(text) => putJson<WarmUpPaper>(`/api/warm-ups/${paper.id}/text`, { rev: view.own.rev, ...text })}
          onClose={() => setChanging(false)}
        />
      )}
      {open && !changing && paper.html !== '' && (
        <Judging
          classId={id}
          view={{ ...view, posts: [{ title: paper.title, html: paper.html }] }}
          queryKey={key}
          at={`/api/warm-ups/${paper.id}/given`}
          stale={[]}
          can={manages}
          heading="What you give it"
          asks="Why this step? They read it afterwards."
          whole="What they can learn from this paper"
        />
      )}
    </section>
  );
}

function state(paper: WarmUpPaper, marked: boolean) {
  if (!marked) return 'Not given to anybody before every stair has a step.';
  return paper.tried === 0
    ? 'Marked. Nobody has judged it yet.'
    : `${t.count(paper.tried, 'student has', 'students have')} judged it.`;
}

function saidTo(asked: AskedFor) {
  if (asked.given === undefined) return `${asked.author} is asked, and has not answered yet.`;
  if (!asked.given) return `${asked.author} would rather not.`;
  return asked.isUp
    ? `${asked.author} gives it, without the name.`
    : `${asked.author} gave it, but the post is not published now.`;
}

/** Where the class lies beside the teacher's steps, by criterion. */
function Near({ paper }: { paper: WarmUpPaper }) {
  return (
    <table className="rows above-2 measure">
      <caption className="away">How the class judged it, by criterion</caption>
      <thead>
        <tr>
          <th>Beside your step</th>
          <th className="nums">Lower</th>
          <th className="nums">The same</th>
          <th className="nums">Higher</th>
        </tr>
      </thead>
      <tbody>
        {paper.near.map((n) => (
          <tr key={n.criterion}>
            <td>{n.criterion}</td>
            <td className="nums">{n.lower || ''}</td>
            <td className="nums">{n.same || ''}</td>
            <td className="nums">{n.higher || ''}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface TextProps {
  promptId: number;
  begin: { title: string; html: string };
  verb: string;
  onSend: (text: { title: string; html: string }) => Promise<unknown>;
  onClose: () => void;
}

function Text({ promptId, begin, verb, onSend, onClose }: TextProps) {
  const { id } = useClass();
  const [title, setTitle] = useState(begin.title);
  const [html, setHtml] = useState(begin.html);
  const send = useWrite(() => onSend({ title, html }), {
    here: true,
    stale: [['warm-up-papers', promptId]],
    onDone: onClose,
  });
  return (
    <div className="above-3 measure">
      <TextInput label="Title" value={title} maxLength={300} onChange={(e) => setTitle(e.target.value)} />
      <div className="above-3">
        <PromptText classId={id} html={html} label="The text of the paper" onChange={setHtml} />
      </div>
      <Wrong says={send.problem} />
      <p className="row wrap middle above-3">
        <Button go disabled={send.busy || !title.trim()} onClick={() => send.run()}>
          {verb}
        </Button>
        <Word onClick={onClose}>Leave it</Word>
      </p>
    </div>
  );
}
