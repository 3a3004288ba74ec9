import { Modal } from '@mantine/core';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { deleteJson, postFile, postJson, putJson } from '../api/client';
import { blogPageOptions, classOptions, type PorchFilter, porchPage, railOptions, shelfOptions } from '../api/queries';
import type { Begun, EntryView, BlogPage as Page, TermView } from '../api/schema';
import { useWrite } from '../api/write';
import { NameMenu } from '../people/NameMenu';
import { Entry } from '../reading/Entry';
import { useClass } from '../session/useClass';
import { Subscribe } from '../subscriptions/Subscribe';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Chip } from '../ui/Chip';
import entryCss from '../ui/Entry.module.css';
import { LastingLink } from '../ui/LastingLink';
import { Sightline } from '../ui/Sightline';
import { TermRail } from '../ui/TermRail';
import { Loading, Trouble } from '../ui/Trouble';
import { chosenWeeks, termName, weekName, weeksParam } from '../ui/terms';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Blog.module.css';
import { BlogHead } from './BlogHead';
import { LookChoice } from './LookChoice';

const monthName = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric' });
const inWords = (month: string) => monthName.format(new Date(`${month}-15T12:00:00`));

/** One blog in its look: its head, what is pinned, its series, and its posts in the order that it is read in. */
export function BlogPage() {
  const { id, name } = useClass();
  const { address = '' } = useParams();
  const navigate = useNavigate();
  const page = useQuery(blogPageOptions(id, address));
  const current = page.data?.address;
  // An earlier address still leads here; the one in the bar becomes the one of now.
  useEffect(() => {
    if (current && current !== address)
      navigate(`/classes/${id}/blog/${current}${window.location.search}`, { replace: true });
  }, [current, address, id, navigate]);
  if (page.isError)
    return (
      <div className="page plain">
        <Trouble error={page.error} onRetry={() => page.refetch()} />
      </div>
    );
  if (!page.data)
    return (
      <div className="page">
        <Loading lines={8} />
      </div>
    );
  return (
    <>
      <title>{`${page.data.title} · ${name}`}</title>
      <Blog key={page.data.id} blog={page.data} classId={id} />
    </>
  );
}

const termParam = (term?: number): Record<string, string> => (term === undefined ? {} : { term: `${term}` });

