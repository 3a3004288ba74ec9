import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { putJson } from '../api/client';
import { exampleAsksOptions } from '../api/queries';
import type { ExampleAsked } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

/** What a student is asked about own posts of a class: whether they may stand as examples. */
export function ExampleAsks({ classId }: { classId: number }) {
  const { data } = useQuery(exampleAsksOptions);
  const asks = data?.filter((a) => a.postClass === classId) ?? [];
  return (
    <>
      {asks
        .filter((a) => a.given !== false)
        .map((a) => (
          <Ask key={a.id} of={a} />
        ))}
    </>
  );
}

function Ask({ of }: { of: ExampleAsked }) {
  const answer = useWrite(
    (leave: { given: boolean; named: boolean }) => putJson(`/api/examples/${of.id}/leave`, leave),
    {
      stale: [['example-asks'], ['news']],
      here: true,
    },
  );
  const post = <Link to={`/posts/${of.postId}`}>“{of.title}”</Link>;
  const where = `“${of.prompt}” in ${of.inClass}`;
  return (
    <section className="tell above-4 below-4" aria-label={`Your post as an example: ${of.title}`}>
      {of.given ? (
        <p className="above-0 below-0">
          {post} is shown as an example with {where}, {of.named ? 'with your name' : 'without your name'}.{' '}
          <Word onClick={() => answer.run({ given: false, named: false })}>Take that back</Word>
        </p>
      ) : (
        <>
          <p className="above-0">
            <b>{of.by}</b> would like to show {post}, as it is now, as an example with {where}. You decide, and can take
            it back whenever you like.
          </p>
          <p className="row wrap below-0">
            <Button mid disabled={answer.busy} onClick={() => answer.run({ given: true, named: true })}>
              Yes, with my name
            </Button>
            <Button mid disabled={answer.busy} onClick={() => answer.run({ given: true, named: false })}>
              Yes, without my name
            </Button>
            <Button mid disabled={answer.busy} onClick={() => answer.run({ given: false, named: false })}>
              No
            </Button>
          </p>
        </>
      )}
      <Wrong says={answer.problem} />
    </section>
  );
}
