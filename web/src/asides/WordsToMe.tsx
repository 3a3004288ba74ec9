import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { wordsToMeOptions } from '../api/queries';
import { When } from '../ui/When';
import { Asides } from './Asides';

/** What the staff wrote to this student alone, with a box to answer. */
export function WordsToMe({ classId }: { classId: number }) {
  const { data } = useQuery(wordsToMeOptions(classId));
  if (!data || data.list.length === 0) return null;
  return (
    <section className="above-2 below-5" aria-label="Private words">
      <Asides
        at={`/api/classes/${classId}/words`}
        heading="Between you and your teachers"
        label="Answer; only your teachers read it"
        verb="Send it"
      />
    </section>
  );
}

/** That a word of the staff is not answered yet. */
export function WordWaits({ classId }: { classId: number }) {
  const last = useQuery(wordsToMeOptions(classId)).data?.list.at(-1);
  if (!last || last.own) return null;
  return (
    <p className="tell above-4 below-0">
      {last.author} wrote to you, and to nobody else, <When at={last.at} />.{' '}
      <Link className="word" to={`/classes/${classId}/my-writing`}>
        Read it
      </Link>
    </p>
  );
}
