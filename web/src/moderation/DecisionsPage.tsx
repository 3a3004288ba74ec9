import { TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { getJson } from '../api/client';
import type { DecisionPage } from '../api/schema';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Chip } from '../ui/Chip';
import { boardAfter, StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';

const STEPS = [
  ['', 'all'],
  ['APPROVE', 'approved'],
  ['RETURN', 'returned'],
  ['HIDE', 'hidden'],
  ['BIN', 'binned'],
] as const;

/** Every decision about a text of the class. Nothing here can be changed. */
export function DecisionsPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const q = params.get('q') ?? '';
  const step = params.get('step') ?? '';
  const [asked] = useDebouncedValue(q.trim(), 200);
  const wish = new URLSearchParams({ q: asked, ...(step ? { step } : {}) });
  const log = useInfiniteQuery({
    queryKey: ['decisions', id, asked, step],
    queryFn: ({ pageParam, signal }) =>
      getJson<DecisionPage>(`/api/classes/${id}/decisions?${wish}${pageParam ? `&after=${pageParam}` : ''}`, signal),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const set = (key: string, value: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(key, value);
        else next.delete(key);
        return next;
      },
      { replace: true },
    );
  const lines = log.data?.pages.flatMap((p) => p.lines) ?? [];
  return (
    <div className="page wide">
      <title>{`What was decided · ${name}`}</title>
      <main>
        <div className="row wrap wide">
          <h1>What was decided</h1>
          <span className="muted">Kept as it was; nothing here can be changed.</span>
          <a className="word push" href={`/api/classes/${id}/decisions.csv?${wish}`}>
            Take it away as a table (CSV)
          </a>
        </div>
        <div className="row middle wrap wide above-4 below-2">
          <TextInput
            className="w-line"
            aria-label="Find by title, note or name"
            placeholder="Find by title, note or name"
            value={q}
            onChange={(e) => set('q', e.target.value)}
          />
          <span>
            {STEPS.map(([value, word]) => (
              <Chip key={value} aria-pressed={step === value} onClick={() => set('step', value)}>
                {word}
              </Chip>
            ))}
          </span>
        </div>
        {log.isPending && <Loading lines={8} />}
        {log.isError && <Trouble error={log.error} onRetry={() => log.refetch()} />}
        {lines.length > 0 && (
          <div className="scrolls" tabIndex={0} role="region" aria-label="Decisions">
            <table className="rows all-columns">
              <thead>
                <tr>
                  <th>When</th>
                  <th>Decision</th>
                  <th>Text</th>
                  <th>Author</th>
                  <th>Decided by</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                {lines.map((l) => (
                  <tr key={l.id}>
                    <td className="one-line">
                      <When at={l.at} />
                    </td>
                    <td className="one-line">
                      <StateBoard state={boardAfter[l.step]} />
                      &ensp;{t.steps[l.step]}
                      {l.undoneAt && <span className="muted">, taken back</span>}
                    </td>
                    <td>
                      {l.subject === 'comment'
                        ? 'Comment on '
                        : l.subject === 'header'
                          ? 'A picture for the head of '
                          : l.subject === 'review'
                            ? 'Review for '
                            : ''}
                      {l.postId > 0 ? (
                        <Link className="word" to={`/classes/${id}/posts/${l.postId}`}>
                          {l.title || 'Without a title'}
                        </Link>
                      ) : l.title ? (
                        <b>{l.title}</b>
                      ) : (
                        <span className="muted">a text that was erased</span>
                      )}
                      {l.version > 1 && <span className="muted tiny"> version {l.version}</span>}
                    </td>
                    <td>{l.author}</td>
                    <td>{l.by}</td>
                    <td>{l.note}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        {log.data && lines.length === 0 && (
          <p className="muted">
            {q || step
              ? 'No decision fits this.'
              : 'Nothing was decided yet. What is approved, returned or hidden is kept here.'}
          </p>
        )}
        {log.hasNextPage && (
          <p>
            <Button onClick={() => log.fetchNextPage()} disabled={log.isFetchingNextPage}>
              Earlier decisions
            </Button>
          </p>
        )}
      </main>
    </div>
  );
}
