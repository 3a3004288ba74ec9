import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, postJson, putJson } from '../api/client';
import type { CommentView } from '../api/schema';
import { useKeptName } from '../app/useKeptName';
import { t } from '../texts/en';
import css from './Comments.module.css';

interface CommentBoxProps {
  postId: number;
  parentId?: number;
  /** The comment that is changed; left out for a new one. */
  change?: Pick<CommentView, 'id' | 'html' | 'state' | 'own'>;
  label: string;
  /** Whether somebody without an account writes. */
  visitor?: boolean;
  onDone?: () => void;
}

/** The words of a comment as they were typed. */
function plainOf(html: string): string {
  const page = new DOMParser().parseFromString(html.replace(/<br>/g, '\n').replace(/<\/p>/g, '\n\n</p>'), 'text/html');
  return (page.body.textContent ?? '').trim();
}

/** The box in which a comment is written, answered or changed. */
export function CommentBox({ postId, parentId, change, label, visitor = false, onDone }: CommentBoxProps) {
  const kept = useKeptName(`comment-${postId}-${change ? `c${change.id}` : parentId ?? 0}`);
  const [text, setText] = useState(() => localStorage.getItem(kept) ?? (change ? plainOf(change.html) : ''));
  const [name, setName] = useState('');
  const [website, setWebsite] = useState('');
  const [sent, setSent] = useState(false);
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const client = useQueryClient();
  const type = (value: string) => {
    setText(value);
    localStorage.setItem(kept, value);
  };
  const send = async () => {
    setBusy(true);
    try {
      if (change) await putJson(`/api/comments/${change.id}`, { text });
      else await postJson(`/api/posts/${postId}/comments`, visitor ? { text, parentId, name, website } : { text, parentId });
      localStorage.removeItem(kept);
      setText('');
      setSent(visitor);
      setProblem('');
      await client.invalidateQueries({ queryKey: ['comments', postId] });
      onDone?.();
    } catch (e) {
      setProblem(e instanceof ApiProblem ? e.message : t.again);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className={css.box}>
      {sent && <p className="tell" role="status">Thank you. Somebody of the school looks at it first; then it stands here.</p>}
      {change?.own && change.state === 'PUBLISHED' && <p className="tiny muted" style={{ margin: '0 0 6px' }}>Where comments are looked at first, the changed one waits again before others see it.</p>}
      {visitor && <label className="tiny muted">Your name, as others read it<input className={css.name} value={name} maxLength={60} onChange={(e) => setName(e.target.value)} /></label>}
      {visitor && <input className="away" tabIndex={-1} autoComplete="off" aria-hidden="true" name="website" value={website} onChange={(e) => setWebsite(e.target.value)} />}
      <label className="tiny muted">{label}
        <textarea value={text} onChange={(e) => type(e.target.value)} aria-invalid={problem !== ''} onKeyDown={(e) => { if (e.key === 'Enter' && e.ctrlKey) void send(); }} />
      </label>
      {problem && <p className="tell wrong" role="alert" style={{ margin: '6px 0' }}>{problem}</p>}
      <button className="btn" onClick={send} disabled={busy || text.trim() === ''}>{change ? 'Keep the change' : 'Send'}</button>{' '}
      {onDone && <button className="word" onClick={() => { localStorage.removeItem(kept); onDone(); }}>{t.cancel}</button>}
    </div>
  );
}
