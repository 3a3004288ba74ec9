import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson } from '../api/client';
import { returnNotesOptions } from '../api/queries';
import type { PileItem } from '../api/schema';
import { useWrite } from '../api/write';
import { CommentBox } from '../comments/CommentBox';
import { NameMenu } from '../people/NameMenu';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { ExcerptNote } from '../ui/ExcerptNote';
import { StateBoard } from '../ui/StateBoard';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './Approve.module.css';
import { PileText } from './PileText';
import type { Step } from './usePile';

interface PileEntryProps {
  item: PileItem;
  /** Why the last decision about it did not hold. */
  problem?: string;
  isCurrent: boolean;
  isPicked: boolean;
  /** How many are picked on the page; a decision is for all of them. */
  picked: number;
  /** Whether the box for the note is open. */
  returning: boolean;
  mayEdit: boolean;
  /** Whether the words of this comment are being changed. */
  mending: boolean;
  onFocus: () => void;
  onAct: (step: Step, note?: string) => void;
  onReturn: (open: boolean) => void;
  onEdit: () => void;
  /** Called when the words were changed, or are left as they are. */
  onMended: () => void;
}

/** One text of the pile; the current one has its decisions and history beside it. */
export function PileEntry({
  item,
  problem,
  isCurrent,
  isPicked,
  picked,
  returning,
  mayEdit,
  mending,
  onFocus,
  onAct,
  onReturn,
  onEdit,
  onMended,
}: PileEntryProps) {
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: by keyboard one goes through the pile with J and K
    <article
      className={[
        css.item,
        item.subject === 'comment' ? css.comment : '',
        isCurrent ? css.current : '',
        isPicked ? css.picked : '',
      ].join(' ')}
      aria-current={isCurrent}
      aria-label={item.title || `Comment by ${item.author}`}
      onClick={isCurrent ? undefined : onFocus}
    >
      <div>
        <div className={css.who}>
          <StateBoard state={item.state} />
          &ensp;
          <NameMenu classId={item.classId} place={item.place} name={item.author}>
            <b>{item.author}</b>
            {item.group ? ` (${item.group.toLowerCase()})` : ''}
          </NameMenu>
          {item.prompt && <> · {item.subject === 'review' ? `a review for ${item.prompt.title}` : item.prompt.title}</>}
          {item.outside && <> · from {item.outside.title}</>} · {item.state === 'WAITING' ? 'handed in' : 'here since'}{' '}
          <When at={item.since} />
          {item.prompt &&
            item.subject !== 'review' &&
            (item.prompt.onTime ? ', on time' : `, ${t.count(item.prompt.daysLate, 'day', 'days')} late`)}
          {item.changes && ' · a new version, changes marked'}
          {item.state === 'PUBLISHED' && ' · up already'}
          {item.state === 'HIDDEN' && ' · came down until you have looked'}
          {isPicked && ' · picked'}
        </div>
        {mending && item.under ? (
          <CommentBox
            postId={item.under.postId}
            change={{ id: item.id, rev: item.rev, html: item.html, state: item.state, own: false }}
            label={`The comment of ${item.author}`}
            onDone={onMended}
          />
        ) : (
          <PileText item={item} />
        )}
        {problem && (
          <p className="tell wrong above-3" role="alert">
            {problem}
          </p>
        )}
      </div>
      {isCurrent && (
        <div className={css.aside}>
          {returning ? (
            <ReturnNote
              many={Math.max(1, picked)}
              onSend={(note) => onAct('RETURN', note)}
              onCancel={() => onReturn(false)}
            />
          ) : (
            <div className={css.acts}>
              <Button go onClick={() => onAct('APPROVE')}>
                {APPROVE[item.state] ?? 'Approve'} <span className="key">A</span>
              </Button>
              <Button onClick={() => onReturn(true)}>
                Return with a note <span className="key">R</span>
              </Button>
              {mayEdit && !item.outside && item.subject !== 'header' && item.subject !== 'review' && (
                <Button onClick={onEdit}>
                  Edit <span className="key">E</span>
                </Button>
              )}
              <Button onClick={() => onAct('HIDE')}>
                Hide <span className="key">H</span>
              </Button>
              <Button onClick={() => onAct('BIN')}>
                Into the bin <span className="key">B</span>
              </Button>
            </div>
          )}
          <div className={css.side}>
            {item.holds.length > 0 && (
              <p>
                <mark>Held: {[...new Set(item.holds.map((h) => t.holds[h.rule]))].join(', ')}</mark>.
              </p>
            )}
            {item.reports.map((r) => (
              <p key={r.by + r.at}>
                <b>{r.by}</b> reported it <When at={r.at} />
                {r.reason ? `: “${r.reason}”` : ''}
              </p>
            ))}
            <p>{whyInWords(item)}</p>
            {item.trustAfter > 0 && (
              <p>
                {item.approvalsInRow >= item.trustAfter
                  ? 'Earned trust: goes straight out unless something is held.'
                  : `${item.approvalsInRow} of ${item.trustAfter} approvals to go straight out.`}
              </p>
            )}
            {item.history.slice(0, 2).map((h) => (
              <p key={h.at}>
                <b>{t.steps[h.step]}</b> <When at={h.at} /> by {h.by}
                {h.note ? `: “${h.note}”` : ''}
              </p>
            ))}
            <p>
              {item.state === 'PUBLISHED' ? 'It is up: ' : 'Once approved, '}
              <b>{item.subject === 'review' ? 'the author of the paper' : t.whoReads(item.readers)}</b> can read it
              {item.readersNow ? ` (until now ${t.whoReads(item.readersNow)})` : ''}
              {item.publishAt && new Date(item.publishAt) > new Date() ? (
                <>
                  , from <When at={item.publishAt} /> on
                </>
              ) : null}
              .
            </p>
            <ExcerptNote excerpt={item.outside?.excerpt} />
            {item.outside && (
              <p>
                <a className="word" href={item.outside.link} target="_blank" rel="noopener noreferrer">
                  The original
                </a>
              </p>
            )}
          </div>
        </div>
      )}
    </article>
  );
}

