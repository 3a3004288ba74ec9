import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { withParams } from '../api/client';
import { classOptions, newsOptions, type PorchFilter, porchPage, railOptions } from '../api/queries';
import { WordWaits } from '../asides/WordsToMe';
import { Owed } from '../comments/Given';
import { ReportWaits } from '../reports/OwnReports';
import { useClass } from '../session/useClass';
import { MailOffer } from '../subscriptions/MailOffer';
import { Subscribe } from '../subscriptions/Subscribe';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import css from '../ui/Entry.module.css';
import { TermRail } from '../ui/TermRail';
import { Loading, Trouble } from '../ui/Trouble';
import { chosenWeeks, termName, weeksParam } from '../ui/terms';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Entry } from './Entry';
import { FeedAddress } from './FeedAddress';
import { PorchFilters, SPANS, type Span } from './PorchFilters';
import { ToAnswer } from './ToAnswer';

const FILTERS = [
  'term',
  'weeks',
  'group',
  'prompt',
  'tag',
  'unanswered',
  'category',
  'source',
  'span',
  'announcements',
  'person',
];

/** The Porch: everything published in the class, one stream; every filter stands in the address. */
export function PorchPage() {
  const { id, name, role } = useClass();
  const [params, setParams] = useSearchParams();
  const [sill, setSill] = useState(false);
  const { data: of } = useQuery(classOptions(id));
  const { data: news } = useQuery(newsOptions(id));
  const { term, weeks, range: chosen, filter: ofWeeks } = chosenWeeks(of, params);
  const { data: rail } = useQuery(railOptions(id, { term: ofWeeks.term }));
  const number = (key: string) => (params.get(key) ? Number(params.get(key)) : undefined);
  const filter: PorchFilter = {
    ...ofWeeks,
    group: number('group'),
    prompt: number('prompt'),
    tag: params.get('tag') ?? undefined,
    unanswered: params.has('unanswered'),
    category: number('category'),
    source: number('source'),
    span: (params.get('span') as Span | null) ?? undefined,
    announcements: params.has('announcements'),
    place: number('person'),
  };
  const porch = useInfiniteQuery({
    queryKey: ['porch', id, filter],
    queryFn: ({ pageParam, signal }) => porchPage(id, filter, pageParam, signal),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const set = (key: string, value?: string) =>
    setParams((before) => {
      const next = new URLSearchParams(before);
      // A range of weeks and a span of days, a group and a person would only get in each other's way.
      if (key === 'weeks' || key === 'term') next.delete('span');
      if (key === 'span' || key === 'term') next.delete('weeks');
      if (key === 'span') next.delete('term');
      if (key === 'group') next.delete('person');
      if (key === 'person') next.delete('group');
      if (value === undefined) next.delete(key);
      else next.set(key, value);
      return next;
    });
  const first = porch.data?.pages[0];
  const entries = porch.data?.pages.flatMap((p) => p.entries) ?? [];
  const isFiltered = FILTERS.some((f) => params.has(f));
  const heading =
    chosen && of
      ? weeksInWords(weeks[chosen[0]]?.number, weeks[chosen[1]]?.number)
      : filter.span
        ? `${SPANS[filter.span].charAt(0).toUpperCase()}${SPANS[filter.span].slice(1)}`
        : of && of.terms.length > 1
          ? ofWeeks.term === undefined
            ? 'Everything'
            : termName(of.terms[term])
          : 'The whole term';

  return (
    <>
      <title>{`Porch · ${name}`}</title>
      {of && rail && (
        <TermRail
          terms={of.terms}
          term={term}
          rail={rail}
          chosen={chosen}
          onChoose={(range) => set('weeks', weeksParam(range))}
          onTerm={(chosen) => set('term', `${chosen}`)}
        />
      )}
      <div className="page">
        <main>
          <div className={css.head}>
            <h1>{filter.announcements ? 'Announcements' : heading}</h1>
            {first && (
              <span className="muted">
                {t.count(first.total, 'post', 'posts')}
                {first.unread > 0 ? `, ${first.unread} you have not read` : ''}
              </span>
            )}
            {isFiltered && (
              <Word className="push" onClick={() => setParams({})}>
                Show everything
              </Word>
            )}
            <Word className={css.fold} aria-expanded={sill} onClick={() => setSill(!sill)}>
              {sill ? 'Close' : 'Filter'}
            </Word>
          </div>
          {first && first.answerFirst.length > 0 && (
            <p className="tell above-4 below-0">
              Others' answers to {first.answerFirst.join(', ')} show here once your own is published.
            </p>
          )}
          {!isFiltered && <MailOffer classId={id} />}
          {role === 'STUDENT' && !isFiltered && <WordWaits classId={id} />}
          {role === 'STUDENT' && !isFiltered && <ReportWaits classId={id} />}
          {role === 'STUDENT' && !isFiltered && <Owed />}
          {role === 'STUDENT' && !isFiltered && <ToAnswer classId={id} />}
          {porch.isError && <Trouble error={porch.error} onRetry={() => porch.refetch()} />}
          {porch.isPending && <Loading lines={8} />}
          {first && !isFiltered && first.announcements > 0 && (
            <Announcements classId={id} count={first.announcements} onAll={() => set('announcements', 'yes')} />
          )}
          {entries.map((e) => (
            <Entry key={e.id} entry={e} classId={id} />
          ))}
          {first && entries.length === 0 && (
            <p className="muted inside-5 foot-5">
              {isFiltered
                ? 'Nothing here fits what you chose. '
                : 'Nothing is published yet. When the first post is approved, it stands here. '}
              {isFiltered && <Word onClick={() => setParams({})}>Show everything</Word>}
            </p>
          )}
          {porch.hasNextPage && (
            <p>
              <Button onClick={() => porch.fetchNextPage()} disabled={porch.isFetchingNextPage}>
                Earlier posts
              </Button>
            </p>
          )}
        </main>
        <aside
          className={`sill ${sill ? css.sillOpen : css.sillShut}`}
          aria-label="Filter"
          onKeyDown={(e) => {
            if (e.key === 'Escape') setSill(false);
          }}
        >
          <PorchFilters groups={of?.groups ?? []} porch={first} params={params} onSet={set} />
          {filter.tag && (
            <Subscribe
              classId={id}
              kind="TAG"
              tag={filter.tag}
              to={`/classes/${id}/porch?tag=${filter.tag}`}
              label={`Subscribe to ${filter.tag}`}
            />
          )}
          {!isFiltered && (
            <Subscribe classId={id} kind="CLASS" to={`/classes/${id}/porch`} label="Subscribe to all posts" />
          )}
          <h2>Blogs</h2>
          <p className="above-0 below-0">
            <Link className="word" to={`/classes/${id}/blog`}>
              All blogs of this class
            </Link>
          </p>
          {news && news.length > 0 && (
            <>
              <h2>News from outside</h2>
              <div className={css.news}>
                {news.slice(0, 4).map((n) => (
                  <a key={n.link + n.title} href={n.link} rel="noopener noreferrer" target="_blank">
                    {n.title}
                    <span>
                      {n.source} · <When at={n.at} />
                    </span>
                  </a>
                ))}
              </div>
            </>
          )}
          {of?.readsAsStaff && of.frontPage && (
            <>
              <h2>For anyone</h2>
              <a className="word" href={of.frontPage} target="_blank" rel="noopener">
                As strangers see this class
              </a>
            </>
          )}
          <h2>In your feed reader</h2>
          <FeedAddress classId={id} filter={withParams('', { ...filter }).slice(1)} />
          <p className={css.shut}>
            <Button className="full" go mid onClick={() => setSill(false)}>
              {first ? `Show ${t.count(first.total, 'post', 'posts')}` : 'Close'}
            </Button>
          </p>
        </aside>
      </div>
    </>
  );
}

/** The newest announcements, above the posts and not among them. */
function Announcements({ classId, count, onAll }: { classId: number; count: number; onAll: () => void }) {
  const { data } = useQuery({
    queryKey: ['porch', classId, 'announcements'],
    queryFn: ({ signal }) => porchPage(classId, { announcements: true, most: 2 }, undefined, signal),
  });
  if (!data || data.entries.length === 0) return null;
  return (
    <section aria-label="Announcements" className="tell above-4 below-2">
      {data.entries.map((e) => (
        <p className="above-0 below-1" key={e.id}>
          <Link className="word" to={`/classes/${classId}/posts/${e.id}`}>
            {e.title}
          </Link>
          <span className="muted tiny">
            {' '}
            · {e.author} · <When at={e.publishedAt} />
            {e.unread ? ' · not read' : ''}
          </span>
        </p>
      ))}
      {count > data.entries.length && (
        <Word tiny onClick={onAll}>
          All {count} announcements
        </Word>
      )}
    </section>
  );
}

function weeksInWords(from?: number, to?: number): string {
  const word = (n?: number) => (n ? `${n}` : 'break');
  if (from === to) return from ? `Week ${from}` : 'The break';
  return `Weeks ${word(from)} to ${word(to)}`;
}
