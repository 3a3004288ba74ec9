import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { postJson } from '../api/client';
import { directoryOptions } from '../api/queries';
import type { DirectoryLine, OpmlText } from '../api/schema';
import { useWrite } from '../api/write';
import { OutsideDirectory } from '../feeds/OutsideDirectory';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Loading, Trouble } from '../ui/Trouble';
import { takeAlong } from '../ui/takeAlong';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './Blog.module.css';
import './Look.css';

/** The blogs of a class that the reader may open, the one written in last first. */
export function DirectoryPage() {
  const { id, name, manages } = useClass();
  const blogs = useQuery(directoryOptions(id));
  const [params, setParams] = useSearchParams();
  const wanted = params.get('find') ?? '';
  const take = useWrite(() => postJson<OpmlText>(`/api/classes/${id}/blogs/opml`), {
    onDone: ({ text }) => takeAlong('blogs.opml', text),
  });
  const shown = (blogs.data ?? []).filter((b) =>
    `${b.title} ${b.owner ?? ''} ${t.kinds[b.kind]}`.toLowerCase().includes(wanted.toLowerCase()),
  );
  return (
    <div className="page plain">
      <title>{`Blogs · ${name}`}</title>
      <main>
        <h1>Blogs of {name}</h1>
        <TextInput
          className="measure-s"
          aria-label="Find by title or name"
          placeholder="Find by title or name"
          value={wanted}
          mt="md"
          onChange={(e) => setParams(e.target.value ? { find: e.target.value } : {}, { replace: true })}
        />
        {blogs.isPending && <Loading lines={8} />}
        {blogs.isError && <Trouble error={blogs.error} onRetry={() => blogs.refetch()} />}
        {blogs.data?.length === 0 && <p className="muted">There is no blog yet that you can open.</p>}
        {blogs.data && blogs.data.length > 0 && shown.length === 0 && <p className="muted">No blog fits “{wanted}”.</p>}
        <div className="above-3">
          {shown.map((b) => (
            <Line key={b.id} blog={b} classId={id} />
          ))}
        </div>
        <OutsideDirectory classId={id} wanted={wanted} manages={manages} />
        {shown.length > 0 && (
          <p className="above-5 below-0">
            <Word tiny onClick={() => take.run()}>
              Take all of them along for my feed reader (OPML)
            </Word>
          </p>
        )}
      </main>
    </div>
  );
}

function Line({ blog, classId }: { blog: DirectoryLine; classId: number }) {
  return (
    <div className={css.line} data-look={blog.look}>
      <Link className={css.title} to={`/classes/${classId}/blog/${blog.address}`}>
        {blog.title}
      </Link>
      <span className="muted tiny">
        {blog.posts === 0 ? (
          'nothing published yet'
        ) : (
          <>
            {t.count(blog.posts, 'post', 'posts')}, {t.count(blog.comments, 'comment', 'comments')} · written in{' '}
            <When at={blog.newest!} />
          </>
        )}
        {' · '}
        <FeedOfBlog classId={classId} blog={blog.id} title={blog.title} />
        {' · '}
        {blog.kind === 'ONE_EACH' ? 'own blog' : t.kinds[blog.kind]} ·{' '}
        {t.whoReads({ people: blog.readers, strangers: blog.strangers })} can read it
      </span>
    </div>
  );
}

/** The reader's own feed address of a blog, copied at a press: it gives just what this reader may read. */
function FeedOfBlog({ classId, blog, title }: { classId: number; blog: number; title: string }) {
  const [said, setSaid] = useState('Feed address');
  const copy = async () => {
    try {
      const { path } = await postJson<{ path: string }>(`/api/classes/${classId}/feed-key`);
      await navigator.clipboard.writeText(`${location.origin}${path.replace(/\.rss$/, `/blogs/${blog}.rss`)}`);
      setSaid('Copied');
    } catch {
      setSaid('It could not be copied');
    }
  };
  return (
    <Word tiny onClick={copy} aria-label={`${said}: ${title}`}>
      {said}
    </Word>
  );
}
