import type { ReactNode } from 'react';

interface PostArticleProps {
  title: string;
  html: string;
  tags: string[];
  /** The line above the title. */
  above?: ReactNode;
}

/** A post as readers get it; the preview while writing is this very part. The HTML is clean: the server's sanitiser made it. */
export function PostArticle({ title, html, tags, above }: PostArticleProps) {
  return (
    <article>
      {above}
      <h1 style={{ fontSize: 31, marginTop: 4, overflowWrap: 'anywhere' }}>{title || 'Without a title'}</h1>
      <div className="reading" dangerouslySetInnerHTML={{ __html: html }} />
      {tags.length > 0 && <p className="muted" style={{ marginTop: 18 }}>{tags.join(', ')}</p>}
    </article>
  );
}
