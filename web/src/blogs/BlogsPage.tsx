import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { blogsOptions } from '../api/queries';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Sightline } from '../ui/Sightline';
import { Loading, Trouble } from '../ui/Trouble';

/** The blogs of a class, each with who can read and write. */
export function BlogsPage() {
  const { id, name, manages } = useClass();
  const blogs = useQuery(blogsOptions(id));
  return (
    <div className="page plain">
      <title>{`Blogs · ${name}`}</title>
      <main>
        <div className="row">
          <h1>Blogs</h1>
          {manages && (
            <Link className="word push" to={`/classes/${id}/blogs/new`}>
              New blog
            </Link>
          )}
        </div>
        {blogs.isPending && <Loading />}
        {blogs.isError && <Trouble error={blogs.error} onRetry={() => blogs.refetch()} />}
        {blogs.data?.length === 0 && (
          <p className="muted">There is no blog yet. Make a shared one, or one for each student.</p>
        )}
        {blogs.data?.map((b) => (
          <section className="inside-4 foot-4 ruled" key={b.ref}>
            <div className="row wide">
              <h2>
                {b.blogs === 1 && b.ref.startsWith('b') && b.first ? (
                  <Link to={`/classes/${id}/blog/${b.first}`}>{b.title}</Link>
                ) : (
                  b.title.replace('{name}', 'each student')
                )}
              </h2>
              {manages && (
                <Link
                  className="word push"
                  to={`/classes/${id}/blogs/${b.ref}`}
                  aria-label={`Settings of ${b.title.replace('{name}', 'each student')}`}
                >
                  Settings
                </Link>
              )}
            </div>
            <p className="muted above-1 below-2 less">
              {t.kinds[b.kind]}
              {b.ref.startsWith('s') ? `, ${t.count(b.blogs, 'blog', 'blogs')} so far; who comes later gets one` : ''}
              {b.doors && <b className="warm"> · {t.doors[b.doors]}</b>}
            </p>
            <Sightline line={b.sightline} withWriters />
          </section>
        ))}
      </main>
    </div>
  );
}
