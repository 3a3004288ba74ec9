import { Modal } from '@mantine/core';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { Recorder, type Source } from '../writing/Recorder';

const LONGEST_SECONDS = 300;
const SOURCES: [Source, string][] = [
  ['voice', 'My voice'],
  ['camera', 'Me, with the camera'],
  ['screen', 'The screen, with my voice'],
];

interface SayItProps {
  /** Whose feedback it is. */
  name: string;
  onClose: () => void;
  /** @param words what it says, in short */
  onSay: (file: File, words: string) => void;
}

/** Feedback that is spoken or filmed, with a line about what it says for whoever cannot listen. */
export function SayIt({ name, onClose, onSay }: SayItProps) {
  const [source, setSource] = useState<Source | null>(null);
  const [summary, setSummary] = useState('');
  if (source)
    return (
      <Recorder
        source={source}
        longest={LONGEST_SECONDS}
        title={`For ${name}`}
        verb="Keep it"
        beside={
          <label className="block below-3">
            In a few words, for whoever cannot listen
            <input
              className="slip full"
              value={summary}
              maxLength={2000}
              onChange={(e) => setSummary(e.target.value)}
            />
          </label>
        }
        onClose={onClose}
        onTake={(file) => onSay(file, summary)}
      />
    );
  return (
    <Modal opened onClose={onClose} title={`Say it to ${name}`}>
      <p className="above-0 below-3">Up to five minutes. It is heard with the marks, once they are released.</p>
      <p className="row wrap above-0 below-0">
        {SOURCES.map(([is, word]) => (
          <Button key={is} onClick={() => setSource(is)}>
            {word}
          </Button>
        ))}
      </p>
    </Modal>
  );
}
