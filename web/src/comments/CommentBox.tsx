import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, postJson, putJson } from '../api/client';
import type { CommentView } from '../api/schema';
import { useWrite } from '../api/write';
import { useKeptName } from '../session/useKeptName';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Comments.module.css';

interface CommentBoxProps {
  postId: number;
  parentId?: number;
  /** The comment that is changed; left out for a new one. */
  change?: Pick<CommentView, 'id' | 'rev' | 'html' | 'state' | 'own'>;
  label: string;
  onDone?: () => void;
}

/** The words of a comment as they were typed. */
function plainOf(html: string): string {
  const page = new DOMParser().parseFromString(html.replace(/<br>/g, '\n').replace(/<\/p>/g, '\n\n</p>'), 'text/html');
  return (page.body.textContent ?? '').trim();
}

/** Where to go on: from words that were kept here, those of a change behind the revision on which they were typed, or from the comment as it stands. */
function begin(kept: string | null, change: CommentBoxProps['change']): { base: number; words: string } {
  if (!change) return { base: 0, words: kept ?? '' };
  const typed = /^(\d+) ([\s\S]*)$/.exec(kept ?? '');
  return typed ? { base: Number(typed[1]), words: typed[2]! } : { base: change.rev, words: plainOf(change.html) };
}

/** The box in which a comment is written, answered or changed. */
export function CommentBox({ postId, parentId, change, label, onDone }: CommentBoxProps) {
  const kept = useKeptName(`comment-${postId}-${change ? `c${change.id}` : (parentId ?? 0)}`);
  // What is changed is the comment as it stood when the first word was typed, not one that came in since.
  const [{ base, words }] = useState(() => begin(localStorage.getItem(kept), change));
  const [text, setText] = useState(words);
  // What stands there now, if somebody was faster: both are read, and one is chosen.
  const [theirs, setTheirs] = useState<{ rev: number; text: string } | null>(null);
  const client = useQueryClient();
  const type = (value: string) => {
    setText(value);
    localStorage.setItem(kept, keptAs(value));
  };
  const keptAs = (words: string) => (change ? `${base} ${words}` : words);
  const write = useWrite(
    (words: string) =>
      change
        ? putJson(`/api/comments/${change.id}`, { rev: theirs?.rev ?? base, text: words })
        : postJson(`/api/posts/${postId}/comments`, { text: words, parentId }),
    {
      here: true,
      onDone: async (_answer, words) => {
        // What was typed meanwhile stays.
        if (localStorage.getItem(kept) === keptAs(words)) localStorage.removeItem(kept);
        setText((now) => (now === words ? '' : now));
        setTheirs(null);
        await client.invalidateQueries({ queryKey: ['comments', postId] });
        onDone?.();
      },
      onWrong: (_says, e) => {
        if (e instanceof ApiProblem && e.code === 'changed-elsewhere')
          setTheirs({ rev: e.facts.rev as number, text: plainOf(e.facts.html as string) });
      },
    },
  );
  const send = () => {
    if (!write.busy && text.trim()) write.run(text);
  };
  return (
    <div className={`${css.box} off-paper`}>
      {change?.own && change.state === 'PUBLISHED' && (
        <p className="tiny muted above-0 below-2">
          Where comments are looked at first, the changed one waits again before others see it.
        </p>
      )}
      <label className="tiny muted">
        {label}
        <textarea
          value={text}
          onChange={(e) => type(e.target.value)}
          aria-invalid={write.problem !== ''}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && e.ctrlKey) send();
          }}
        />
      </label>
      <Wrong says={write.problem} />
      {theirs && (
        <div className={css.theirs}>
          <span className="tiny muted">As it stands now</span>
          <p>{theirs.text}</p>
          <Word
            onClick={() => {
              type(theirs.text);
              write.forget();
            }}
          >
            Go on from this one
          </Word>
        </div>
      )}
      <Button onClick={send} disabled={write.busy || text.trim() === ''}>
        {theirs ? 'Keep mine instead' : change ? 'Keep the change' : 'Send'}
      </Button>{' '}
      {onDone && (
        <Word
          onClick={() => {
            localStorage.removeItem(kept);
            onDone();
          }}
        >
          {t.cancel}
        </Word>
      )}
    </div>
  );
}
