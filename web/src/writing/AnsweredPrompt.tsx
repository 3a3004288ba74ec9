import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { answeredPromptOptions } from '../api/queries';
import type { PromptAnswered } from '../api/schema';
import { useWrite } from '../api/write';
import { Wrong } from '../ui/Wrong';

const BY = {
  TAG: 'Found by its tag.',
  CATEGORY: 'Found by its category.',
  TIME: 'It was the only prompt open on its day.',
  PERSON: 'Set by a person; it stays so.',
};

/** Which prompt a post from outside answers, and by what that is known; its author and staff can say otherwise. */
export function AnsweredPrompt({ postId, untitled = false }: { postId: number; untitled?: boolean }) {
  const { data } = useQuery(answeredPromptOptions(postId));
  const set = useWrite(
    (promptId: number | undefined) => putJson<PromptAnswered>(`/api/posts/${postId}/answered-prompt`, { promptId }),
    {
      here: true,
      fills: answeredPromptOptions(postId).queryKey,
      stale: [['post', postId], ['strip'], ['paper'], ['own-posts'], ['source-entries'], ['outside-answers']],
    },
  );
  if (!data || (data.choices.length === 0 && !data.promptId)) return null;
  return (
    <>
      {!untitled && <h2>Which prompt it answers</h2>}
      <select
        className="pick full"
        aria-label="Which prompt it answers"
        value={data.promptId ?? ''}
        onChange={(e) => set.run(e.target.value ? Number(e.target.value) : undefined)}
      >
        <option value="">none</option>
        {data.choices.map((c) => (
          <option key={c.id} value={c.id}>
            {c.title}
          </option>
        ))}
      </select>
      {data.by && <p className="tiny muted above-1 below-0">{BY[data.by]}</p>}
      <Wrong says={set.problem} />
    </>
  );
}