function Blog({ blog, classId }: { blog: Page; classId: number }) {
  const [params, setParams] = useSearchParams();
  const { data: of } = useQuery(classOptions(classId));
  const { data: shelf } = useQuery(shelfOptions(blog.id));
  const { term, range: chosen, filter: ofWeeks } = chosenWeeks(of, params);
  const { data: rail } = useQuery(railOptions(classId, { blog: blog.id, term: ofWeeks.term }));
  const month = params.get('month') ?? undefined;
  const tag = params.get('tag') ?? undefined;
  const category = params.get('category') ? Number(params.get('category')) : undefined;
  const filter: PorchFilter = {
    blog: blog.id,
    ...ofWeeks,
    month,
    tag,
    category,
    oldestFirst: !blog.newestFirst,
    most: blog.perPage,
  };
  const posts = useInfiniteQuery({
    queryKey: ['porch', classId, filter],
    queryFn: ({ pageParam, signal }) => porchPage(classId, filter, pageParam, signal),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const whole = !chosen && ofWeeks.term === undefined && !month && !tag && !category;
  // What is pinned stands above, and not a second time below.
  const above = new Set(whole ? shelf?.pinned.map((e) => e.id) : []);
  const entries = (posts.data?.pages.flatMap((p) => p.entries) ?? []).filter((e) => !above.has(e.id));
  const choose = (next: Record<string, string>) => setParams(next);
  const about = posts.data?.pages[0];
  const chosenWords = month
    ? inWords(month)
    : tag
      ? `Tagged ${about?.tags.find((g) => g.key === tag)?.label ?? tag}`
      : category
        ? (about?.categories.find((c) => c.key === String(category))?.label ?? 'The chosen category')
        : !chosen && of
          ? termName(of.terms[term])
          : 'The chosen weeks';
  return (
    <>
      {of && rail && (
        <TermRail
          terms={of.terms}
          term={term}
          rail={rail}
          chosen={chosen}
          onChoose={(range) => choose({ ...termParam(ofWeeks.term), ...(range ? { weeks: weeksParam(range)! } : {}) })}
          onTerm={(chosen) => choose(termParam(chosen))}
        />
      )}
      <div className="page">
        <main data-look={blog.look}>
          <BlogHead
            title={blog.title}
            intro={blog.intro}
            look={blog.look}
            header={blog.header}
            by={
              blog.owner && blog.ownerPlace ? (
                <NameMenu classId={classId} place={blog.ownerPlace} name={blog.owner}>
                  <Link to={`/classes/${classId}/persons/${blog.ownerPlace}`}>{blog.owner}</Link>
                </NameMenu>
              ) : undefined
            }
          />
          {blog.doors && (
            <p className="tell above-4 below-0">
              {blog.doors === 'CLOSED'
                ? 'This blog is closed. Only its staff and authors still see it.'
                : 'This blog is not open yet. Only its staff and authors see it.'}
            </p>
          )}
          {whole && shelf && shelf.pinned.length > 0 && (
            <section className={css.pinned} aria-label="Pinned">
              <span className="muted tiny">Pinned</span>
              {shelf.pinned.map((e) => (
                <Entry key={e.id} entry={e} classId={classId} withAuthor={!blog.owner} withBlog={false} />
              ))}
            </section>
          )}
          {whole &&
            shelf?.series.map((s) => (
              <section key={s.name}>
                <h2 className={css.section}>
                  {s.name} <small>{t.count(s.parts.length, 'part', 'parts')}, to be read in order</small>
                </h2>
                <ol className={css.parts}>
                  {s.parts.map((p) => (
                    <li key={p.postId}>
                      <b>Part {p.part}</b>
                      <Link className="word" to={`/classes/${classId}/posts/${p.postId}`}>
                        {p.title}
                      </Link>
                    </li>
                  ))}
                </ol>
              </section>
            ))}
          {!whole && (
            <p className={`${entryCss.head} above-5 below-0`}>
              <span className="muted">
                {chosenWords}, {t.count(about?.total ?? 0, 'post', 'posts')}
              </span>
              <Word className="push" onClick={() => choose({})}>
                Show everything
              </Word>
            </p>
          )}
          {posts.isPending && <Loading lines={6} />}
          {posts.isError && <Trouble error={posts.error} onRetry={() => posts.refetch()} />}
          <Grouped
            entries={entries}
            by={blog.grouping}
            terms={of?.terms ?? []}
            classId={classId}
            withAuthor={!blog.owner}
          />
          {posts.data && entries.length === 0 && above.size === 0 && (
            <p className="muted inside-5 foot-5">
              {whole ? 'Nothing is published here yet.' : 'Nothing here fits what you chose.'}
            </p>
          )}
          {posts.hasNextPage && (
            <p>
              <Button onClick={() => posts.fetchNextPage()} disabled={posts.isFetchingNextPage}>
                {blog.newestFirst ? 'Earlier posts' : 'Later posts'}
              </Button>
            </p>
          )}
        </main>
        <aside className="sill" aria-label="About this blog">
          <Acts blog={blog} classId={classId} />
          <h2>Who can read it</h2>
          <Sightline line={blog.sightline} withWriters />
          {about && about.tags.length + about.categories.length > 0 && (
            <>
              <h2>About</h2>
              <div className={css.months}>
                {about.tags.slice(0, 10).map((g) => (
                  <Chip
                    key={g.key}
                    aria-pressed={tag === g.key}
                    onClick={() => choose(tag === g.key ? {} : { tag: g.key })}
                  >
                    {g.label} {g.count}
                  </Chip>
                ))}
                {about.categories.map((c) => (
                  <Chip
                    key={c.key}
                    aria-pressed={String(category) === c.key}
                    onClick={() => choose(String(category) === c.key ? {} : { category: c.key })}
                  >
                    {c.label} {c.count}
                  </Chip>
                ))}
              </div>
            </>
          )}
          {rail && rail.months.length > 0 && (
            <>
              <h2>By month</h2>
              <div className={css.months}>
                {rail.months.map((m) => (
                  <Chip
                    key={m.month}
                    aria-pressed={month === m.month}
                    onClick={() => choose(month === m.month ? {} : { month: m.month })}
                  >
                    {inWords(m.month)} {m.count}
                  </Chip>
                ))}
              </div>
            </>
          )}
          <h2>A lasting link</h2>
          <LastingLink path={`/classes/${classId}/blog/${blog.address}`} />
        </aside>
      </div>
    </>
  );
}

/** The posts under the headings that the blog asks for. */
function Grouped({
  entries,
  by,
  terms,
  classId,
  withAuthor,
}: {
  entries: EntryView[];
  by: string;
  terms: TermView[];
  classId: number;
  withAuthor: boolean;
}) {
  const headingOf = (e: EntryView): string => {
    if (by === 'MONTH') return inWords(e.publishedAt.slice(0, 7));
    return weekName(terms, e.publishedAt) ?? 'Outside the term';
  };
  return (
    <>
      {entries.map((e, i) => (
        <div key={e.id}>
          {by !== 'NONE' && (i === 0 || headingOf(entries[i - 1]) !== headingOf(e)) && (
            <h2 className={css.section}>{headingOf(e)}</h2>
          )}
          <Entry entry={e} classId={classId} withAuthor={withAuthor} withBlog={false} />
        </div>
      ))}
    </>
  );
}

function Acts({ blog, classId }: { blog: Page; classId: number }) {
  const navigate = useNavigate();
  const [choosing, setChoosing] = useState(false);
  const [look, setLook] = useState(blog.look);
  const begin = useWrite(() => postJson<Begun>(`/api/blogs/${blog.id}/posts`, {}), {
    onDone: ({ id }) => navigate(`/classes/${classId}/write/${id}`),
  });
  const act = useWrite((call: () => Promise<unknown>) => call(), { stale: [['blog', classId]], here: true });
  const use = useWrite(() => putJson(`/api/blogs/${blog.id}/look`, { look }), {
    stale: [['blog', classId]],
    here: true,
    onDone: () => setChoosing(false),
  });
  const upload = (file?: File) => {
    if (file) act.run(() => postFile(`/api/blogs/${blog.id}/header`, file));
  };
  return (
    <>
      {blog.mayWrite && (
        <Button className="full below-3" go mid onClick={() => begin.run()}>
          Write here
        </Button>
      )}
      {blog.mayLook && (
        <Button className="full below-3" mid onClick={() => setChoosing(true)}>
          Choose its look
        </Button>
      )}
      <Subscribe
        classId={classId}
        kind="BLOG"
        target={blog.id}
        to={`/classes/${classId}/blog/${blog.address}`}
        label="Subscribe to this blog"
      />
      {blog.manages && (
        <p className="above-0 below-4">
          <Link className="word" to={`/classes/${classId}/blogs/b${blog.id}`}>
            Settings of this blog
          </Link>
        </p>
      )}
      <Modal opened={choosing} onClose={() => setChoosing(false)} title="Its look" size="lg">
        <div className="below-4" data-look={look}>
          <BlogHead title={blog.title} intro={blog.intro} look={look} header={blog.header} by={blog.owner} />
        </div>
        {blog.wantedHeader && (
          <div className={css.wanted} role="status">
            <img src={blog.wantedHeader.address} alt="What was chosen for the head" />
            <p>
              {blog.wantedHeader.state === 'RETURNED' ? (
                <>Your teacher looked at this picture and wrote: “{blog.wantedHeader.note}” Choose another one.</>
              ) : (
                'A teacher looks at this picture first. Readers see it at the head of the blog after that.'
              )}
            </p>
          </div>
        )}
        <LookChoice value={look} onChange={setLook} />
        <p className="row middle wrap wide above-4 below-0">
          <label className="btn">
            Picture at the head
            <input type="file" accept="image/*" hidden onChange={(e) => upload(e.target.files?.[0])} />
          </label>
          {blog.header && (
            <Word onClick={() => act.run(() => deleteJson(`/api/blogs/${blog.id}/header`))}>Without a picture</Word>
          )}
          <Button className="push" go onClick={() => use.run()}>
            Use this look
          </Button>
        </p>
        <Wrong says={use.problem || act.problem} />
      </Modal>
    </>
  );
}
