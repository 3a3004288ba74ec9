import { TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { searchPage } from '../api/queries';
import { useClass } from '../session/useClass';
import { Button } from '../ui/Button';
import { Chip } from '../ui/Chip';
import { Loading, Trouble } from '../ui/Trouble';
import { HitLine, Incomplete } from './Hits';

const KINDS = [
  ['', 'everything'],
  ['post', 'posts'],
  ['comment', 'comments'],
  ['file', 'files'],
] as const;

/** All that was found, page by page; what is searched for stands in the address. */
export function SearchPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '';
  const kind = params.get('kind') ?? '';
  const all = params.has('all');
  const [asked] = useDebouncedValue(q.trim(), 200);
  const found = useInfiniteQuery({
    queryKey: ['search', asked, kind, all ? 0 : id],
    queryFn: ({ pageParam, signal }) =>
      searchPage({ q: asked, kind, class: all ? undefined : id, after: pageParam }, signal),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
    enabled: asked.length > 0,
    placeholderData: (before) => before,
  });
  const set = (key: string, value?: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(key, value);
        else next.delete(key);
        return next;
      },
      { replace: key === 'q' },
    );
  const hits = found.data?.pages.flatMap((p) => p.hits) ?? [];
  const named = found.data?.pages[0]?.named ?? [];
  return (
    <div className="page plain">
      <title>{`${q || 'Search'} · ${name}`}</title>
      <main>
        <h1>Search</h1>
        <TextInput
          aria-label="Words to search for"
          size="md"
          mt="sm"
          autoFocus
          value={q}
          onChange={(e) => set('q', e.target.value)}
          placeholder="Words of a post, a comment, a name"
        />
        <div className="row wrap above-3 below-1">
          <span>
            {KINDS.map(([value, label]) => (
              <Chip key={value} aria-pressed={kind === value} onClick={() => set('kind', value)}>
                {label}
              </Chip>
            ))}
          </span>
          <span>
            <Chip aria-pressed={!all} onClick={() => set('all')}>
              {name}
            </Chip>
            <Chip aria-pressed={all} onClick={() => set('all', 'yes')}>
              all my classes
            </Chip>
          </span>
        </div>
        {found.isError && <Trouble error={found.error} onRetry={() => found.refetch()} />}
        {asked && found.isPending && <Loading />}
        {asked && named.length > 0 && (
          <p className="above-4 below-1">
            {named.map((n) => (
              <Link key={n.to} className="word after-4" to={n.to}>
                {n.name}
              </Link>
            ))}
          </p>
        )}
        {asked && hits.map((h) => <HitLine key={h.kind + h.postId + (h.file ?? '') + h.at} hit={h} inClass={!all} />)}
        {asked && found.data && hits.length === 0 && named.length === 0 && (
          <p className="muted inside-4 foot-4">
            Nothing that you may read has {asked.includes(' ') ? 'all these words' : 'this word'}. Try fewer, or other
            words.
          </p>
        )}
        {asked && found.data && !found.data.pages[0].complete && <Incomplete />}
        {found.hasNextPage && (
          <p>
            <Button onClick={() => found.fetchNextPage()} disabled={found.isFetchingNextPage}>
              More
            </Button>
          </p>
        )}
      </main>
    </div>
  );
}
