import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { deleteJson, postJson } from '../api/client';
import {
  exampleAsksOptions,
  filedReportsOptions,
  ownPostsOptions,
  ownWeeksOptions,
  wordsToMeOptions,
} from '../api/queries';
import type { OwnPost } from '../api/schema';
import { useWrite } from '../api/write';
import { WordsToMe } from '../asides/WordsToMe';
import { OwnSources } from '../feeds/OwnSources';
import { UsualWait } from '../moderation/UsualWait';
import { OwnWeeks } from '../progress/OwnWeeks';
import { OtherWeeks } from '../reports/OwnReports';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import css from '../ui/Entry.module.css';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { ExampleAsks } from './ExampleAsks';

const ORDER = ['RETURNED', 'DRAFT', 'WAITING', 'SCHEDULED', 'HIDDEN', 'PUBLISHED', 'BINNED'];

/** All that a student wrote, with where each piece stands; what needs the student comes first. */
export function MyWritingPage() {
  const { id, name } = useClass();
  const own = useQuery(ownPostsOptions(id));
  const asks = useQuery(exampleAsksOptions);
  const weeks = useQuery(ownWeeksOptions(id));
  // What stands above the list is there before it: a list that moves down under a finger is a tap on the wrong line.
  const words = useQuery(wordsToMeOptions(id));
  const reports = useQuery(filedReportsOptions(id));
  const isComing = own.isPending || asks.isPending || weeks.isPending || words.isPending || reports.isPending;
  const act = useWrite((call: () => Promise<unknown>) => call(), { stale: [['own-posts', id], ['me']], here: true });
  const sorted = [...((!isComing && own.data) || [])].sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state));
  return (
    <div className="page plain">
      <title>{`My writing · ${name}`}</title>
      <main>
        <h1>My writing</h1>
        <Wrong says={act.problem} />
        <WordsToMe classId={id} />
        <ExampleAsks classId={id} />
        <OwnWeeks classId={id} />
        <OtherWeeks classId={id} />
        {isComing && !own.isError && <Loading />}
        {own.isError && <Trouble error={own.error} onRetry={() => own.refetch()} />}
        {!isComing && own.data?.length === 0 && (
          <p className="muted">
            You have written nothing here yet.{' '}
            <Link className="word" to={`/classes/${id}/write`}>
              Begin
            </Link>
          </p>
        )}
        {sorted.map((p) => (
          <Own
            key={p.id}
            post={p}
            classId={id}
            onBin={() => act.run(() => deleteJson(`/api/posts/${p.id}`))}
            onRestore={() => act.run(() => postJson(`/api/posts/${p.id}/restore`))}
          />
        ))}
        <OwnSources classId={id} />
      </main>
    </div>
  );
}

function Own({
  post,
  classId,
  onBin,
  onRestore,
}: {
  post: OwnPost;
  classId: number;
  onBin: () => void;
  onRestore: () => void;
}) {
  const writes = post.state === 'DRAFT' || post.state === 'RETURNED';
  return (
    <article className={`${css.entry} inside-4 foot-4`}>
      <div>
        <div className={css.who}>
          <StateBoard state={post.state} withWord />
          {post.isUp && writes ? ', the approved version is up' : ''} · {post.prompt ?? post.blog} ·{' '}
          <When at={post.at} />
          {post.state === 'SCHEDULED' && post.publishAt ? (
            <>
              , goes up <When at={post.publishAt} />
            </>
          ) : null}
          {post.daysLeft !== undefined ? `, can be taken out for ${t.count(post.daysLeft, 'day', 'days')}` : ''}
        </div>
        <h2>
          <Link to={`/classes/${classId}/${writes ? 'write' : 'posts'}/${post.id}`}>
            {post.title || 'Without a title yet'}
          </Link>
        </h2>
        {post.state === 'WAITING' && (
          <p className="tiny muted above-1 below-0">
            Your teacher looks at it. <UsualWait classId={classId} />
          </p>
        )}
        {post.note && (
          <p className="tell above-2 below-1">
            <b>{post.noteBy}</b> wrote: “{post.note}”
          </p>
        )}
      </div>
      <span className={`tiny ${css.acts}`}>
        {post.state === 'BINNED' ? (
          <Word tiny onClick={onRestore}>
            Take out of the bin
          </Word>
        ) : (
          post.state !== 'HIDDEN' &&
          post.mayDelete && (
            <Word tiny onClick={onBin} aria-label={`Into the bin: ${post.title}`}>
              Into the bin
            </Word>
          )
        )}
      </span>
    </article>
  );
}
