import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem, putJson } from '../api/client';
import { meOptions, paperOptions, stripOptions } from '../api/queries';
import type { Paper, Seen, Standing, Strip, StripView } from '../api/schema';
import { useKeptName } from '../session/useKeptName';
import { keepSteps, type Step, takeSteps } from './keptSteps';
import type { Wanted } from './Meanwhile';

/** Names the paper as it is on the page: every mark does. */
function seenOf(paper?: Paper): Seen | undefined {
  return paper?.evidence ? paper.given.seen : undefined;
}

const textsOf = (seen: Seen) => JSON.stringify([seen.comments, ...seen.posts.map((p) => [p.post, p.version])]);

/** Of two looks at a paper the later one; of two different texts the one that is shown. */
function newest(own?: Seen, shown?: Seen): Seen | undefined {
  return own && shown && textsOf(own) === textsOf(shown) && own.rev > shown.rev ? own : (shown ?? own);
}

/** The line of a student as an answer leaves it, before the strip is fetched anew. */
const after = (line: StripView, answer: Standing): StripView => ({
  ...line,
  seen: answer.seen,
  standing: answer.standing,
  given: answer.marks.filter((m) => m.points !== undefined || m.notCounted).map((m) => m.criterion),
});

/** Whether it may work later as it is: nothing is wrong with what was sent. */
const mayPass = (e: unknown) =>
  !(e instanceof ApiProblem) || e.status === 0 || e.status === 401 || e.status === 429 || e.status >= 500;

/** Whether a paper stands as a step wanted it: then nothing is to be decided. */
function stands(paper: Paper, { path, body }: Wanted): boolean {
  if (path === 'word') return paper.given.word === body.word;
  const mark = paper.given.marks.find((m) => path === `criteria/${encodeURIComponent(m.criterion)}`);
  return (
    mark?.points === body.points &&
    (mark?.notCounted ?? false) === body.notCounted &&
    (mark?.remark ?? '') === body.remark
  );
}

const RETRY = 4_000;
const COUNTED = 200;

/** What is between a page and the server: the steps in the order of the keys, and how each paper was left. */
interface Line {
  steps: Step[];
  of: Map<number, Seen | undefined>;
  running: Promise<void> | null;
  /** Tries again before the pause is over. */
  wake: () => void;
  /** Told when a step could not be sent. */
  held: () => void;
}

/**
 * Sends what a marker gives one after the other, in the order of the keys, each naming the paper as the one before it left it. Of several answers only the last is shown,
 * so that no earlier one takes a newer step back. What is refused because the paper stands otherwise is kept in `meanwhile`: its marker sees both and decides. While the
 * server cannot be reached, or nobody is signed in any more, the steps are kept in this browser, and sent when that is over, also after a restart.
 */
