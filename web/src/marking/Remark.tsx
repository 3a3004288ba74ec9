import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson } from '../api/client';
import { phrasesOptions } from '../api/queries';
import { useWrite } from '../api/write';
import css from './Mark.module.css';

interface RemarkProps {
  label: string;
  /** About which criterion, and at which level of it; both empty for the whole. */
  criterion: string;
  level: string;
  begin: string;
  onKeep: (text: string) => void;
}

const SHOWN = 5;

/** A comment on a criterion or on the whole; what one wrote before is offered by its first letters. */
export function Remark({ label, criterion, level, begin, onKeep }: RemarkProps) {
  const [text, setText] = useState(begin);
  const [at, setAt] = useState(-1);
  const { data } = useQuery(phrasesOptions(criterion, level));
  const forget = useWrite((id: number) => deleteJson(`/api/phrases/${id}`), { here: true, stale: [['phrases']] });
  const typed = text.trim().toLocaleLowerCase();
  const fitting = (data ?? [])
    .filter((p) => p.text !== text && p.text.toLocaleLowerCase().startsWith(typed))
    .slice(0, SHOWN);
  const take = (phrase: string) => {
    setText(phrase);
    setAt(-1);
  };
  return (
    <div>
      <textarea
        className={css.remark}
        aria-label={label}
        placeholder={label}
        autoFocus
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setAt(-1);
        }}
        onBlur={() => onKeep(text)}
        onKeyDown={(e) => {
          if (fitting.length > 0 && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
            e.preventDefault();
            setAt((at + (e.key === 'ArrowDown' ? 1 : fitting.length)) % fitting.length);
          } else if (e.key === 'Enter' && fitting[at]) {
            e.preventDefault();
            take(fitting[at].text);
          } else if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
            e.preventDefault();
            e.currentTarget.blur();
          }
        }}
      />
      {fitting.length > 0 && (
        // The text keeps the keys: a press here is not a leaving of it.
        <ul className={css.phrases} aria-label="What you wrote before" onMouseDown={(e) => e.preventDefault()}>
          {fitting.map((p, i) => (
            <li key={p.id} className={i === at ? css.chosen : undefined}>
              <button type="button" tabIndex={-1} onClick={() => take(p.text)}>
                {p.text}
              </button>
              <button
                type="button"
                tabIndex={-1}
                className={css.forget}
                aria-label={`Do not offer again: ${p.text}`}
                onClick={() => forget.run(p.id)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
