import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { postJson, putJson } from '../api/client';
import { gonePostsOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { RuleChoice } from '../ui/RuleChoice';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

const RULES = [
  { value: 'ASK', label: 'Ask, each time' },
  { value: 'KEEP', label: 'Keep it here' },
  { value: 'HIDE', label: 'Hide it here too' },
];

/** Posts whose pages were taken away outside, and what the class does with such. */
export function GonePosts({ classId }: { classId: number }) {
  const query = gonePostsOptions(classId);
  const { data } = useQuery(query);
  const settle = useWrite(
    ({ post, hide }: { post: number; hide: boolean }) => postJson(`/api/posts/${post}/gone`, { hide }),
    { here: true, stale: [query.queryKey, ['porch', classId]] },
  );
  if (!data) return null;
  return (
    <>
      {data.rule === 'ASK' && data.posts.length > 0 && (
        <section className="above-6">
          <h2 className="below-2">No longer there</h2>
          {data.posts.map((p) => (
            <p key={p.postId} className="ruled-above inside-2 foot-2 row wide wrap above-0 below-0">
              <span className="grow">
                <Link className="word" to={`/classes/${classId}/posts/${p.postId}`}>
                  {p.title || 'Without a title'}
                </Link>{' '}
                <span className="muted tiny">
                  · {p.person} · its page is gone since <When at={p.at} />
                </span>
              </span>
              <Word tiny onClick={() => settle.run({ post: p.postId, hide: false })} aria-label={`Keep it: ${p.title}`}>
                Keep it
              </Word>
              <Word tiny onClick={() => settle.run({ post: p.postId, hide: true })} aria-label={`Hide it: ${p.title}`}>
                Hide it
              </Word>
            </p>
          ))}
          <Wrong says={settle.problem} />
        </section>
      )}
      <RuleChoice
        title="When a post is taken away where it was written"
        label="When a post is taken away where it was written"
        choices={RULES}
        rule={data.rule}
        queryKey={query.queryKey}
        send={(rule, seen) => putJson(`/api/classes/${classId}/gone-posts`, { rule, seen })}
      >
        A page counts as taken away when its site says so twice, a day apart. What is hidden can be shown again.
      </RuleChoice>
    </>
  );
}
