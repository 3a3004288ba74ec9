import { Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import { roundOptions, roundPlanOptions } from '../api/queries';
import type { Pair, RoundView } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { gaveWayInWords } from './gaveWay';
import css from './Peers.module.css';
import { Picture } from './Picture';

const same = (a: Pair, b: Pair) => a.reviewer === b.reviewer && a.author === b.author;

/** A plan of who reads whom, to be looked at and changed before papers are given out. */
export function GivingOut({ round }: { round: RoundView }) {
  const [seed, setSeed] = useState(1);
  const [kept, setKept] = useState<Pair[]>([]);
  const plan = useQuery(roundPlanOptions(round.promptId, seed, kept));
  const give = useWrite(
    (pairs: Pair[]) => postJson<RoundView>(`/api/prompts/${round.promptId}/peer-round`, { reviews: pairs }),
    {
      here: true,
      fills: roundOptions(round.promptId).queryKey,
      onWrong: () => void plan.refetch(),
    },
  );
  const { data } = plan;
  if (!data) return plan.error ? <Trouble error={plan.error} onRetry={() => plan.refetch()} /> : <Loading />;
  if (data.people.length < 2)
    return (
      <p className="muted measure">
        {data.people.length === 0 ? 'No paper is there yet' : 'One paper is there'} that classmates could read. Papers
        can be given out once there are two.
      </p>
    );
  const name = (id: number) => data.people.find((p) => p.id === id)?.name ?? '';
  const reads = (reader: number) => data.pairs.filter((p) => p.reviewer === reader);
  const canRead = (reader: number, author: number) =>
    reader !== author && !data.unreadable.some((p) => same(p, { reviewer: reader, author }));
  const isKept = (pair: Pair) => kept.some((k) => same(k, pair));
  const change = (from: Pair, author: number) =>
    setKept([...kept.filter((k) => !same(k, from)), { reviewer: from.reviewer, author }]);
  const gaveWay = gaveWayInWords(data.gaveWay);
  return (
    <>
      <p className="measure">
        {t.count(data.people.length, 'paper is', 'papers are')} there; each student reads{' '}
        {t.count(Math.max(0, round.rules.each - data.gaveWay.each), 'paper', 'papers')}. Nothing is given out before you
        say so
        {round.rules.when === 'AT' && round.rules.at && (
          <>
            , or the clock does <When at={round.rules.at} />
          </>
        )}
        {round.rules.when === 'ALL_IN' && ', or all papers are in'}.
      </p>
      {gaveWay.length > 0 && (
        <div className="tell">
          {gaveWay.map((s) => (
            <p key={s} className="above-0 below-0">
              {s}
            </p>
          ))}
        </div>
      )}
      <Picture
        people={data.people}
        cells={data.pairs.map((p) => ({
          ...p,
          kind: isKept(p) ? 'kept' : 'planned',
          says: isKept(p) ? 'chosen by hand' : 'reads it',
        }))}
      />
      <p className="row wrap middle above-4">
        <Button
          go
          disabled={give.busy || plan.isFetching || data.pairs.length === 0}
          onClick={() => give.run(data.pairs)}
        >
          Give them out
        </Button>
        <Button disabled={plan.isFetching} onClick={() => setSeed(seed + 1)}>
          Another plan
        </Button>
        {kept.length > 0 && <Word onClick={() => setKept([])}>Let go what I chose</Word>}
      </p>
      <Wrong says={give.problem} />
      <h2 className="above-6">Change it</h2>
      <p className="muted measure">
        Choose another paper, or keep one as it is: what you choose stays, and the rest is planned anew around it.
      </p>
      <ul className={css.reads} aria-busy={plan.isFetching}>
        {data.people.map((reader) => (
          <li key={reader.id}>
            <span>{reader.name} reads</span>
            <div className={css.papers}>
              {reads(reader.id).map((pair) => (
                <span key={pair.author} className={css.paper}>
                  <Select
                    aria-label={`${reader.name} reads`}
                    size="xs"
                    w={190}
                    allowDeselect={false}
                    data={data.people
                      .filter(
                        (p) =>
                          p.id === pair.author ||
                          (canRead(reader.id, p.id) && !reads(reader.id).some((r) => r.author === p.id)),
                      )
                      .map((p) => ({ value: String(p.id), label: p.name }))}
                    value={String(pair.author)}
                    onChange={(value) => change(pair, Number(value))}
                  />
                  <Word
                    tiny
                    aria-pressed={isKept(pair)}
                    aria-label={`Keep: ${reader.name} reads ${name(pair.author)}`}
                    onClick={() => setKept(isKept(pair) ? kept.filter((k) => !same(k, pair)) : [...kept, pair])}
                  >
                    {isKept(pair) ? 'Kept' : 'Keep'}
                  </Word>
                </span>
              ))}
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}
