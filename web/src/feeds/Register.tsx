import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { postJson } from '../api/client';
import type { Candidate, Found } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

/** A blog of one's own that is kept elsewhere: its address, what was found there, and one press. */
export function Register({ classId, asks, pasted = '' }: { classId: number; asks: boolean; pasted?: string }) {
  const [address, setAddress] = useState(pasted);
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
