import { CopyButton } from '@mantine/core';
import { useState } from 'react';
import { deleteJson, postJson } from '../api/client';
import type { FeedAddress as Address } from '../api/schema';
import { useWrite } from '../api/write';
import { Word } from '../ui/Word';

/** The reader's own secret feed address of a class, made when it is asked for. */
export function FeedAddress({ classId }: { classId: number }) {
  const [address, setAddress] = useState('');
  const [said, setSaid] = useState('');
  const make = useWrite(() => postJson<Address>(`/api/classes/${classId}/feed-key`), {
    onDone: ({ path }) => {
      setAddress(window.location.origin + path);
      setSaid('');
    },
  });
  const end = useWrite(() => deleteJson(`/api/classes/${classId}/feed-key`), {
    onDone: () => {
      setAddress('');
      setSaid('This address no longer works. You can make a new one.');
    },
  });
  if (!address)
    return (
      <p className="tiny muted above-0 below-0">
        {said}{' '}
        <Word tiny onClick={() => make.run()}>
          Show my feed address
        </Word>
      </p>
    );
  return (
    <div className="tiny">
      <input
        className="slip"
        readOnly
        value={address}
        aria-label="My feed address"
        onFocus={(e) => e.target.select()}
      />
      <p className="muted above-2 below-2">
        It shows just what you may read. Do not give it away: whoever has it reads as you. For Atom end it with .atom.
      </p>
      <CopyButton value={address}>
        {({ copied, copy }) => (
          <Word tiny onClick={copy}>
            {copied ? 'Copied' : 'Copy'}
          </Word>
        )}
      </CopyButton>{' '}
      ·{' '}
      <Word tiny onClick={() => end.run()}>
        End this address
      </Word>
    </div>
  );
}
