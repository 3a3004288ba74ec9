import type { ReactNode } from 'react';
import type { Reference } from '../api/schema';
import css from '../ui/Entry.module.css';
import { ExcerptNote } from '../ui/ExcerptNote';
import { Reading } from './Reading';

interface PostArticleProps {
  /** The post whose files stand in the text. */
  postId?: number;
  title: string;
  html: string;
  tags: string[];
  category?: string;
  /** The list of works used, as the server has put it. */
  references?: Reference[];
  /** Of a gathered post, whether its feed carries only the beginning. */
  excerpt?: 'BEGINNING' | 'COMPLETED';
  /** The line above the title. */
  above?: ReactNode;
}

/** A post as readers get it; the preview while writing is this very part. The HTML is clean: the server's sanitiser made it. */
export function PostArticle({
  postId,
  title,
  html,
  tags,
  category,
  references = [],
  excerpt,
  above,
}: PostArticleProps) {
  return (
    <article>
      {above}
      <h1 className="text above-1">{title || 'Without a title'}</h1>
      <Reading html={html} postId={postId} />
      <ExcerptNote excerpt={excerpt} />
      {references.length > 0 && <References list={references} />}
      {(category || tags.length > 0) && (
        <p className="muted above-4">{[category, tags.join(', ')].filter(Boolean).join(' · ')}</p>
      )}
    </article>
  );
}

/** The reference list under a post. */
export function References({ list }: { list: Reference[] }) {
  return (
    <section aria-label="Sources" className="reading above-5 inside-3 ruled-above">
      <h2 className="smaller">Sources</h2>
      {list.map((r, i) => (
        <p className={css.reference} key={i}>
          {r.lead}
          <em>{r.title}</em>
          {r.tail}
          {r.address && (
            <>
              {' '}
              <a href={r.address} target="_blank" rel="noopener noreferrer nofollow">
                {r.address.replace(/^https?:\/\//, '')}
              </a>
            </>
          )}
        </p>
      ))}
    </section>
  );
}
