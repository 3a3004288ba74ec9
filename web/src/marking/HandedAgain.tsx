import { putJson } from '../api/client';
import { paperOptions } from '../api/queries';
import type { Paper, PaperPost } from '../api/schema';
import { useWrite } from '../api/write';
import { Reading } from '../reading/Reading';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Mark.module.css';

/** What an author handed in again unasked, after the time: it is marked, and late, only if the marker takes it. */
export function HandedAgain({ paper, post }: { paper: Paper; post: PaperPost }) {
  const { newer, taken } = post;
  const take = useWrite(
    (wanted: { version: number; taken: boolean }) =>
      putJson<Paper>(`/api/prompts/${paper.promptId}/marking/${paper.studentId}/taken`, {
        ...wanted,
        seen: paper.given.seen,
        post: post.postId,
      }),
    {
      here: true,
      fills: paperOptions(paper.promptId, paper.studentId).queryKey,
      stale: [['strip', paper.promptId], ['me']],
    },
  );
  return (
    <section className={css.again} aria-label="Handed in again">
      {newer ? (
        <>
          <details>
            <summary>
              {paper.student} has handed in again after the time. What stands above is what was there by then.
            </summary>
            <h2>{newer.title}</h2>
            <Reading html={newer.html} postId={post.postId} />
          </details>
          <Button disabled={take.busy} onClick={() => take.run({ version: newer.version, taken: true })}>
            Take it, late
          </Button>
        </>
      ) : (
        <p className="above-0 below-0">
          This was handed in again after the time, and taken.{' '}
          <Word disabled={take.busy} onClick={() => take.run({ version: taken!, taken: false })}>
            Mark what was there by then
          </Word>
        </p>
      )}
      <Wrong says={take.problem} />
    </section>
  );
}
