import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { putJson } from '../api/client';
import { exampleAsksOptions } from '../api/queries';
import type { ExampleAsked } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

/** What a student is asked about own posts of a class: whether they may be examples, or papers to warm up on. */
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
  const isWarmUp = of.use === 'WARM_UP';
  const yes = (named: boolean) => answer.run({ given: true, named });
  return (
    <section
      className="tell above-4 below-4"
      aria-label={`Your post as ${isWarmUp ? 'a warm-up' : 'an example'}: ${of.title}`}
    >
      {of.given ? (
        <p className="above-0 below-0">
          {isWarmUp ? (
            <>
              Reviewers warm up on {post} for {where}, without your name.{' '}
            </>
          ) : (
            <>
              {post} is shown as an example with {where}, {of.named ? 'with your name' : 'without your name'}.{' '}
            </>
          )}
          <Word onClick={() => answer.run({ given: false, named: false })}>Take that back</Word>
        </p>
      ) : (
        <>
          {isWarmUp ? (
            <p className="above-0">
              <b>{of.by}</b> would like reviewers to warm up on {post}, as it is now, for {where}. They choose steps for
              it, without your name, and then read what steps the teacher gave it and why. You decide, and can take it
              back whenever you like.
            </p>
          ) : (
            <p className="above-0">
              <b>{of.by}</b> would like to show {post}, as it is now, as an example with {where}. You decide, and can
              take it back whenever you like.
            </p>
          )}
          <p className="row wrap below-0">
            {isWarmUp ? (
              <Button mid disabled={answer.busy} onClick={() => yes(false)}>
                Yes, they may
              </Button>
            ) : (
              <>
                <Button mid disabled={answer.busy} onClick={() => yes(true)}>
                  Yes, with my name
                </Button>
                <Button mid disabled={answer.busy} onClick={() => yes(false)}>
                  Yes, without my name
                </Button>
              </>
            )}
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
