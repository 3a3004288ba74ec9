import { Link } from 'react-router';
import type { Hit, Marked } from '../api/schema';
import { When } from '../ui/When';
import css from './Search.module.css';

const KINDS: Record<string, string> = { post: '', comment: 'comment on ', file: 'file in ' };

export function Snippet({ stretches }: { stretches: Marked[] }) {
  return <>{stretches.map((s, i) => (s.hit ? <mark key={i}>{s.text}</mark> : <span key={i}>{s.text}</span>))}</>;
}

/** One text that was found, with the words marked. */
export function HitLine({ hit, inClass, onOpen }: { hit: Hit; inClass: boolean; onOpen?: () => void }) {
  return (
    <article className={css.hit}>
      <h2>
        <Link to={`/classes/${hit.classId}/posts/${hit.postId}`} onClick={onOpen}>
          {KINDS[hit.kind] && <span className="muted">{KINDS[hit.kind]}</span>}
          {hit.title || 'Without a title'}
        </Link>
      </h2>
      <p className={css.snippet}>
        <Snippet stretches={hit.snippet} />
      </p>
      <p className="tiny muted above-0 below-0">
        {hit.author}
        {hit.source ? `, from ${hit.source}` : ''} · <When at={hit.at} />
        {inClass ? '' : ` · ${hit.className}`}
      </p>
    </article>
  );
}

/** Said while the server still takes texts in after a start. */
export const Incomplete = () => (
  <p className="muted tiny">
    The school has just been started, and the search is still reading. Some texts are not found yet.
  </p>
);