export function useMarkLine(strip: Strip, studentId: number, say: (what: string) => void, blind = false) {
  const client = useQueryClient();
  const [meanwhile, setMeanwhile] = useState<{ wanted: Wanted; problem: string } | null>(null);
  /** How many steps wait for the server to come back; 0 while it is there. */
  const [waiting, setWaiting] = useState(0);
  const line = useRef<Line>({ steps: [], of: new Map(), running: null, wake: () => {}, held: () => {} });
  const here = useRef(studentId);
  const kept = useKeptName(`marks-${strip.promptId}-`);
  const name = useRef(kept + crypto.randomUUID().slice(0, 8));
  const giver = useRef(client.getQueryData(meOptions.queryKey)?.id);
  const isOpen = useRef(true);
  const counting = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    here.current = studentId;
    setMeanwhile(null);
  }, [studentId]);

  const keep = () => keepSteps(name.current, line.current.steps);
  const put = (wanted: Wanted) => {
    const { steps, of } = line.current;
    const shown = client.getQueryData(paperOptions(strip.promptId, studentId).queryKey);
    // A fresh answer may not be drawn yet, and an older one may have been drawn after it: the newest that this page was told counts.
    if (!steps.some((s) => s.student === studentId)) of.set(studentId, newest(of.get(studentId), seenOf(shown)));
    const seen = of.get(studentId);
    if (!seen) return;
    steps.push({ student: studentId, wanted, seen });
    keep();
    setWaiting((before) => (before > 0 ? steps.length : 0));
    send();
  };
  const send = () => {
    line.current.running ??= sendAll().finally(() => {
      line.current.running = null;
    });
  };
  const sendAll = async () => {
    const { steps } = line.current;
    while (steps.length > 0 && isOpen.current) {
      const [step] = steps;
      try {
        await give(step);
      } catch (e) {
        if (mayPass(e)) {
          step.sent = true;
          keep();
          setWaiting(steps.length);
          line.current.held();
          do await pause();
          while (isOpen.current && !(await isStillMe()));
          continue;
        }
        await refused(step, e);
      }
      setWaiting(0);
      keep();
    }
  };
  /** Whether whoever gave the steps is the one who is signed in now, in this tab or another: nobody sends another's marks. */
  const isStillMe = async () => {
    const me = await client.fetchQuery({ ...meOptions, staleTime: 0 }).catch(() => undefined);
    return me?.id === giver.current;
  };
  const pause = () =>
    new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, RETRY);
      line.current.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  /** Sends the first step and takes it out of the line. */
  const give = async (step: Step) => {
    const { steps, of } = line.current;
    const { queryKey } = paperOptions(strip.promptId, step.student);
    // What is asked for the first time must come; it is asked again after the answer, which is newer.
    const isShown = client.getQueryData(queryKey) !== undefined;
    if (isShown) await client.cancelQueries({ queryKey });
    const answer = await putJson<Standing>(
      `/api/prompts/${strip.promptId}/marking/${step.student}/${step.wanted.path}`,
      { ...step.wanted.body, seen: of.get(step.student) ?? step.seen },
    );
    steps.shift();
    of.set(step.student, answer.seen);
    if (!steps.some((s) => s.student === step.student))
      client.setQueryData(queryKey, (now) => now && { ...now, given: answer });
    if (!isShown) void client.invalidateQueries({ queryKey });
    client.setQueriesData<Strip>(
      { queryKey: ['strip', strip.promptId] },
      (old) =>
        old && { ...old, students: old.students.map((s) => (s.studentId === step.student ? after(s, answer) : s)) },
    );
    if (here.current === step.student) setMeanwhile(null);
    say('');
    clearTimeout(counting.current);
    counting.current = setTimeout(countAnew, COUNTED);
  };
  /** How many are marked, here and in the band: not before each step of several, and not before its sum is drawn. */
  const countAnew = () => {
    clearTimeout(counting.current);
    void client.invalidateQueries({ queryKey: ['me'] });
    return client.invalidateQueries({ queryKey: ['strip', strip.promptId] });
  };
  /** Takes a refused step out of the line, and with it what was typed behind it: that was meant for a paper that stands otherwise. */
  const refused = async (step: Step, e: unknown) => {
    const { steps, of } = line.current;
    const options = paperOptions(strip.promptId, step.student);
    const isMeanwhile = e instanceof ApiProblem && e.code === 'marked-meanwhile';
    if (isMeanwhile && step.sent) {
      const paper = await client.fetchQuery({ ...options, staleTime: 0 }).catch(() => undefined);
      // It came through the first time, and only the answer was lost.
      if (paper && stands(paper, step.wanted)) {
        steps.shift();
        of.set(step.student, paper.given.seen);
        return;
      }
    }
    const others = steps.filter((s) => s.student !== step.student);
    steps.splice(0, steps.length, ...others);
    of.delete(step.student);
    const problem = e instanceof ApiProblem ? e.message : 'This was not kept. Please try again.';
    if (here.current !== step.student)
      say(
        `${strip.students.find((s) => s.studentId === step.student)?.name}, ${step.wanted.says}: this was not kept. ${problem}`,
      );
    else if (isMeanwhile) setMeanwhile({ wanted: step.wanted, problem });
    else say(problem);
    void client.invalidateQueries({ queryKey: options.queryKey });
  };
  const sendKept = useRef(() => {
    line.current.steps.push(...takeSteps(kept));
    keep();
    if (line.current.steps.length > 0) send();
  });
  // What an earlier page could not send goes first; the line stops with the page, and what is left waits for the next one.
  useEffect(() => {
    isOpen.current = true;
    sendKept.current();
    const wake = () => line.current.wake();
    window.addEventListener('online', wake);
    return () => {
      isOpen.current = false;
      window.removeEventListener('online', wake);
      wake();
    };
  }, []);
  /** The strip, when everything that was given has been answered. */
  const settled = async () => {
    const problem = new ApiProblem(
      0,
      'offline',
      'What you gave is not sent yet. It is kept here until the server is back.',
    );
    if (waiting > 0) throw problem;
    // Nothing is released minutes later, when the server is back, without being asked for again.
    await Promise.race([
      line.current.running,
      new Promise<never>((_, reject) => {
        line.current.held = () => reject(problem);
      }),
    ]);
    await countAnew();
    return client.getQueryData(stripOptions(strip.promptId, blind).queryKey) ?? strip;
  };
  return { put, settled, meanwhile, waiting, leave: () => setMeanwhile(null) };
}
