import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { toAnswerOptions } from '../api/queries';
import { When } from '../ui/When';

/** Which posts of classmates wait for an answer, in the order in which this student is offered them. */
export function ToAnswer({ classId }: { classId: number }) {
  const { data } = useQuery(toAnswerOptions(classId));
  if (!data || data.count === 0) return null;
  return (
    <section className="tell above-4 below-2" aria-label="Without an answer">
      <p className="above-0 below-1">
        {data.count === 1
          ? 'One post of a classmate has no answer yet.'
          : `${data.count} posts of classmates have no answer yet.`}
      </p>
      {data.posts.map((e) => (
        <p className="above-0 below-1" key={e.id}>
          <Link className="word" to={`/classes/${classId}/posts/${e.id}`}>
            {e.title || 'Without a title'}
          </Link>
          <span className="muted tiny">
            {' '}
            · {e.author} · <When at={e.publishedAt} />
          </span>
        </p>
      ))}
    </section>
  );
}
