import { useState } from 'react';
import type { SightlineView } from '../api/schema';
import { readersInWords, t } from '../texts/en';

/** Who can read and write, in a sentence with a head count; the names on demand. */
export function Sightline({ line, withWriters = false }: { line: SightlineView; withWriters?: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="tiny">
      {line.strangers ? <b>Anyone on the internet can read it.</b> : <><b>{t.people(line.readers)}</b> can read it: {readersInWords(line)}.</>}
      {withWriters && <> {t.people(line.writers)} can write, {t.people(line.commenters)} can comment.</>}{' '}
      {line.readerNames.length > 0 && (
        <button className="word tiny" aria-expanded={open} onClick={() => setOpen(!open)}>{open ? 'Hide the names' : 'Names'}</button>
      )}
      {open && <p className="muted" style={{ margin: '6px 0 0' }}>{line.readerNames.join(' · ')}</p>}
    </div>
  );
}
