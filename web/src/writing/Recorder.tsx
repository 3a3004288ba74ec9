import { Modal } from '@mantine/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

/** What is recorded: the voice alone, oneself before the camera, or the screen while one speaks. */
export type Source = 'voice' | 'camera' | 'screen';

interface RecorderProps {
  /** @default 'voice' */
  source?: Source;
  /** After so many seconds it stops by itself. @default 600 */
  longest?: number;
  title?: string;
  /** What stands beside a recording that is done. */
  beside?: React.ReactNode;
  verb?: string;
  onClose: () => void;
  onTake: (file: File) => void;
}

const TRIES: Record<Source, string> = {
  voice: 'The microphone cannot be used. Allow it for this page in your browser, then try again.',
  camera: 'The camera cannot be used. Allow it and the microphone for this page in your browser, then try again.',
  screen: 'The screen cannot be recorded. Choose a window and allow the microphone, then try again.',
};
/** So that five minutes have about fifteen megabytes. */
const SIZED = { videoBitsPerSecond: 350_000, audioBitsPerSecond: 48_000 };

async function streamOf(source: Source): Promise<MediaStream> {
  const { mediaDevices } = navigator;
  if (source === 'voice') return mediaDevices.getUserMedia({ audio: true });
  if (source === 'camera') return mediaDevices.getUserMedia({ audio: true, video: { width: 640, height: 480 } });
  const screen = await mediaDevices.getDisplayMedia({ video: { width: { max: 1280 }, frameRate: { max: 10 } } });
  try {
    const voice = await mediaDevices.getUserMedia({ audio: true });
    return new MediaStream([...screen.getVideoTracks(), ...voice.getAudioTracks()]);
  } catch (refused) {
    // Whoever allows no microphone is not to be watched either.
    for (const track of screen.getTracks()) track.stop();
    throw refused;
  }
}

const clock = (s: number) => `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;

/** Records in the browser; it can be heard, or seen, before it is kept. */
export function Recorder({
  source = 'voice',
  longest = 600,
  title = 'Record sound',
  beside,
  verb = 'Put it in',
  onClose,
  onTake,
}: RecorderProps) {
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
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => {
      isHere.current = false;
      stop();
    };
  }, [stop]);
  useEffect(() => {
    if (state !== 'records') return undefined;
    const timer = setInterval(() => setSeconds((s) => s + 1), 1000);
    return () => clearInterval(timer);
  }, [state]);
  useEffect(() => {
    if (seconds >= longest) stop();
  }, [seconds, longest, stop]);
  const start = async () => {
    setProblem('');
    try {
      const stream = await streamOf(source);
      if (!isHere.current) {
        // Closed while the browser was still asking.
        for (const track of stream.getTracks()) track.stop();
        return;
      }
      const made = new MediaRecorder(stream, SIZED);
      // Who ends sharing the screen in the browser's own bar ends the recording.
      stream.getVideoTracks()[0]?.addEventListener('ended', stop);
      parts.current = [];
      made.ondataavailable = (e) => parts.current.push(e.data);
      made.onstop = () => {
        const blob = new Blob(parts.current, {
          type: made.mimeType || (source === 'voice' ? 'audio/webm' : 'video/webm'),
        });
        setHeard({ blob, address: URL.createObjectURL(blob) });
        setState('done');
      };
      recorder.current = made;
      setSeconds(0);
      made.start();
      setState('records');
    } catch {
      setProblem(TRIES[source]);
    }
  };
  const take = () => {
    if (!heard) return;
    const now = new Date();
    const ending = heard.blob.type.includes('mp4')
      ? source === 'voice'
        ? 'm4a'
        : 'mp4'
      : heard.blob.type.includes('ogg')
        ? 'ogg'
        : 'webm';
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
      title={title}
    >
      <p className="said-large above-0 below-3" role="timer" aria-label={`${seconds} seconds recorded`}>
        {clock(seconds)} <span className="muted less">of {clock(longest)}</span>
      </p>
      {heard && state === 'done' && (
        <>
          {source === 'voice' ? (
            <audio className="full below-3" controls src={heard.address} aria-label="What was recorded" />
          ) : (
            <video className="full below-3" controls src={heard.address} aria-label="What was recorded" />
          )}
          {beside}
        </>
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
            {verb}
          </Button>
        )}
      </p>
    </Modal>
  );
}
