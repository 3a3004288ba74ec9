import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, postJson, putJson } from '../api/client';
import { marginOptions } from '../api/queries';
import { t } from '../texts/en';
import { MarginNote } from './MarginNote';

interface OwnMarginProps {
  postId: number;
  /** Saves what is typed, so that the answer is about it; tells the state of the text then, or nothing if that failed. */
  saved: () => Promise<number | null>;
  /** Called when the server changed the text. */
  onChanged: () => Promise<void>;
}

/** Beside one's own text: what staff noted in its margin, and asking them to. */
export function OwnMargin({ postId, saved, onChanged }: OwnMarginProps) {
  const { data } = useQuery(marginOptions(postId));
  const client = useQueryClient();
  const [problem, setProblem] = useState('');
  if (!data) return null;
  const act = async (what: () => Promise<unknown>) => {
    setProblem('');
    try {
      await what();
      await client.invalidateQueries({ queryKey: ['margin', postId] });
    } catch (e) {
      setProblem(e instanceof ApiProblem ? e.message : t.again);
    }
  };
  const answer = (id: number, given: 'ACCEPTED' | 'DECLINED' | 'DONE') => act(async () => {
    const rev = await saved();
    if (rev === null) return;
    await postJson(`/api/posts/${postId}/margin/${id}/answer`, { answer: given, rev });
    if (given === 'ACCEPTED') await onChanged();
  });
  return (
    <>
      <h4>{data.notes.length ? 'In the margin' : 'Help with this text'}</h4>
      {data.notes.map((n) => <MarginNote key={n.id} note={n} onAnswer={(given) => void answer(n.id, given)} />)}
      {problem && <p className="tell wrong" role="alert">{problem}</p>}
      {data.mayAnswer && <button className="btn mid" style={{ width: '100%' }} onClick={() => act(() => putJson(`/api/posts/${postId}/help`, { asked: !data.asked }))}>{data.asked ? 'A teacher was asked. Take it back' : 'Ask a teacher to look at it'}</button>}
    </>
  );
}
