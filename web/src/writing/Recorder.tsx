import { Modal } from '@mantine/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

const LONGEST_SECONDS = 600;
const clock = (s: number) => `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;

/** Records sound with the browser's microphone; it can be heard before it is put into the post. */
export function Recorder({ onClose, onTake }: { onClose: () => void; onTake: (file: File) => void }) {
  const recorder = useRef<MediaRecorder | null>(null);
  const parts = useRef<Blob[]>([]);
  const [seconds, setSeconds] = useState(0);
  const [state, setState] = useState<'ready' | 'records' | 'done'>('ready');
  const [heard, setHeard] = useState<{ blob: Blob; address: string } | null>(null);
  const [problem, setProblem] = useState('');
  const stop = useCallback(() => {
    if (recorder.current?.state === 'recording') recorder.current.stop();
    recorder.current?.stream.getTracks().forEach((track) => track.stop());
  }, []);
  useEffect(() => stop, [stop]);
  useEffect(() => {
    if (state !== 'records') return undefined;
    const timer = setInterval(() => setSeconds((s) => s + 1), 1000);
    return () => clearInterval(timer);
  }, [state]);
  useEffect(() => {
    if (seconds >= LONGEST_SECONDS) stop();
  }, [seconds, stop]);
  const start = async () => {
    setProblem('');
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      const made = new MediaRecorder(stream);
      parts.current = [];
      made.ondataavailable = (e) => parts.current.push(e.data);
      made.onstop = () => {
        const blob = new Blob(parts.current, { type: made.mimeType || 'audio/webm' });
        setHeard({ blob, address: URL.createObjectURL(blob) });
        setState('done');
      };
      recorder.current = made;
      setSeconds(0);
      made.start();
      setState('records');
    } catch {
      setProblem('The microphone cannot be used. Allow it for this page in your browser, then try again.');
    }
  };
  const take = () => {
    if (!heard) return;
    const now = new Date();
    const ending = heard.blob.type.includes('mp4') ? 'm4a' : heard.blob.type.includes('ogg') ? 'ogg' : 'webm';
    onTake(
      new File(
        [heard.blob],
        `Recording ${now.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${now.getHours()}.${String(now.getMinutes()).padStart(2, '0')}.${ending}`,
        { type: heard.blob.type.split(';')[0] },
      ),
    );
    onClose();
  };
  return (
    <Modal
      opened
      onClose={() => {
        stop();
        onClose();
      }}
      title="Record sound"
    >
      <p className="said-large above-0 below-3" role="timer" aria-label={`${seconds} seconds recorded`}>
        {clock(seconds)} <span className="muted less">of {clock(LONGEST_SECONDS)}</span>
      </p>
      {heard && state === 'done' && (
        <audio className="full below-3" controls src={heard.address} aria-label="What was recorded" />
      )}
      <Wrong says={problem} />
      <p className="row above-0 below-0">
        {state !== 'records' && (
          <Button className={state === 'ready' ? 'go' : ''} onClick={start}>
            {state === 'done' ? 'Record anew' : 'Record'}
          </Button>
        )}
        {state === 'records' && (
          <Button go onClick={stop}>
            Stop
          </Button>
        )}
        {state === 'done' && (
          <Button go onClick={take}>
            Put it in
          </Button>
        )}
      </p>
    </Modal>
  );
}
