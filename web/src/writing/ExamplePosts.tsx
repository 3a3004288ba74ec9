import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { deleteJson, postJson } from '../api/client';
import { examplesOptions } from '../api/queries';
import type { AskedFor, PromptView } from '../api/schema';
import { useWrite } from '../api/write';
import { Reading } from '../reading/Reading';
import { Button } from '../ui/Button';
import { numberIn } from '../ui/LastingLink';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './ExamplePosts.module.css';

/** What an answer may look like: written with the prompt, and posts whose authors let them stand there. */
export function Examples({ prompt }: { prompt: PromptView }) {
  const { data } = useQuery(examplesOptions(prompt.id));
  const posts = data?.shown ?? [];
  if (!prompt.example && posts.length === 0) return null;
  return (
    <section className="above-5" aria-labelledby="examples">
      <h2 id="examples">{posts.length + (prompt.example ? 1 : 0) === 1 ? 'An example' : 'Examples'}</h2>
      {prompt.example && (
        <details className={css.example}>
          <summary className="points">Written with this prompt</summary>
          <Reading html={prompt.example} />
        </details>
      )}
      {posts.map((p) => (
        <details className={css.example} key={p.id}>
          <summary className="points">
            {p.title}
            {p.author && <span className="muted"> by {p.author}</span>}
          </summary>
          <Reading html={p.html} />
        </details>
      ))}
    </section>
  );
}

/** For whoever sets the prompt: which posts were asked for, and asking for one more. */
export function AskForExample({ prompt }: { prompt: PromptView }) {
  const { data } = useQuery(examplesOptions(prompt.id));
  const stale = [['examples', prompt.id]];
  const remove = useWrite((id: number) => deleteJson(`/api/examples/${id}`), { stale, here: true });
  return (
    <>
      <h2>Examples</h2>
      {data?.asked.map((e) => (
        <p className="tiny above-0 below-2" key={e.id}>
          <Link to={`/posts/${e.postId}`}>{e.title}</Link> by {e.author}: {answered(e)}{' '}
          <Word tiny onClick={() => remove.run(e.id)} aria-label={`Take out the example: ${e.title}`}>
            Take out
          </Word>
        </p>
      ))}
      <AskItsAuthor at={`/api/prompts/${prompt.id}/examples`} stale={stale} />
      <p className="tiny muted above-2 below-0">It is shown once its author agrees, with the name or without.</p>
      <Wrong says={remove.problem} />
    </>
  );
}

/** Asks the author of a post, by its link, for leave to use it. */
export function AskItsAuthor({ at, stale }: { at: string; stale: unknown[][] }) {
  const [link, setLink] = useState('');
  const [wrong, setWrong] = useState('');
  const ask = useWrite((postId: number) => postJson(at, { postId }), { stale, here: true, onDone: () => setLink('') });
  return (
    <>
      <form
        className={css.ask}
        onSubmit={(e) => {
          e.preventDefault();
          const id = numberIn(link);
          if (Number.isNaN(id)) return setWrong('Paste the lasting link of a post; it stands beside the post.');
          setWrong('');
          void ask.run(id);
        }}
      >
        <TextInput
          label="A post of this class, or of an earlier one of yours"
          placeholder="Paste its link"
          size="sm"
          value={link}
          error={wrong}
          onChange={(e) => setLink(e.target.value)}
        />
        <Button mid type="submit" disabled={!link.trim() || ask.busy}>
          Ask its author
        </Button>
      </form>
      <Wrong says={ask.problem} />
    </>
  );
}

function answered(e: AskedFor) {
  if (e.given === undefined) return 'asked, no answer yet.';
  if (!e.given) return 'its author would rather not.';
  if (!e.isUp) return 'agreed, but the post is not published now.';
  return e.named ? 'shown, with the name.' : 'shown, without the name.';
}
