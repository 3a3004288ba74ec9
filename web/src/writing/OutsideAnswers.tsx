import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { outsideAnswersOptions } from '../api/queries';
import { Loading } from '../ui/Trouble';
import { AnsweredPrompt } from './AnsweredPrompt';

/** The posts from outside blogs that answer a prompt, by what that is known, and a place to say otherwise. */
export function OutsideAnswers({ prompt, classId }: { prompt: number; classId: number }) {
  const { data } = useQuery(outsideAnswersOptions(prompt));
  if (!data) return <Loading />;
  if (data.length === 0) return <p className="muted less above-1 below-0">None so far.</p>;
  return data.map((a) => (
    <div key={a.postId} className="ruled-above inside-2 foot-2 above-1 row wide wrap start">
      <span className="grow">
        <Link className="word" to={`/classes/${classId}/posts/${a.postId}`}>
          {a.title || 'Without a title'}
        </Link>{' '}
        <span className="muted tiny">· {a.person}</span>
      </span>
      <span>
        <AnsweredPrompt postId={a.postId} untitled />
      </span>
    </div>
  ));
}
