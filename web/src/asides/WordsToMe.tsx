import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { wordsToMeOptions } from '../api/queries';
import { When } from '../ui/When';
import { Asides } from './Asides';

/** Of the word and not of the reader: several may share this computer. */
const seenName = (word: number) => `word-seen-${word}`;

/** What the staff wrote to this student alone, with a box to answer. What stands here has been seen. */
export function WordsToMe({ classId }: { classId: number }) {
  const { data } = useQuery(wordsToMeOptions(classId));
  const last = data?.list.at(-1)?.id;
  useEffect(() => {
    if (last !== undefined) localStorage.setItem(seenName(last), 'yes');
  }, [last]);
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

/** That the staff wrote something which was not looked at on this computer. */
export function WordWaits({ classId }: { classId: number }) {
  const last = useQuery(wordsToMeOptions(classId)).data?.list.at(-1);
  if (!last || last.own || localStorage.getItem(seenName(last.id))) return null;
  return (
    <p className="tell above-4 below-0">
      {last.author} wrote to you, and to nobody else, <When at={last.at} />.{' '}
      <Link className="word" to={`/classes/${classId}/my-writing`}>
        Read it
      </Link>
    </p>
  );
}
