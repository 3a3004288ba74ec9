import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, deleteJson, postJson } from '../api/client';
import { commentsOptions } from '../api/queries';
import type { CommentView } from '../api/schema';
import { StateBoard } from '../parts/StateBoard';
import { When } from '../parts/When';
import { NameMenu } from '../people/NameMenu';
import { t } from '../texts/en';
import css from './Comments.module.css';

/** The comments of a post in threads, and the box to write one. */
export function Comments({ postId, classId, mayComment, commentsStay = false }: { postId: number; classId: number; mayComment: boolean; commentsStay?: boolean }) {
  const { data: comments = [] } = useQuery(commentsOptions(postId));
  const [answering, setAnswering] = useState<number | null>(null);
  const roots = comments.filter((c) => !c.parentId || !comments.some((p) => p.id === c.parentId));
  const published = comments.filter((c) => c.state === 'PUBLISHED').length;
  const thread = (c: CommentView, depth: number) => (
    <div key={c.id}>
      <Comment comment={c} depth={depth} postId={postId} classId={classId} onReply={mayComment && c.state === 'PUBLISHED' ? () => setAnswering(answering === c.id ? null : c.id) : undefined} />
      {answering === c.id && <div className={css.reply}><CommentBox postId={postId} parentId={c.id} label={`Your reply to ${c.author}`} onDone={() => setAnswering(null)} /></div>}
      {comments.filter((r) => r.parentId === c.id).map((r) => thread(r, depth + 1))}
    </div>
  );
  return (
    <section className={css.list} aria-label="Comments">
      <h3>{published === 0 ? 'Nobody has answered yet' : t.count(published, 'comment', 'comments')}</h3>
      {roots.map((c) => thread(c, 0))}
      {mayComment && commentsStay && <p className="tiny muted" style={{ margin: '14px 0 0' }}>In this blog students cannot take their comments away again.</p>}
      {mayComment && answering === null && <CommentBox postId={postId} label="Your comment" />}
    </section>
  );
}

function Comment({ comment, depth, postId, classId, onReply }: { comment: CommentView; depth: number; postId: number; classId: number; onReply?: () => void }) {
  const client = useQueryClient();
  const bin = async () => {
    await deleteJson(`/api/comments/${comment.id}`);
    await client.invalidateQueries({ queryKey: ['comments', postId] });
  };
  return (
    <div className={`${css.comment} ${depth > 0 ? css.reply : ''}`}>
      <div className={css.who}>
        {comment.state !== 'PUBLISHED' && <><StateBoard state={comment.state} withWord /> · </>}
        <NameMenu classId={classId} place={comment.place} name={comment.author}><b>{comment.author}</b></NameMenu> · <When at={comment.at} />
      </div>
      <div className={css.text} dangerouslySetInnerHTML={{ __html: comment.html }} />
      {comment.own && comment.state === 'WAITING' && <p className="tiny muted" style={{ margin: '0 0 6px' }}>A teacher looks at it first. Only you and the staff see it until then.</p>}
      {comment.note && <p className="tell" style={{ margin: '0 0 8px' }}>“{comment.note}”</p>}
      <span className="tiny">
        {onReply && <button className="word tiny" onClick={onReply}>Reply</button>}
        {comment.mayDelete && <>{onReply ? ' · ' : ''}<button className="word tiny" onClick={bin}>Take it away</button></>}
      </span>
    </div>
  );
}

function CommentBox({ postId, parentId, label, onDone }: { postId: number; parentId?: number; label: string; onDone?: () => void }) {
  const kept = `porch-comment-${postId}-${parentId ?? 0}`;
  const [text, setText] = useState(() => localStorage.getItem(kept) ?? '');
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
      await postJson(`/api/posts/${postId}/comments`, { text, parentId });
      localStorage.removeItem(kept);
      setText('');
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
      <label className="tiny muted">{label}
        <textarea value={text} onChange={(e) => type(e.target.value)} aria-invalid={problem !== ''} onKeyDown={(e) => { if (e.key === 'Enter' && e.ctrlKey) void send(); }} />
      </label>
      {problem && <p className="tell wrong" role="alert" style={{ margin: '6px 0' }}>{problem}</p>}
      <button className="btn" onClick={send} disabled={busy || text.trim() === ''}>Send</button>{' '}
      {onDone && <button className="word" onClick={onDone}>{t.cancel}</button>}
    </div>
  );
}