const APPROVE: Record<string, string> = { PUBLISHED: 'Leave it up', HIDDEN: 'Show it again' };
const OWNERS: Record<string, string> = {
  STUDENT: 'That is set for this student.',
  BLOG: 'That is a rule of the blog.',
  CLASS: 'That is the rule of the class.',
};

/** Why somebody looks at this text, and which of the settings says so. */
function whyInWords({ because, reports, holds, state }: PileItem): string {
  if (reports.length > 0 && state !== 'WAITING') return 'It lies here because it was reported.';
  if (because.policy === 'BEFORE') return `Looked at before it is published. ${OWNERS[because.source] ?? ''}`;
  if (because.policy === 'AFTER' && state === 'PUBLISHED')
    return `Looked at after it was published. ${OWNERS[because.source] ?? ''}`;
  if (holds.length > 0)
    return because.source === 'TRUST'
      ? 'Its author has earned trust; it waits for what is held alone.'
      : 'It waits for what is held alone.';
  return 'It was handed in under an earlier rule.';
}

/** The note with which one text or several go back; notes that one needs again are kept beside it. */
function ReturnNote({
  many,
  onSend,
  onCancel,
}: {
  many: number;
  onSend: (note: string) => void;
  onCancel: () => void;
}) {
  const { data: bank = [] } = useQuery(returnNotesOptions);
  const [note, setNote] = useState('');
  const [keep, setKeep] = useState(false);
  const put = useWrite((call: () => Promise<typeof bank>) => call(), { fills: returnNotesOptions.queryKey });
  const send = () => {
    if (!note.trim()) return;
    if (keep || bank.some((n) => n.text === note.trim())) put.run(() => postJson('/api/return-notes', { text: note }));
    onSend(note);
  };
  const hear = (e: React.KeyboardEvent) => {
    if (e.key === 'Escape') onCancel();
    if (e.key === 'Enter' && e.ctrlKey) send();
    const chosen = e.altKey && /^[1-9]$/.test(e.key) ? bank[Number(e.key) - 1] : undefined;
    if (!chosen) return;
    e.preventDefault();
    setNote(chosen.text);
  };
  return (
    <form
      className={css.acts}
      onKeyDown={hear}
      onSubmit={(e) => {
        e.preventDefault();
        send();
      }}
    >
      <label className="tiny muted">
        {many > 1 ? `What should be changed in these ${many}?` : 'What should be changed?'}
        <textarea className={css.note} autoFocus value={note} onChange={(e) => setNote(e.target.value)} />
      </label>
      {bank.length > 0 && (
        <ul className={css.bank} aria-label="Notes you keep">
          {bank.slice(0, 9).map((n, i) => (
            <li key={n.id}>
              <button type="button" onClick={() => setNote(n.text)}>
                <span className="key">Alt {i + 1}</span> {n.text}
              </button>
              <Word
                tiny
                aria-label={`Forget the note: ${n.text}`}
                onClick={() => put.run(() => deleteJson(`/api/return-notes/${n.id}`))}
              >
                Forget
              </Word>
            </li>
          ))}
        </ul>
      )}
      {!bank.some((n) => n.text === note.trim()) && (
        <label className="tiny muted">
          <input type="checkbox" checked={keep} onChange={(e) => setKeep(e.target.checked)} /> Keep this note for next
          time
        </label>
      )}
      <Button go type="submit" disabled={!note.trim()}>
        {many > 1 ? `Return ${many}` : 'Return'} <span className="key">Ctrl Enter</span>
      </Button>
      <Button onClick={onCancel}>
        Not now <span className="key">Esc</span>
      </Button>
    </form>
  );
}
