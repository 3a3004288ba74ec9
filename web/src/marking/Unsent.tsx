import { useEffect, useState } from 'react';
import type { KeptFile } from '../session/keptFiles';
import { Word } from '../ui/Word';
import css from './Recordings.module.css';
import type { useSaying } from './useSaying';

/** Recordings that lie on this computer and were not sent. */
export function Unsent({ voice }: { voice: ReturnType<typeof useSaying> }) {
  if (voice.unsent.length === 0) return null;
  return (
    <ul className={css.recordings} aria-label="Recorded, not sent">
      {voice.unsent.map((kept) => (
        <li key={kept.name}>
          <Heard file={kept} />
          <p className="above-1 below-0 less">
            {voice.busy && navigator.onLine ? 'Being sent.' : <b className="warm">Not sent yet.</b>} {kept.words}{' '}
            <Word tiny disabled={voice.busy} onClick={() => voice.sendAgain(kept)}>
              Send it
            </Word>{' '}
            <Word tiny disabled={voice.busy} onClick={() => void voice.takeAway(kept)}>
              Take it away
            </Word>
          </p>
        </li>
      ))}
    </ul>
  );
}

function Heard({ file: { file } }: { file: KeptFile }) {
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    const made = URL.createObjectURL(file);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [file]);
  const Player = file.type.startsWith('audio') ? 'audio' : 'video';
  return <Player controls src={address} aria-label="Recorded, not sent" />;
}
