import { useMemo, useState } from 'react';
import type { PileItem } from '../api/schema';
import { markChanges, markHolds } from '../parts/markText';
import { StateBoard } from '../parts/StateBoard';
import { When } from '../parts/When';
import { NameMenu } from '../people/NameMenu';
import { t } from '../texts/en';
import css from './Approve.module.css';
import type { Step } from './usePile';

interface PileEntryProps {
  item: PileItem;
  /** Why the last decision about it did not hold. */
  problem?: string;
  isCurrent: boolean;
  isPicked: boolean;
  /** Whether the box for the note is open. */
  returning: boolean;
  mayEdit: boolean;
  onFocus: () => void;
  onAct: (step: Step, note?: string) => void;
  onReturn: (open: boolean) => void;
  onEdit: () => void;
}

/** One text of the pile; the current one has its decisions and history beside it. */
export function PileEntry({ item, problem, isCurrent, isPicked, returning, mayEdit, onFocus, onAct, onReturn, onEdit }: PileEntryProps) {
  const html = useMemo(() => (item.changes ? markChanges(item.changes, item.holds) : markHolds(item.html, item.holds)), [item]);
  return (
    <article className={[css.item, item.subject === 'comment' ? css.comment : '', isCurrent ? css.current : '', isPicked ? css.picked : ''].join(' ')}
      aria-current={isCurrent} aria-label={item.title || `Comment by ${item.author}`} onClick={isCurrent ? undefined : onFocus}>
      <div>
        <div className={css.who}>
          <StateBoard state="WAITING" />&ensp;<NameMenu classId={item.classId} place={item.place} name={item.author}><b>{item.author}</b>{item.group ? ` (${item.group.toLowerCase()})` : ''}</NameMenu>
          {item.prompt && <> · {item.prompt.title}</>}{item.outside && <> · from {item.outside.title}</>} · handed in <When at={item.since} />
          {item.prompt && (item.prompt.onTime ? ', on time' : `, ${t.count(item.prompt.daysLate, 'day', 'days')} late`)}
          {item.changes && ' · a new version, changes marked'}{isPicked && ' · picked'}
        </div>
        {item.title && <h2>{item.title}</h2>}
        <div className={`reading ${css.text}`} dangerouslySetInnerHTML={{ __html: html }} />
        {problem && <p className="tell wrong" role="alert" style={{ marginTop: 12 }}>{problem}</p>}
      </div>
      {isCurrent && (
        <div>
          {returning ? <ReturnNote onSend={(note) => onAct('RETURN', note)} onCancel={() => onReturn(false)} /> : (
            <div className={css.acts}>
              <button className="btn go" onClick={() => onAct('APPROVE')}>Approve <span className="key">A</span></button>
              <button className="btn" onClick={() => onReturn(true)}>Return with a note <span className="key">R</span></button>
              {mayEdit && item.subject === 'post' && !item.outside && <button className="btn" onClick={onEdit}>Edit <span className="key">E</span></button>}
              <button className="btn" onClick={() => onAct('HIDE')}>Hide <span className="key">H</span></button>
            </div>
          )}
          <div className={css.side}>
            {item.holds.length > 0 && <p><mark>Held: {[...new Set(item.holds.map((h) => t.holds[h.rule]))].join(', ')}</mark>.</p>}
            {item.trustAfter > 0 && <p>{item.approvalsInRow >= item.trustAfter ? 'Earned trust: goes straight out unless something is held.' : `${item.approvalsInRow} of ${item.trustAfter} approvals to go straight out.`}</p>}
            {item.history.slice(0, 2).map((h) => <p key={h.at}><b>{t.steps[h.step]}</b> <When at={h.at} /> by {h.by}{h.note ? `: “${h.note}”` : ''}</p>)}
            <p>Once approved, <b>{t.people(item.readers)}</b> can read it{item.publishAt && new Date(item.publishAt) > new Date() ? <>, from <When at={item.publishAt} /> on</> : null}.</p>
            {item.outside && <p><a className="word" href={item.outside.link} target="_blank" rel="noopener noreferrer">The original</a></p>}
          </div>
        </div>
      )}
    </article>
  );
}

function ReturnNote({ onSend, onCancel }: { onSend: (note: string) => void; onCancel: () => void }) {
  const [note, setNote] = useState('');
  return (
    <form className={css.acts} onSubmit={(e) => { e.preventDefault(); if (note.trim()) onSend(note); }}>
      <label className="tiny muted">What should be changed?
        <textarea className={css.note} autoFocus value={note} onChange={(e) => setNote(e.target.value)}
          onKeyDown={(e) => { if (e.key === 'Escape') onCancel(); if (e.key === 'Enter' && e.ctrlKey && note.trim()) onSend(note); }} />
      </label>
      <button className="btn go" type="submit" disabled={!note.trim()}>Return <span className="key">Ctrl Enter</span></button>
      <button className="btn" type="button" onClick={onCancel}>Not now <span className="key">Esc</span></button>
    </form>
  );
}
