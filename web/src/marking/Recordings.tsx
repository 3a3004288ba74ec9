import { useState } from 'react';
import { deleteJson, putJson } from '../api/client';
import type { Recording } from '../api/schema';
import { useWrite } from '../api/write';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Recordings.module.css';
import { Remark } from './Remark';

interface RecordingsProps {
  recordings: Recording[];
  /** The prompt whose papers are read again when one is taken away; without it they are only played. */
  promptId?: number;
}

/** What was spoken or filmed as feedback. */
export function Recordings({ recordings, promptId }: RecordingsProps) {
  const remove = useWrite((id: number) => deleteJson(`/api/recordings/${id}`), {
    here: true,
    stale: [['paper', promptId]],
  });
  const [changing, setChanging] = useState<number | null>(null);
  const change = useWrite(
    (to: { recording: Recording; summary: string }) =>
      putJson(`/api/recordings/${to.recording.id}`, { was: to.recording.summary, summary: to.summary }),
    { here: true, stale: [['paper', promptId]] },
  );
  if (recordings.length === 0) return null;
  return (
    <ul className={css.recordings} aria-label="Spoken feedback">
      {recordings.map((r) => (
        <li key={r.id}>
          {r.kind === 'SOUND' ? (
            <audio controls preload="metadata" src={r.address} aria-label={`${r.by} says`} />
          ) : (
            <video controls preload="metadata" src={r.address} aria-label={`${r.by} shows`} />
          )}
          {changing === r.id ? (
            <Remark
              label="What it says, in short"
              criterion=""
              level=""
              begin={r.summary}
              onKeep={(summary) => {
                setChanging(null);
                if (summary.trim() !== r.summary) change.run({ recording: r, summary });
              }}
            />
          ) : (
            <p className="above-1 below-0">
              {r.summary} <span className="muted tiny">{r.by}</span>{' '}
              {promptId && (
                <>
                  <Word tiny disabled={change.busy} onClick={() => setChanging(r.id)}>
                    Change the words
                  </Word>{' '}
                  <Word tiny disabled={remove.busy} onClick={() => remove.run(r.id)}>
                    Take it away
                  </Word>
                </>
              )}
            </p>
          )}
        </li>
      ))}
      <Wrong says={remove.problem || change.problem} />
    </ul>
  );
}
