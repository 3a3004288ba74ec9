import { useCallback, useEffect, useState } from 'react';
import { ApiProblem, postFile, withParams } from '../api/client';
import type { Recording } from '../api/schema';
import { useWrite } from '../api/write';
import { forgetFile, type KeptFile, keepFile, keptFiles } from '../session/keptFiles';
import { useKeptName } from '../session/useKeptName';

const KEY = 36;
const AWAY = 'The server cannot be reached. The recording is kept on this computer and sent when it is back.';

/**
 * Sends what is recorded about a paper. Until the server has it, it is kept in this browser, also through a closed page; what came
 * through though its answer was lost is known by its key.
 *
 * @param onSaid what is told to the marker
 */
export function useSaying(promptId: number, studentId: number, onSaid: (says: string) => void) {
  const begin = useKeptName(`recording-${promptId}-${studentId}-`);
  const [unsent, setUnsent] = useState<KeptFile[]>([]);
  const look = useCallback(() => keptFiles(begin).then(setUnsent, () => setUnsent([])), [begin]);
  const send = useWrite(
    ({ name, file, words }: KeptFile) =>
      postFile<Recording[]>(
        withParams(`/api/prompts/${promptId}/marking/${studentId}/recordings`, {
          summary: words,
          key: name.slice(-KEY),
        }),
        file,
      ),
    {
      scope: begin,
      stale: [['paper', promptId]],
      onDone: async (_all, sent) => {
        await forgetFile(sent.name).catch(() => {});
        await look();
        onSaid('It is kept below the text, and heard with the marks once they are released.');
      },
      onWrong: (says, error) => {
        void look();
        onSaid(error instanceof ApiProblem && error.code !== 'offline' ? says : AWAY);
      },
    },
  );
  const { run } = send;
  useEffect(() => void look(), [look]);
  // What could not be sent goes out when there is a network again.
  useEffect(() => {
    const back = () => unsent.forEach((kept) => run(kept));
    window.addEventListener('online', back);
    return () => window.removeEventListener('online', back);
  }, [unsent, run]);
  const say = async (file: File, words: string) => {
    const kept = await keepFile(begin, file, words).catch(() => ({
      name: `${begin}${crypto.randomUUID()}`,
      file,
      words,
    }));
    await look();
    // Without a network it waits until there is one.
    if (!navigator.onLine) onSaid(AWAY);
    run(kept);
  };
  const takeAway = async (kept: KeptFile) => {
    await forgetFile(kept.name);
    await look();
  };
  return { say, unsent, sendAgain: run, takeAway, busy: send.busy };
}
