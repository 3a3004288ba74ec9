import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { outsideTimeOptions } from '../api/queries';
import type { OutsideTimeView } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

const lateness = (days: number) => (days === 0 ? 'on time' : `${t.count(days, 'day', 'days')} late`);

/** When a gathered post counts as handed in: what its blog says, and when it was seen here; staff choose where the two differ. */
export function OutsideTime({ postId, title }: { postId: number; title?: string }) {
  const query = outsideTimeOptions(postId);
  const { data } = useQuery(query);
  const set = useWrite(
    (counts: 'SAYS' | 'FIRST_SEEN') =>
      putJson<OutsideTimeView>(`/api/posts/${postId}/outside-time`, { counts, rev: data?.rev }),
    {
      here: true,
      fills: query.queryKey,
      stale: [query.queryKey, ['post', postId], ['strip'], ['paper'], ['own-posts']],
    },
  );
  if (!data) return null;
  const differ = data.daysLateSays !== data.daysLateSeen;
  const other = data.counts === 'SAYS' ? 'FIRST_SEEN' : 'SAYS';
  return (
    <>
      {title && <h2>{title}</h2>}
      <div className={data.asked ? 'tell less above-1 below-0' : 'less muted above-1 below-0'}>
        Its blog says <When at={data.says} />; first seen here <When at={data.firstSeen} />.{' '}
        {differ &&
          (data.asked
            ? `By the one it is ${lateness(data.daysLateSays)}, by the other ${lateness(data.daysLateSeen)}. `
            : `${data.counts === 'SAYS' ? 'What its blog says' : 'When it was first seen'} counts. `)}
        {data.mayDecide && differ && data.asked && (
          <span className="row wide wrap">
            <span>Which counts?</span>
            <Word onClick={() => set.run('SAYS')}>What its blog says</Word>
            <Word onClick={() => set.run('FIRST_SEEN')}>When it was first seen</Word>
          </span>
        )}
        {data.mayDecide && differ && !data.asked && <Word onClick={() => set.run(other)}>Let the other count</Word>}
        {!data.mayDecide && data.asked && 'Your teacher decides which counts.'}
      </div>
      <Wrong says={set.problem} />
    </>
  );
}
