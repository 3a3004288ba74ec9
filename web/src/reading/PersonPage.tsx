import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import { classOptions, porchPage, railOptions } from '../api/queries';
import { NameMenu } from '../people/NameMenu';
import { useClass } from '../session/useClass';
import { Subscribe } from '../subscriptions/Subscribe';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import css from '../ui/Entry.module.css';
import { TermRail } from '../ui/TermRail';
import { Loading, Trouble } from '../ui/Trouble';
import { chosenWeeks, weekName, weeksParam } from '../ui/terms';
import { Word } from '../ui/Word';
import { Entry } from './Entry';

/** All that one person wrote in the class, as far as the reader may read it. */
export function PersonPage() {
  const { id, name: className } = useClass();
  const place = Number(useParams().place);
  const [params, setParams] = useSearchParams();
  const { data: of } = useQuery(classOptions(id));
  const { term, range: chosen, filter: ofWeeks } = chosenWeeks(of, params);
  const { data: rail } = useQuery(railOptions(id, { place, term: ofWeeks.term }));
  const filter = { place, ...ofWeeks };
  const choose = (term?: number, range?: [number, number]) => {
    const next: Record<string, string> = {};
    if (term !== undefined) next.term = `${term}`;
    if (range) next.weeks = weeksParam(range)!;
    setParams(next);
  };
  const porch = useInfiniteQuery({
    queryKey: ['porch', id, filter],
    queryFn: ({ pageParam, signal }) => porchPage(id, filter, pageParam, signal),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
  });
  const entries = porch.data?.pages.flatMap((p) => p.entries) ?? [];
  const name = porch.data?.pages[0].people.find((p) => p.key === String(place))?.label;
  const weekOf = (at: string) =>
    weekName(of?.terms ?? [], at) ?? new Date(at).toLocaleDateString('en-GB', { month: 'long', year: 'numeric' });
  const yearOf = (at: string) => new Date(at).getFullYear();
  const manyYears = new Set(entries.map((e) => yearOf(e.publishedAt))).size > 1;
  return (
    <>
      {name && <title>{`${name} · ${className}`}</title>}
      {of && rail && (
        <TermRail
          terms={of.terms}
          term={term}
          rail={rail}
          chosen={chosen}
          onChoose={(range) => choose(ofWeeks.term, range)}
          onTerm={choose}
        />
      )}
      <div className="page plain inside-4">
        <main>
          <div className={css.head}>
            {(name || porch.data) && (
              <NameMenu classId={id} place={place} name={name ?? 'this student'}>
                <h1>{name ?? 'Nothing to read here yet'}</h1>
              </NameMenu>
            )}
            {porch.data && (
              <span className="muted">
                {t.count(porch.data.pages[0].total, 'post', 'posts')}
                {entries[0]?.group ? `, ${entries[0].group.toLowerCase()}` : ''}
              </span>
            )}
            {!chosen && ofWeeks.term === undefined && entries.length > 0 && (
              <span className="push">
                <Subscribe
                  classId={id}
                  kind="PERSON"
                  target={place}
                  to={`/classes/${id}/persons/${place}`}
                  label="Subscribe"
                />
              </span>
            )}
            {(chosen || ofWeeks.term !== undefined) && (
              <Word className="push" onClick={() => setParams({})}>
                Show everything
              </Word>
            )}
          </div>
          {name && (
            <p className="tiny above-1 below-0">
              <Link className="word" to={`/classes/${id}/porch?person=${place}`}>
                By tag, category or prompt
              </Link>
            </p>
          )}
          {porch.isPending && <Loading />}
          {porch.isError && <Trouble error={porch.error} onRetry={() => porch.refetch()} />}
          {entries.map((e, i) => (
            <div key={e.id}>
              {manyYears && (i === 0 || yearOf(e.publishedAt) !== yearOf(entries[i - 1].publishedAt)) && (
                <h2 className={css.year}>{yearOf(e.publishedAt)}</h2>
              )}
              {(i === 0 || weekOf(e.publishedAt) !== weekOf(entries[i - 1].publishedAt)) && (
                <h2 className={css.section}>{weekOf(e.publishedAt)}</h2>
              )}
              <Entry entry={e} classId={id} withAuthor={false} />
            </div>
          ))}
          {porch.hasNextPage && (
            <p>
              <Button onClick={() => porch.fetchNextPage()}>Earlier posts</Button>
            </p>
          )}
        </main>
      </div>
    </>
  );
}
