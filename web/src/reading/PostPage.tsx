import { NumberInput, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { postJson, putJson } from '../api/client';
import { meOptions, postOptions } from '../api/queries';
import type { PostView } from '../api/schema';
import { useWrite } from '../api/write';
import { Asides } from '../asides/Asides';
import { Comments } from '../comments/Comments';
import { Report } from '../moderation/Report';
import { UsualWait } from '../moderation/UsualWait';
import { WhoWrote } from '../people/WhoWrote';
import { useEyes } from '../session/eyes';
import { Subscribe } from '../subscriptions/Subscribe';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import css from '../ui/Entry.module.css';
import { LastingLink } from '../ui/LastingLink';
import { NamesKeptNote } from '../ui/NamesKeptNote';
import { Sightline } from '../ui/Sightline';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Wrong } from '../ui/Wrong';
import { AnsweredPrompt } from '../writing/AnsweredPrompt';
import { OutsideTime } from '../writing/OutsideTime';
import { PostArticle } from './PostArticle';

/** One post with its comments, who can read it, and what was decided about it. */
export function PostPage() {
  const { postId, classId } = useParams();
  const id = Number(postId);
  const { data: me } = useQuery(meOptions);
  const eyes = useEyes();
  const { data: post, error, refetch } = useQuery(postOptions(id));
  if (error)
    return (
      <div className="page plain">
        <Trouble error={error} onRetry={() => refetch()} />
      </div>
    );
  if (!post)
    return (
      <div className="page">
        <Loading lines={8} />
      </div>
    );
  const of = me?.classes.find((c) => c.id === post.classId);
  if (!classId && me?.classes.some((c) => c.id === post.classId))
    return <Navigate to={`/classes/${post.classId}/posts/${id}`} replace />;
  return (
    <div className="page inside-6">
      <title>{`${post.title} · Vast Porch`}</title>
      <main>
        <PostArticle
          postId={id}
          title={post.title}
          excerpt={post.excerpt}
          html={post.html}
          tags={post.tags}
          category={post.category}
          references={post.references}
          above={
            <div className={css.who}>
              <WhoWrote
                classId={classId ? post.classId : undefined}
                place={post.place}
                name={post.author}
                group={post.group}
              />
              {post.announcement && <span className={css.out}>announcement</span>}
              {post.source && <span className={css.out}>from {post.source}</span>}
              {post.publishedAt && (
                <>
                  {' '}
                  · <When at={post.publishedAt} />
                </>
              )}
            </div>
          }
        />
        {post.own && (
          <Asides
            at={`/api/posts/${id}/words`}
            heading="A private word to you"
            label="Only the author and the staff read it"
            verb="Say it"
          />
        )}
        {post.arranged.series && <SeriesWay post={post} />}
        {post.isUp && <Comments post={post} />}
        {!post.isUp && post.state === 'WAITING' && (
          <p className="tell above-5">
            {post.own ? (
              <>
                It goes to your teacher for approval. Until then only you and the staff can read it.{' '}
                <UsualWait classId={post.classId} />
              </>
            ) : (
              'It waits for approval. Until then only its author and the staff can read it.'
            )}
          </p>
        )}
      </main>
      <aside className="sill">
        <h2>Where it stands</h2>
        <p className="above-0 below-0 less">
          <StateBoard state={post.state} withWord />
          {post.isUp && post.state !== 'PUBLISHED' ? '; the approved version is up' : ''}
          {post.publishAt && post.state === 'SCHEDULED' ? (
            <>
              , goes up <When at={post.publishAt} />
            </>
          ) : null}
        </p>
        {post.history[0]?.note && post.state === 'RETURNED' && (
          <p className="tell above-3 below-0">
            <b>{post.history[0].by}</b> wrote: “{post.history[0].note}”
          </p>
        )}
        {post.state === 'HIDDEN' && !eyes && of?.manages && <ShowAgain postId={id} />}
        {post.mayEdit && post.state !== 'BINNED' && post.state !== 'HIDDEN' && (
          <p className="above-3 below-0">
            <Link className="word" to={`/classes/${post.classId}/write/${id}`}>
              {post.state === 'WAITING' || post.isUp ? 'Change it' : 'Go on writing'}
            </Link>
          </p>
        )}
        <h2>{post.isUp ? 'Who reads it' : 'Who reads it once it is up'}</h2>
        <p className="above-0 below-1 less">{t.audiences[post.sightline.audience]}</p>
        <Sightline line={post.sightline} />
        <NamesKeptNote of={post.namesKept} />
        <h2>Written in</h2>
        <p className="above-0 below-0 less">
          {classId ? (
            <Link className="word" to={`/classes/${post.classId}/blog/${post.blogAddress}`}>
              {post.blog}
            </Link>
          ) : (
            post.blog
          )}
          {post.prompt ? (
            <>
              <br />
              <span className="muted">for {post.prompt}</span>
            </>
          ) : null}
        </p>
        {!post.own && of?.staff && (
          <Asides
            at={`/api/posts/${id}/words`}
            heading={`A private word to ${post.author}`}
            label="Only the author and the staff read it"
            verb="Say it"
          />
        )}
        {!eyes && of?.staff && (
          <Asides
            at={`/api/posts/${id}/staff-thread`}
            heading="Among the staff"
            label="No student ever reads this"
            verb="Add it"
          />
        )}
        {!eyes && !post.own && of?.staff && classId && (
          <p className="less above-3 below-0">
            <Link className="word" to={`/classes/${post.classId}/posts/${id}/margin`}>
              Write in its margin
            </Link>
          </p>
        )}
        {!eyes && (post.own || of?.staff) && <AnsweredPrompt postId={id} />}
        {post.gathered && !eyes && (post.own || of?.staff) && <OutsideTime postId={id} title="When it was written" />}
        {post.outsideLink && (
          <p className="less">
            <a className="word" href={post.outsideLink} target="_blank" rel="noopener noreferrer">
              The original
            </a>
            {post.goneAt && (
              <span className="muted">
                {' '}
                · no longer there since <When at={post.goneAt} />
              </span>
            )}
          </p>
        )}
        {post.isUp && classId && (
          <div className="above-5">
            <Subscribe
              classId={post.classId}
              kind="THREAD"
              target={id}
              to={`/classes/${post.classId}/posts/${id}`}
              label="Subscribe to its comments"
            />
          </div>
        )}
        {post.isUp && !eyes && !post.own && of && !of.staff && (
          <p className="less above-4 below-0">
            <Report at={`/api/posts/${id}/reports`} what="this post" />
          </p>
        )}
        {post.isUp && (
          <>
            <h2>A lasting link</h2>
            <LastingLink path={`/posts/${id}`} />
          </>
        )}
        {post.isUp && post.arranged.mayArrange && <Arrange post={post} />}
        {post.history.length > 0 && (
          <>
            <h2>What was decided</h2>
            {post.history.map((h) => (
              <p key={h.at} className="tiny muted above-0 below-2">
                <b className="ink">{t.steps[h.step]}</b> <When at={h.at} /> by {h.by}
                {h.note ? `: “${h.note}”` : ''}
              </p>
            ))}
          </>
        )}
      </aside>
    </div>
  );
}

