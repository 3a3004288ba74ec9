import { useQuery } from '@tanstack/react-query';
import { deleteJson, postJson } from '../api/client';
import { subscriptionsOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { useEyes } from '../session/eyes';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

interface SubscribeProps {
  classId: number;
  kind: 'CLASS' | 'BLOG' | 'PERSON' | 'TAG' | 'THREAD';
  /** The number of a blog or post, or of a person's place. */
  target?: number;
  tag?: string;
  /** The page that the subscription leads to, by which it is known again. */
  to: string;
  label: string;
}

/** Subscribes to what the page shows, and ends it again: one press each. */
export function Subscribe({ classId, kind, target, tag, to, label }: SubscribeProps) {
  const eyes = useEyes();
  const { data } = useQuery({ ...subscriptionsOptions, enabled: !eyes });
  const now = data?.list.find((s) => s.kind === kind && s.classId === classId && s.to === to);
  const toggle = useWrite(
    () =>
      now ? deleteJson(`/api/subscriptions/${now.id}`) : postJson('/api/subscriptions', { classId, kind, target, tag }),
    { stale: [subscriptionsOptions.queryKey, ['news-for-me']], here: true },
  );
  if (eyes || !data) return null;
  return (
    <>
      <Button className="full below-3" mid aria-pressed={!!now} onClick={() => toggle.run()}>
        {now ? 'Subscribed. End it' : label}
      </Button>
      <Wrong says={toggle.problem} />
    </>
  );
}
