import { useQuery } from '@tanstack/react-query';
import { postJson, putJson } from '../api/client';
import { marginOptions } from '../api/queries';
import type { Draft } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';
import css from './Margin.module.css';
import { MarginNote } from './MarginNote';

interface OwnMarginProps {
  draft: Draft;
  /** Saves what is typed, so that the answer is about it; tells the state of the text then, or nothing if that failed. */
  saved: () => Promise<number | null>;
  /** Called when the server changed the text. */
  onChanged: () => Promise<void>;
}

/** What staff told the author about this text: why it came back, and what they noted in its margin. */
export function OwnMargin({ draft, saved, onChanged }: OwnMarginProps) {
  const postId = draft.id;
  const { data } = useQuery(marginOptions(postId));
  const answer = useWrite(
    async ({ id, given }: { id: number; given: 'ACCEPTED' | 'DECLINED' | 'DONE' }) => {
      const rev = await saved();
      if (rev === null) return;
      await postJson(`/api/posts/${postId}/margin/${id}/answer`, { answer: given, rev });
      if (given === 'ACCEPTED') await onChanged();
    },
    { here: true, scope: `margin-${postId}`, stale: [['margin', postId]] },
  );
  const [back] = draft.history;
  const notes = data?.notes ?? [];
  const answered = notes.filter((n) => n.state !== 'OPEN');
  if (back?.step !== 'RETURN' && notes.length === 0) return null;
  return (
    <aside className={`sill ${css.told}`} aria-label="What was said to you about it">
      {back?.step === 'RETURN' && (
        <p className="tell above-0 below-3">
          <b>{back.by}</b> sent it back: “{back.note}”
        </p>
      )}
      {notes.length > 0 && <h2>In the margin</h2>}
      {notes
        .filter((n) => n.state === 'OPEN')
        .map((n) => (
          <MarginNote key={n.id} note={n} onAnswer={(given) => answer.run({ id: n.id, given })} />
        ))}
      {answered.length > 0 && (
        <details>
          <summary className="tiny muted">{t.count(answered.length, 'note', 'notes')} answered</summary>
          {answered.map((n) => (
            <MarginNote key={n.id} note={n} />
          ))}
        </details>
      )}
      <Wrong says={answer.problem} />
    </aside>
  );
}

/** Asking staff to look at a text that is not finished, and taking that back. */
export function AskForHelp({ postId }: { postId: number }) {
  const { data } = useQuery(marginOptions(postId));
  const ask = useWrite((asked: boolean) => putJson(`/api/posts/${postId}/help`, { asked }), {
    stale: [['margin', postId]],
    here: true,
  });
  if (!data?.mayAnswer) return null;
  return (
    <>
      <h2>Help with this text</h2>
      <Wrong says={ask.problem} />
      <Button className="full" mid onClick={() => ask.run(!data.asked)}>
        {data.asked ? 'A teacher was asked. Take it back' : 'Ask a teacher to look at it'}
      </Button>
    </>
  );
}
