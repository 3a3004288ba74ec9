import { TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { postJson } from '../api/client';
import type { Found } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { CandidateCard } from './CandidateCard';
import { NotePrivate } from './NotePrivate';

interface BringInBoxProps {
  classId: number;
  /** An address that was pasted elsewhere: it is looked at at once. */
  pasted?: string;
  /** Called when something was added. */
  onAdded?: () => void;
}

/** Takes whatever address is pasted, shows what stands there and its entries, and gathers it in one step. */
export function BringInBox({ classId, pasted = '', onAdded }: BringInBoxProps) {
  const [address, setAddress] = useState(pasted);
  const [found, setFound] = useState<Found | null>(null);
  const look = useWrite((at: string) => postJson<Found>(`/api/classes/${classId}/sources/look`, { address: at }), {
    here: true,
    onDone: setFound,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, for what was pasted before this was opened
  useEffect(() => {
    if (pasted) look.run(pasted);
  }, []);
  const added = (sentence: string) => {
    setFound({ kind: 'DONE', sentence, candidates: [] });
    setAddress('');
    onAdded?.();
  };
  return (
    <>
      <form
        className="row start"
        onSubmit={(e) => {
          e.preventDefault();
          setFound(null);
          look.run(address);
        }}
      >
        <TextInput
          className="grow"
          aria-label="Address of the blog"
          placeholder="rowlock.example"
          data-autofocus
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          error={look.problem || undefined}
        />
        <Button go type="submit" disabled={look.busy || !address.trim()}>
          {look.busy ? 'Looking' : 'Look'}
        </Button>
      </form>
      {found && (
        <div className="above-4" role="status">
          <p className="tell above-0 below-0">{found.sentence}</p>
          {found.kind === 'SIGN_IN_PAGE' && (
            <NotePrivate
              classId={classId}
              address={address}
              onNoted={() => added('It is noted. The list of blogs knows of it now.')}
            />
          )}
          {found.candidates.map((c) => (
            <CandidateCard
              key={c.feedAddress}
              classId={classId}
              candidate={c}
              onAdded={() => added('It is gathered now, and looked at by itself from here on.')}
            />
          ))}
        </div>
      )}
    </>
  );
}
