import { useState } from 'react';
import type { SightlineView } from '../api/schema';
import { readersInWords, t } from '../texts/en';
import { Word } from './Word';

/** Who can read and write, in a sentence; the head count and the names as far as the reader may know them. */
export function Sightline({ line, withWriters = false }: { line: SightlineView; withWriters?: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="tiny">
      {line.strangers ? (
        <b>Anyone on the internet can read it.</b>
      ) : (
        line.heads && (
          <>
            <b>{t.people(line.heads.readers)}</b> can read it: {readersInWords(line.heads)}.
          </>
        )
      )}
      {withWriters && line.heads && (
        <>
          {' '}
          {t.people(line.heads.writers)} can write, {t.people(line.heads.commenters)} can comment.
        </>
      )}{' '}
      {line.names && line.names.readers.length > 0 && (
        <Word tiny aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Hide the names' : 'Names'}
        </Word>
      )}
      {open && line.names && <p className="muted above-2 below-0">{line.names.readers.join(' · ')}</p>}
    </div>
  );
}
