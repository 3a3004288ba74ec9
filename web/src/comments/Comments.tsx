import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson } from '../api/client';
import { commentsOptions, meOptions } from '../api/queries';
import type { CommentView, PostView } from '../api/schema';
import { useWrite } from '../api/write';

import { Asides } from '../asides/Asides';
import { Report } from '../moderation/Report';
import { NameMenu } from '../people/NameMenu';
import { t } from '../texts/en';
import { CleanHtml } from '../ui/CleanHtml';
import { StateBoard } from '../ui/StateBoard';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { CommentBox } from './CommentBox';
import css from './Comments.module.css';

/** The comments of a post in threads, and the box to write one. */
export function Comments({ post }: { post: PostView }) {
  const { id: postId, classId, mayComment, commentsShut, commentsStay } = post;
  const { data: comments = [], isSuccess } = useQuery(commentsOptions(postId));
  const [answering, setAnswering] = useState<number | null>(null);
  const roots = comments.filter((c) => !c.parentId || !comments.some((p) => p.id === c.parentId));
  const published = comments.filter((c) => c.state === 'PUBLISHED').length;
  const thread = (c: CommentView, depth: number) => (
    <div key={c.id}>
      <Comment
        comment={c}
        depth={depth}
        postId={postId}
        classId={classId}
        onReply={
          mayComment && c.state === 'PUBLISHED' ? () => setAnswering(answering === c.id ? null : c.id) : undefined
        }
      />
      {answering === c.id && (
        <div className={css.reply}>
          <CommentBox
            postId={postId}
            parentId={c.id}
            label={`Your reply to ${c.author}`}
            onDone={() => setAnswering(null)}
          />
        </div>
      )}
      {comments.filter((r) => r.parentId === c.id).map((r) => thread(r, depth + 1))}
    </div>
  );
  return (
    <section className={css.list} aria-label="Comments">
      {(published > 0 || !commentsShut) && (
        <h2 className="smaller">
          {published > 0
            ? t.count(published, 'comment', 'comments')
            : isSuccess
              ? 'Nobody has answered yet'
              : 'Comments'}
        </h2>
      )}
      {roots.map((c) => thread(c, 0))}
      {commentsShut && <p className="muted">{commentsShut}</p>}
      {mayComment && commentsStay && (
        <p className="tiny muted above-4 below-0">In this blog students cannot take their comments away again.</p>
      )}
      {mayComment && answering === null && <CommentBox postId={postId} label="Your comment" />}
    </section>
  );
}

function Comment({
  comment,
  depth,
  postId,
  classId,
  onReply,
}: {
  comment: CommentView;
  depth: number;
  postId: number;
  classId: number;
  onReply?: () => void;
}) {
  const { data: me } = useQuery(meOptions);
  const staff = me?.classes.find((c) => c.id === classId)?.staff ?? false;
  const [changing, setChanging] = useState(false);
  const [word, setWord] = useState(false);
  const bin = useWrite(() => deleteJson(`/api/comments/${comment.id}`), { stale: [['comments', postId]] });
  return (
    <div className={`${css.comment} ${depth > 0 ? css.reply : ''}`}>
      <div className={css.who}>
        {comment.state !== 'PUBLISHED' && (
          <>
            <StateBoard state={comment.state} withWord /> ·{' '}
          </>
        )}
        <NameMenu classId={classId} place={comment.place} name={comment.author}>
          <b>{comment.author}</b>
        </NameMenu>{' '}
        · <When at={comment.at} />
        {comment.edited && (comment.editedBy ? `, changed by ${comment.editedBy}` : ', changed')}
      </div>
      {changing ? (
        <CommentBox
          postId={postId}
          change={comment}
          label={comment.own ? 'Your comment' : `The comment of ${comment.author}`}
          onDone={() => setChanging(false)}
        />
      ) : (
        <CleanHtml className={css.text} html={comment.html} />
      )}
      {(comment.own || (staff && word)) && comment.id > 0 && (
        <Asides
          at={`/api/comments/${comment.id}/words`}
          heading={comment.own ? 'A private word to you' : undefined}
          label={`Only ${comment.author} and the staff read it`}
          verb="Say it"
        />
      )}
      {comment.own && comment.state === 'WAITING' && (
        <p className="tiny muted above-0 below-2">
          A teacher looks at it first. Only you and the staff see it until then.
        </p>
      )}
      {comment.note && <p className="tell above-0 below-2">“{comment.note}”</p>}
      <span className={css.acts}>
        {onReply && <Word onClick={onReply}>Reply</Word>}
        {comment.mayEdit && !changing && <Word onClick={() => setChanging(true)}>Change</Word>}
        {staff && !comment.own && comment.place > 0 && !word && (
          <Word onClick={() => setWord(true)}>A private word</Word>
        )}
        {!staff && !comment.own && me && comment.state === 'PUBLISHED' && (
          <Report at={`/api/comments/${comment.id}/reports`} what="this comment" className="word" />
        )}
        {comment.mayDelete && <Word onClick={() => bin.run()}>Take it away</Word>}
      </span>
    </div>
  );
}
