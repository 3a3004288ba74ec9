import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import { asidesOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { useKeptName } from '../session/useKeptName';
import { Button } from '../ui/Button';
import { CleanHtml } from '../ui/CleanHtml';
import { When } from '../ui/When';
import { Wrong } from '../ui/Wrong';
import css from './Asides.module.css';

interface AsidesProps {
  /** The address at which they are kept, such as /api/posts/7/words. */
  at: string;
  heading?: string;
  /** What the box to write in is called. */
  label: string;
  verb: string;
}

/** What is said beside what everybody reads, with a box for those who may add to it; nothing at all for others. */
export function Asides({ at, heading, label, verb }: AsidesProps) {
  const { data } = useQuery(asidesOptions(at));
  const kept = useKeptName(`aside-${at}`);
  const [text, setText] = useState(() => localStorage.getItem(kept) ?? '');
  const send = useWrite((sent: string) => postJson(at, { text: sent }), {
    stale: [['asides', at]],
    here: true,
    // What was typed meanwhile stays.
    onDone: (_answer, sent) => {
      if (localStorage.getItem(kept) === sent) localStorage.removeItem(kept);
      setText((now) => (now === sent ? '' : now));
    },
  });
  if (!data || (data.list.length === 0 && !data.mayWrite)) return null;
  const type = (value: string) => {
    setText(value);
    localStorage.setItem(kept, value);
  };
  return (
    <>
      {heading && <h2 className="small">{heading}</h2>}
      <div className={css.asides}>
        {data.list.map((a) => (
          <div key={a.id} className={css.aside}>
            <p className="tiny muted above-0 below-0">
              <b>{a.author}</b> · <When at={a.at} />
            </p>
            <CleanHtml html={a.html} />
          </div>
        ))}
        {data.mayWrite && (
          <form
            className="off-paper"
            onSubmit={(e) => {
              e.preventDefault();
              if (!send.busy) send.run(text);
            }}
          >
            <textarea
              aria-label={label}
              placeholder={label}
              value={text}
              rows={text ? 3 : 1}
              onChange={(e) => type(e.target.value)}
              onKeyDown={(e) => {
                if (e.key === 'Enter' && e.ctrlKey && !send.busy) send.run(text);
              }}
            />
            {text.trim() && <Button type="submit">{verb}</Button>}
            <Wrong says={send.problem} />
          </form>
        )}
      </div>
    </>
  );
}
