import { postJson } from '../api/client';
import type { Released, Strip, StripView, TakenOver } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';

const lookAgain = (changed: string[]) =>
  changed.length > 0 ? ` Look again at ${changed.join(', ')}: something changed there since you opened this page.` : '';

/**
 * Showing finished marks to their students, and taking over an assistant's: of one paper, or of all that are ready.
 *
 * @param settled the papers once all that was given here is kept
 */
export function useReleasing(promptId: number, settled: () => Promise<Strip>, onSaid: (said: string) => void) {
  const seen = async (wanted: (s: StripView) => boolean, only?: number) => ({
    papers: (await settled()).students
      .filter((s) => wanted(s) && (!only || s.studentId === only))
      .map((s) => ({ student: s.studentId, seen: s.seen })),
  });
  const release = useWrite(
    async (only?: number) =>
      postJson<Released>(`/api/prompts/${promptId}/marking/release`, await seen((s) => s.standing === 'MARKED', only)),
    {
      stale: [[]],
      onDone: ({ released, changed }) =>
        onSaid(
          (released > 0
            ? `${t.count(released, 'score is', 'scores are')} released. The students see them under Feedback.`
            : 'Nothing was released.') + lookAgain(changed),
        ),
      onWrong: onSaid,
    },
  );
  const takeOver = useWrite(
    async (only?: number) =>
      postJson<TakenOver>(`/api/prompts/${promptId}/marking/take-over`, await seen((s) => s.toTakeOver, only)),
    {
      stale: [['strip', promptId], ['paper', promptId], ['me']],
      onDone: ({ takenOver, changed }) =>
        onSaid(
          (takenOver > 0
            ? `${t.count(takenOver, 'paper is', 'papers are')} taken over and can be released.`
            : 'Nothing was taken over.') + lookAgain(changed),
        ),
      onWrong: onSaid,
    },
  );
  return { release, takeOver };
}
