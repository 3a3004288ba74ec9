import type { ReactNode } from 'react';
import css from './Blog.module.css';
import './Look.css';

interface BlogHeadProps {
  title: string;
  intro: string;
  look: string;
  /** The address of the picture at the head. */
  header?: string;
  /** Who writes here. */
  by?: ReactNode;
}

/** The head of a blog in its look; the preview while one chooses is this very part. */
export function BlogHead({ title, intro, look, header, by }: BlogHeadProps) {
  return (
    <header className={css.head} data-look={look}>
      {header && <img src={header} alt="" />}
      <div className={css.words}>
        {by && <div className={css.by}>{by}</div>}
        <h1>{title || 'Without a title yet'}</h1>
        {intro && <p>{intro}</p>}
      </div>
    </header>
  );
}
