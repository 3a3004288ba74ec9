import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { deleteJson, postJson, putJson } from '../api/client';
import { subscriptionsOptions } from '../api/queries';
import type { OpmlText, SubscriptionView } from '../api/schema';
import { useWrite } from '../api/write';
import { Loading, Trouble } from '../ui/Trouble';
import { takeAlong } from '../ui/takeAlong';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './News.module.css';

const OFTEN = { NEVER: 'never', AT_ONCE: 'at once', DAILY: 'once a day', WEEKLY: 'once a week' } as const;
type Often = keyof typeof OFTEN;

function HowOften({ label, value, onChange }: { label: string; value: string; onChange: (often: Often) => void }) {
  return (
    <select className={css.often} aria-label={label} value={value} onChange={(e) => onChange(e.target.value as Often)}>
      {(Object.keys(OFTEN) as Often[]).map((o) => (
        <option key={o} value={o}>
          {OFTEN[o]}
        </option>
      ))}
    </select>
  );
}

/** All that one subscribed to, on one page, with how often one is written to; each change is kept at once and can be taken back. */
export function SubscriptionsPage() {
  const mine = useQuery(subscriptionsOptions);
  const [ended, setEnded] = useState<SubscriptionView | null>(null);
  const act = useWrite((call: () => Promise<unknown>) => call(), {
    stale: [subscriptionsOptions.queryKey],
    here: true,
  });
  const set = (s: SubscriptionView, part: Partial<{ posts: Often; comments: Often }>) =>
    act.run(() => putJson(`/api/subscriptions/${s.id}`, { posts: s.posts, comments: s.comments, ...part }));
  const take = useWrite(() => postJson<OpmlText>('/api/subscriptions/opml'), {
    onDone: ({ text }) => takeAlong('subscriptions.opml', text),
  });
  const end = (s: SubscriptionView) => {
    setEnded(s);
    act.run(() => deleteJson(`/api/subscriptions/${s.id}`));
  };
  return (
    <div className="page plain">
      <title>My subscriptions · Vast Porch</title>
      <main>
        <div className="row">
          <h1>My subscriptions</h1>
          <Link className="word push" to="/news">
            News
          </Link>
        </div>
        {mine.isPending && <Loading />}
        {mine.isError && <Trouble error={mine.error} onRetry={() => mine.refetch()} />}
        {mine.data && (
          <>
            <p className="muted above-2 below-0">
              {mine.data.email ? (
                <>Mail goes to {mine.data.email}, with what you may read at that moment and nothing else.</>
              ) : (
                <>
                  There is no e-mail address in your account, so nothing is mailed. All of it shows under News.{' '}
                  <Link className="word" to="/account">
                    My account
                  </Link>
                </>
              )}
            </p>
            <p className={css.answers}>
              <span>Mail about answers to you, and what becomes of your posts:</span>
              <HowOften
                label="Mail about answers to you"
                value={mine.data.answers}
                onChange={(answers) => act.run(() => putJson('/api/subscriptions/answers', { answers }))}
              />
            </p>
            <Wrong says={act.problem} />
            {ended && (
              <p className="tell" role="status">
                {ended.label}: ended.{' '}
                <Word
                  onClick={() => {
                    act.run(() => postJson(`/api/subscriptions/${ended.id}/restore`));
                    setEnded(null);
                  }}
                >
                  Take back
                </Word>
              </p>
            )}
            {mine.data.list.length === 0 && (
              <p className="muted">
                You have subscribed to nothing yet. You can do it on the page of a blog, a person or a post, and for a
                tag on the Porch.
              </p>
            )}
            {mine.data.list.length > 0 && (
              <table className={`rows ${css.table}`}>
                <thead>
                  <tr>
                    <th>What</th>
                    <th>Class</th>
                    <th>Mail about posts</th>
                    <th>Mail about comments</th>
                    <th>
                      <span className="away">What to do</span>
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {mine.data.list.map((s) => (
                    <tr key={s.id}>
                      <td>
                        <Link className="word" to={s.to}>
                          {s.label}
                        </Link>
                      </td>
                      <td data-says="in">{s.className}</td>
                      <td data-says="Mail about posts">
                        {s.kind === 'THREAD' ? (
                          ''
                        ) : (
                          <HowOften
                            label={`Mail about posts: ${s.label}`}
                            value={s.posts}
                            onChange={(posts) => set(s, { posts })}
                          />
                        )}
                      </td>
                      <td data-says="Mail about comments">
                        <HowOften
                          label={`Mail about comments: ${s.label}`}
                          value={s.comments}
                          onChange={(comments) => set(s, { comments })}
                        />
                      </td>
                      <td className="right flush">
                        <Word onClick={() => end(s)} aria-label={`End: ${s.label}`}>
                          End
                        </Word>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
            {mine.data.list.length > 0 && (
              <p className="above-4 below-0">
                <Word tiny onClick={() => take.run()}>
                  Take all of them along for my feed reader (OPML)
                </Word>
              </p>
            )}
          </>
        )}
      </main>
    </div>
  );
}
