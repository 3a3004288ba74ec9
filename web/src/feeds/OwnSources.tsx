import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson } from '../api/client';
import { ownRuleOptions, ownSourcesOptions } from '../api/queries';
import type { Candidate, Found } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { SourceHealth, SourceLooks } from './SourceLine';

/** So many a student can have in a class. */
const MOST = 3;

/** A student's own blogs outside, and a way to have them looked at now. */
export function OwnSources({ classId }: { classId: number }) {
  const { data: sources } = useQuery(ownSourcesOptions(classId));
  const [said, setSaid] = useState('');
  const look = useWrite(() => postJson(`/api/classes/${classId}/sources/mine/refresh`), {
    here: true,
    stale: [
      ['own-sources', classId],
      ['own-posts', classId],
    ],
    onDone: () => setSaid('Your blog was looked at. What is new stands above.'),
  });
  const { data: rule } = useQuery(ownRuleOptions(classId));
  const back = useWrite((id: number) => deleteJson(`/api/sources/${id}/mine`), {
    here: true,
    stale: [['own-sources', classId]],
  });
  const mayAdd = rule !== undefined && rule.own !== 'STAFF_ONLY' && (sources?.length ?? MOST) < MOST;
  if (!sources?.length && !mayAdd) return null;
  const gathered = sources?.filter((s) => !s.asked) ?? [];
  return (
    <section className="above-6">
      <h2>My blog outside</h2>
      {sources?.map((s) => (
        <div key={s.id} className="ruled-above inside-3 foot-3">
          <a href={s.siteAddress || s.feedAddress} target="_blank" rel="noopener noreferrer">
            {s.title}
          </a>
          <p className="muted less above-1 below-0">
            <SourceHealth source={s} />
          </p>
          {s.lastError && <p className="tell wrong above-2 below-0">{s.lastError}</p>}
          <SourceLooks source={s} />
          {s.asked && (
            <p className="above-1 below-0">
              <Word tiny onClick={() => back.run(s.id)} aria-label={`Take it back: ${s.title}`}>
                Take it back
              </Word>
            </p>
          )}
        </div>
      ))}
      {gathered.length > 0 && (
        <p className="above-3 below-0">
          <Word onClick={() => look.run()} disabled={look.busy}>
            {look.busy ? 'Looking' : 'I have just published something'}
          </Word>
        </p>
      )}
      {mayAdd && <Register classId={classId} asks={rule.own === 'ASKED'} />}
      <p className="muted tiny above-1 below-0" role="status">
        {said}
      </p>
      <Wrong says={look.problem || back.problem} />
    </section>
  );
}

/** A blog of one's own that is kept elsewhere: its address, what was found there, and one press. */
function Register({ classId, asks }: { classId: number; asks: boolean }) {
  const [address, setAddress] = useState('');
  const [found, setFound] = useState<Found | null>(null);
  const [done, setDone] = useState('');
  const at = `/api/classes/${classId}/sources/mine`;
  const look = useWrite(() => postJson<Found>(`${at}/look`, { address }), { here: true, onDone: setFound });
  const add = useWrite(
    (c: Candidate) =>
      postJson(at, {
        feedAddress: c.feedAddress,
        siteAddress: c.site,
        title: c.title || c.feedAddress,
        description: c.description,
      }),
    {
      here: true,
      stale: [
        ['own-sources', classId],
        ['own-posts', classId],
      ],
      onDone: () => {
        setFound(null);
        setAddress('');
        setDone(asks ? 'Your teacher looks at it. When they say yes, your posts come in.' : 'Your posts come in now.');
      },
    },
  );
  return (
    <form
      className="above-4"
      onSubmit={(e) => {
        e.preventDefault();
        setFound(null);
        setDone('');
        look.run();
      }}
    >
      <p className="row end above-0 below-0">
        <TextInput
          className="grow"
          label="Do you write on a blog somewhere else?"
          placeholder="its address, such as rowlock.example"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
        />
        <Button type="submit" disabled={look.busy || !address.trim()}>
          {look.busy ? 'Looking' : 'Look'}
        </Button>
      </p>
      <div role="status">
        {found && <p className="tell above-3 below-0">{found.sentence}</p>}
        {done && <p className="tell above-3 below-0">{done}</p>}
      </div>
      {found?.candidates.map((c) => (
        <p key={c.feedAddress} className="ruled-above inside-3 foot-2 row wide below-0">
          <span className="grow">
            <b>{c.title || c.feedAddress}</b>{' '}
            <span className="muted tiny">
              · {t.count(c.entries, 'entry', 'entries')}
              {c.preview[0] && `, the newest “${c.preview[0].title}”`}
            </span>
          </span>
          <Button onClick={() => add.run(c)} disabled={add.busy} aria-label={`This is mine: ${c.title}`}>
            This is mine
          </Button>
        </p>
      ))}
      <Wrong says={look.problem || add.problem} />
    </form>
  );
}
