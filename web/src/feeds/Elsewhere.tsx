import { Modal, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { postJson } from '../api/client';
import type { BroughtIn, ElsewherePost, Elsewhere as Found } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { Button } from '../ui/Button';
import { When } from '../ui/When';
import css from './Elsewhere.module.css';

interface ElsewhereProps {
  /** The blog in which the post will stand. */
  blogId: number;
  prompt?: { id: number; title: string };
  onClose: () => void;
}

/** A post that its author wrote elsewhere: pasted by any address, looked at, brought in as a draft. */
export function Elsewhere({ blogId, prompt, onClose }: ElsewhereProps) {
  const { id } = useClass();
  const navigate = useNavigate();
  const [address, setAddress] = useState('');
  const [found, setFound] = useState<Found | null>(null);
  const look = useWrite(() => postJson<Found>(`/api/blogs/${blogId}/elsewhere/look`, { address }), {
    here: true,
    onDone: setFound,
  });
  const bringIn = useWrite(
    (post: ElsewherePost) =>
      postJson<BroughtIn>(`/api/blogs/${blogId}/elsewhere`, { address: post.address, promptId: prompt?.id }),
    { here: true, onDone: ({ postId }) => navigate(`/classes/${id}/write/${postId}`) },
  );
  const busy = look.busy || bringIn.busy;
  return (
    <Modal
      opened
      onClose={onClose}
      title={prompt ? `${prompt.title}: a post from elsewhere` : 'A post from elsewhere'}
      size="lg"
    >
      <p className="muted above-0">
        Did you write it on a blog outside the school? Paste the address of the post. It comes in as a draft; you look
        it through and hand it in.
      </p>
      <form
        className={css.ask}
        onSubmit={(e) => {
          e.preventDefault();
          look.run();
        }}
      >
        <TextInput
          className="grow"
          label="Address of your post"
          value={address}
          data-autofocus
          error={look.problem || bringIn.problem}
          placeholder="https://"
          onChange={(e) => {
            setAddress(e.target.value);
            setFound(null);
            look.forget();
            bringIn.forget();
          }}
        />
        <Button type="submit" disabled={busy || !address.trim()}>
          Look
        </Button>
      </form>
      <div aria-live="polite">
        {busy && !found && <p className="muted">Looking at the page…</p>}
        {found && <p className="above-4 below-1">{found.sentence}</p>}
        {found?.exact && <Line post={found.exact} onBring={() => bringIn.run(found.exact!)} busy={busy} main />}
        {found &&
          !found.exact &&
          found.posts.map((p) => <Line key={p.address} post={p} onBring={() => bringIn.run(p)} busy={busy} />)}
      </div>
    </Modal>
  );
}

function Line({
  post,
  onBring,
  busy,
  main,
}: {
  post: ElsewherePost;
  onBring: () => void;
  busy: boolean;
  main?: boolean;
}) {
  return (
    <article className={css.post}>
      <div>
        <h3>{post.title}</h3>
        <p>{post.firstLines}</p>
        {post.at && (
          <p className="tiny muted">
            <When at={post.at} />
          </p>
        )}
      </div>
      <button
        type="button"
        className={main ? 'btn go' : 'btn'}
        disabled={busy}
        onClick={onBring}
        aria-label={`Bring it in: ${post.title}`}
      >
        Bring it in
      </button>
    </article>
  );
}