/** Lets a hidden post be read again; for staff alone. */
function ShowAgain({ postId }: { postId: number }) {
  const show = useWrite(() => postJson(`/api/posts/${postId}/show`), { stale: [[]], here: true });
  return (
    <>
      <Button mid onClick={() => show.run()}>
        Show it again
      </Button>
      <Wrong says={show.problem} />
    </>
  );
}

/** The way through a series, part by part. */
function SeriesWay({ post }: { post: PostView }) {
  const { series, part, before, after } = post.arranged;
  const to = (id: number) => `/classes/${post.classId}/posts/${id}`;
  return (
    <nav className={css.turn} aria-label={`Series ${series}`}>
      <span className="muted">
        {series}, part {part}
      </span>
      {before && (
        <Link className="word" to={to(before.postId)}>
          Before: {before.title}
        </Link>
      )}
      {after && (
        <Link className="word push" to={to(after.postId)}>
          Next: {after.title}
        </Link>
      )}
    </nav>
  );
}

/** Pinning a post, and giving it a place in a series. */
function Arrange({ post }: { post: PostView }) {
  const [series, setSeries] = useState(post.arranged.series ?? '');
  const [part, setPart] = useState<number | string>(post.arranged.part ?? 1);
  const arrange = useWrite(
    (wish: { pinned: boolean; series?: string; part: number }) => putJson(`/api/posts/${post.id}/arrangement`, wish),
    { stale: [[]], here: true },
  );
  const put = (pin: boolean, name: string) =>
    arrange.run({ pinned: pin, series: name || undefined, part: Number(part) || 1 });
  const { pinned } = post.arranged;
  return (
    <>
      <h2>In its blog</h2>
      <Button className="full" mid aria-pressed={pinned} onClick={() => put(!pinned, post.arranged.series ?? '')}>
        {pinned ? 'Take the pin out' : 'Pin it to the top'}
      </Button>
      <details className="above-3" open={!!post.arranged.series}>
        <summary className="tiny points">Part of a series</summary>
        <form
          className={css.arrange}
          onSubmit={(e) => {
            e.preventDefault();
            void put(pinned, series);
          }}
        >
          <TextInput label="Series" size="sm" value={series} onChange={(e) => setSeries(e.target.value)} />
          <NumberInput label="Part" size="sm" min={1} max={999} value={part} onChange={setPart} />
          <Button mid type="submit">
            {series ? 'Put it there' : 'In no series'}
          </Button>
        </form>
      </details>
      <Wrong says={arrange.problem} />
    </>
  );
}
