import { useQuery } from '@tanstack/react-query';
import { postJson } from '../api/client';
import { mailOffersOptions, subscriptionsOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { useEyes } from '../session/eyes';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './News.module.css';

const ANSWERS = [
  ['DAILY', 'Once a day'],
  ['WEEKLY', 'Once a week'],
  ['NEVER', 'No, thank you'],
] as const;

/** A class asks once whether one wants mail about what is new there; any answer ends the question. */
export function MailOffer({ classId }: { classId?: number }) {
  const eyes = useEyes();
  const { data } = useQuery({ ...mailOffersOptions, enabled: !eyes });
  const answer = useWrite(
    ({ of, posts }: { of: number; posts: string }) => postJson(`/api/subscriptions/offers/${of}`, { posts }),
    { here: true, stale: [mailOffersOptions.queryKey, subscriptionsOptions.queryKey] },
  );
  if (eyes || !data) return null;
  const offers = data.filter((o) => classId === undefined || o.classId === classId);
  return (
    <>
      {offers.map((o) => (
        <div key={o.classId} className={css.offer} role="group" aria-label={`Mail from ${o.className}`}>
          <span>
            {classId === undefined ? o.className : 'This class'} can send you a mail with what is new. How often would
            you like it?
          </span>
          <span className="row wide">
            {ANSWERS.map(([posts, says]) => (
              <Word key={posts} onClick={() => answer.run({ of: o.classId, posts })}>
                {says}
              </Word>
            ))}
          </span>
        </div>
      ))}
      <Wrong says={answer.problem} />
    </>
  );
}
