import { useQuery } from '@tanstack/react-query';
import { Link, Navigate, useParams } from 'react-router';
import { Comments } from '../comments/Comments';
import { meOptions, postOptions } from '../api/queries';
import { Sightline } from '../parts/Sightline';
import { StateBoard } from '../parts/StateBoard';
import { Loading, Trouble } from '../parts/Trouble';
import { When } from '../parts/When';
import { t } from '../texts/en';
import css from './Entry.module.css';
import { PostArticle } from './PostArticle';

/** One post with its comments, who can read it, and what was decided about it. */
export function PostPage() {
  const { postId, classId } = useParams();
  const id = Number(postId);
  const { data: me } = useQuery(meOptions);
  const { data: post, error, refetch } = useQuery(postOptions(id));
  if (error) return <div className="page plain"><Trouble error={error} onRetry={() => refetch()} /></div>;
  if (!post) return <div className="page"><Loading lines={8} /></div>;
  if (!classId && me?.classes.some((c) => c.id === post.classId)) return <Navigate to={`/classes/${post.classId}/posts/${id}`} replace />;
  return (
    <div className="page" style={{ paddingTop: 30 }}>
      <title>{`${post.title} · Vast Porch`}</title>
      <main>
        <PostArticle title={post.title} html={post.html} tags={post.tags} above={
          <div className={css.who}>
            {classId ? <Link to={`/classes/${post.classId}/persons/${post.authorId}`}><b>{post.author}</b></Link> : <b>{post.author}</b>}{post.group ? `, ${post.group.toLowerCase()}` : ''}
            {post.source && <span className={css.out}>from {post.source}</span>}
            {post.publishedAt && <> · <When at={post.publishedAt} /></>}
          </div>} />
        {post.isUp && <Comments postId={id} mayComment={post.mayComment} />}
        {!post.isUp && post.state === 'WAITING' && <p className="tell" style={{ marginTop: 26 }}>{post.authorId === me?.id ? 'It goes to your teacher for approval. Until then only you and the staff can read it.' : 'It waits for approval. Until then only its author and the staff can read it.'}</p>}
      </main>
      <aside className="sill">
        <h4>Where it stands</h4>
        <p style={{ margin: 0, fontSize: 15 }}><StateBoard state={post.state} withWord />{post.isUp && post.state !== 'PUBLISHED' ? '; the approved version is up' : ''}</p>
        {post.history[0]?.note && post.state === 'RETURNED' && <p className="tell" style={{ margin: '10px 0 0' }}><b>{post.history[0].by}</b> wrote: “{post.history[0].note}”</p>}
        {post.mayEdit && post.state !== 'BINNED' && <p style={{ margin: '10px 0 0' }}><Link className="word" to={`/classes/${post.classId}/write/${id}`}>{post.state === 'WAITING' || post.isUp ? 'Change it' : 'Go on writing'}</Link></p>}
        <h4>{post.isUp ? 'Who reads it' : 'Who reads it once it is up'}</h4>
        <p style={{ margin: '0 0 4px', fontSize: 15 }}>{t.audiences[post.sightline.audience]}</p>
        <Sightline line={post.sightline} />
        <h4>Written in</h4>
        <p style={{ margin: 0, fontSize: 15 }}>{post.blog}{post.prompt ? <><br /><span className="muted">for {post.prompt}</span></> : null}</p>
        {post.outsideLink && <p style={{ fontSize: 15 }}><a className="word" href={post.outsideLink} target="_blank" rel="noopener noreferrer">The original</a></p>}
        {post.history.length > 0 && (
          <>
            <h4>What was decided</h4>
            {post.history.map((h) => <p key={h.at} className="tiny muted" style={{ margin: '0 0 6px' }}><b style={{ color: 'var(--ink)', fontWeight: 600 }}>{t.steps[h.step]}</b> <When at={h.at} /> by {h.by}{h.note ? `: “${h.note}”` : ''}</p>)}
          </>
        )}
      </aside>
    </div>
  );
}
