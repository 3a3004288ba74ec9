import { Link } from 'react-router';
import type { EntryView } from '../api/schema';
import { WhoWrote } from '../people/WhoWrote';
import { t } from '../texts/en';
import css from '../ui/Entry.module.css';
import { When } from '../ui/When';

/** The name of a blog beside its author's name: "Plot log" for "Plot log of Wren Castellane". */
const blogBeside = (blog: string, author: string) =>
  blog
    .split(author)
    .join('')
    .replace(/\s+(of|by|for)\s*$/, '')
    .trim() || blog;

interface EntryProps {
  entry: EntryView;
  classId: number;
  /** Whether it says who wrote it. @default true */
  withAuthor?: boolean;
  /** Whether it says in which blog it stands. @default true */
  withBlog?: boolean;
}

/** One post of the stream, to be read and not a card. */
export function Entry({ entry, classId, withAuthor = true, withBlog = true }: EntryProps) {
  const to = `/classes/${classId}/posts/${entry.id}`;
  return (
    <article className={`${css.entry} ${entry.unread ? css.unread : ''}`}>
      <div>
        <div className={css.who}>
          {withAuthor && <WhoWrote classId={classId} place={entry.place} name={entry.author} group={entry.group} />}
          {entry.source && <span className={css.out}>from {entry.source}</span>}
          {withAuthor ? ' · ' : ''}
          <When at={entry.publishedAt} />
          {entry.unread && <span className="away"> (not read)</span>}
        </div>
        <h2>
          <Link to={to}>{entry.title}</Link>
        </h2>
        <p className={css.lines}>{entry.firstLines}</p>
        <div className={css.foot}>
          {withBlog && (
            <Link to={`/classes/${classId}/blog/${entry.blogAddress}`}>{blogBeside(entry.blog, entry.author)}</Link>
          )}
          {entry.prompt && <span>{entry.prompt}</span>}
          {entry.tags.length > 0 && <span>{entry.tags.join(', ')}</span>}
          {entry.comments > 0 && (
            <span>
              {t.count(entry.comments, 'comment', 'comments')}
              {entry.lastCommenter ? `, the last from ${entry.lastCommenter}` : ''}
            </span>
          )}
          {!entry.answered && <span className={css.none}>Nobody has answered yet</span>}
        </div>
      </div>
      {entry.picture && (
        <Link to={to} tabIndex={-1} aria-hidden="true">
          <img className={css.picture} src={`${entry.picture}?small=true`} alt="" loading="lazy" />
        </Link>
      )}
    </article>
  );
}
