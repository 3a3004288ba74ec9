import { Checkbox, Select, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, postJson } from '../api/client';
import { peopleOptions } from '../api/queries';
import type { Candidate } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Sources.module.css';

const SHOWN = 4;

/** Whose an outside blog can be, for a list to choose from. */
export function useOwners(classId: number) {
  const { data: people } = useQuery(peopleOptions(classId));
  const students = (people ?? []).filter((p) => p.role === 'STUDENT' && p.state !== 'left');
  return [
    { value: 'news', label: 'News for the class' },
    ...students.map((p) => ({ value: String(p.id), label: p.group ? `${p.name} (${p.group})` : p.name })),
  ];
}

/** A feed that was found: its entries, each to be ticked or not, from which day on, and whose they are. */
export function CandidateCard({
  classId,
  candidate,
  onAdded,
}: {
  classId: number;
  candidate: Candidate;
  onAdded: () => void;
}) {
  const owners = useOwners(classId);
  const [owner, setOwner] = useState<string | null>(null);
  const [title, setTitle] = useState(candidate.title || candidate.feedAddress);
  const [from, setFrom] = useState('');
  const [without, setWithout] = useState<string[]>([]);
  const [all, setAll] = useState(false);
  const [unread, setUnread] = useState(false);
  const isBefore = (at: string) => from !== '' && at < from;
  const add = useWrite(
    (keepTrying: boolean) =>
      postJson(`/api/classes/${classId}/sources`, {
        feedAddress: candidate.feedAddress,
        siteAddress: candidate.site,
        title,
        description: candidate.description,
        personId: owner === 'news' ? undefined : Number(owner),
        from: from || undefined,
        without,
        keepTrying,
      }),
    {
      stale: [[]],
      onDone: onAdded,
      onWrong: (_says, e) => setUnread(e instanceof ApiProblem && e.code === 'source-unread'),
    },
  );
  const tick = (key: string, on: boolean) => setWithout(on ? without.filter((k) => k !== key) : [...without, key]);
  const shown = all ? candidate.preview : candidate.preview.slice(0, SHOWN);
  return (
    <section className={css.candidate} aria-label={candidate.title}>
      <h2>{candidate.title || candidate.feedAddress}</h2>
      <p className="muted above-1 below-3 less">
        {candidate.description && `${candidate.description} · `}
        {t.count(candidate.entries, 'entry', 'entries')}
      </p>
      {shown.map((e) => (
        <div className="ruled-above inside-2 foot-2 less" key={e.key}>
          <Checkbox
            checked={!isBefore(e.at) && !without.includes(e.key)}
            disabled={isBefore(e.at)}
            onChange={(event) => tick(e.key, event.currentTarget.checked)}
            label={
              <>
                {e.title}{' '}
                <span className="muted tiny">
                  · <When at={e.at} />
                </span>
              </>
            }
            description={e.firstLines}
          />
        </div>
      ))}
      {candidate.preview.length > SHOWN && (
        <p className="above-2 below-0">
          <Word tiny onClick={() => setAll(!all)}>
            {all ? 'Show fewer' : `Show all ${candidate.preview.length}`}
          </Word>
        </p>
      )}
      <div className="row end wrap above-3">
        <TextInput
          className={css.whose}
          label="Its name here"
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <TextInput type="date" label="Begin on" value={from} onChange={(e) => setFrom(e.target.value)} />
        <Select
          className={css.whose}
          label="Whose it is"
          placeholder="Choose"
          searchable
          value={owner}
          onChange={setOwner}
          data={owners}
        />
        <Button go onClick={() => add.run(false)} disabled={!owner || add.busy}>
          Gather it
        </Button>
      </div>
      <p className="tiny muted above-2 below-0">
        {owner && owner !== 'news'
          ? 'Its entries are approved and marked like posts written here.'
          : owner
            ? 'Its entries stand beside the Porch, each leading to the original.'
            : ''}
      </p>
      <Wrong says={add.problem} />
      {unread && <Word onClick={() => add.run(true)}>Add it all the same, and keep trying</Word>}
    </section>
  );
}
