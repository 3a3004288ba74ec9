import type { NoteView } from '../api/schema';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './Margin.module.css';

const STATES: Record<string, string> = { DONE: 'done with', ACCEPTED: 'taken over', DECLINED: 'not taken over' };

/** One note: the words it is about, what is said of them, what is proposed instead, and what became of it. */
export function MarginNote({
  note,
  onAnswer,
}: {
  note: NoteView;
  onAnswer?: (answer: 'ACCEPTED' | 'DECLINED' | 'DONE') => void;
}) {
  const change = note.replacement !== undefined;
  return (
    <div className={`${css.note} ${note.state === 'OPEN' ? '' : css.answered}`}>
      <p className={css.quote}>
        {change ? (
          <>
            <del>{note.quote}</del> {note.replacement && <ins>{note.replacement}</ins>}
          </>
        ) : (
          note.quote
        )}
      </p>
      {note.remark && <p className="above-1 below-0">{note.remark}</p>}
      <p className="tiny muted above-1 below-0">
        {note.by} · <When at={note.at} />
        {note.state !== 'OPEN' && `, ${STATES[note.state]}`}
      </p>
      {onAnswer && note.state === 'OPEN' && (
        <p className="row wide above-2 below-0">
          {change && (
            <Word tiny onClick={() => onAnswer('ACCEPTED')}>
              Take it over
            </Word>
          )}
          {change && (
            <Word tiny onClick={() => onAnswer('DECLINED')}>
              Keep mine
            </Word>
          )}
          {!change && (
            <Word tiny onClick={() => onAnswer('DONE')}>
              Done
            </Word>
          )}
        </p>
      )}
    </div>
  );
}
