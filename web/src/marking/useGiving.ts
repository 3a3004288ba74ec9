import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { paperOptions } from '../api/queries';
import type { Criterion, MarkView, Paper, Standing, Strip } from '../api/schema';
import type { Wanted } from './Meanwhile';

/** What stands for a criterion, or is to: nothing is a mark too, when it is given in place of one. */
type Mark = Omit<MarkView, 'criterion'>;

const NONE: Mark = { points: undefined, notCounted: false, remark: '' };

/** What the score is with a mark, as far as the server has told that beforehand. */
const scoreWith = (given: Standing, criterion: Criterion, mark: Mark) =>
  given.scores.find((s) => s.criterion === criterion.id && s.points === mark.points)?.score;

/**
 * The steps of a marker on one paper: shown at once, undone one after the other, and asked a reason for where the student has seen the score.
 * The sum is the server's: it says with each answer what the next step would make of it.
 */
export function useGiving(strip: Strip, studentId: number, paper: Paper | undefined, put: (wanted: Wanted) => void) {
  const client = useQueryClient();
  const criteria = paper?.rubric?.criteria ?? [];
  const undos = useRef<{ student: number; criterion: Criterion; before: Mark }[]>([]);
  const [reason, setReason] = useState({ student: 0, text: '' });
  const [held, setHeld] = useState<{ student: number; wanted: Wanted } | null>(null);
  const why = reason.student === studentId ? reason.text : '';
  const markOf = (criterion: Criterion): Mark => paper?.given.marks.find((m) => m.criterion === criterion.id) ?? NONE;

  /** Sends it, once there is a reason where one is needed. */
  const send = (wanted: Wanted) => {
    if (paper?.given.releasedAt && !why) setHeld({ student: studentId, wanted });
    else put({ ...wanted, body: { ...wanted.body, reason: why } });
  };
  const set = (criterion: Criterion, mark: Mark) => {
    const { queryKey } = paperOptions(strip.promptId, studentId);
    if (!paper?.given.releasedAt || why)
      client.setQueryData(
        queryKey,
        (now) =>
          now && {
            ...now,
            given: {
              ...now.given,
              score: scoreWith(now.given, criterion, mark) ?? now.given.score,
              // Those were for what stood before this step.
              scores: [],
              marks: [
                ...now.given.marks.filter((m) => m.criterion !== criterion.id),
                { criterion: criterion.id, ...mark },
              ],
            },
          },
      );
    send({
      path: `criteria/${encodeURIComponent(criterion.id)}`,
      body: { ...mark },
      says: `${criterion.name}: ${mark.notCounted ? 'not counted' : (mark.points ?? 'nothing')}${mark.remark ? `, “${mark.remark}”` : ''}`,
    });
  };
  const give = (criterion: Criterion, change: Partial<Mark>) => {
    if (!paper?.evidence) return;
    const before = markOf(criterion);
    const after = { ...before, ...change };
    if (after.points === before.points && after.notCounted === before.notCounted && after.remark === before.remark)
      return;
    undos.current.push({ student: studentId, criterion, before });
    set(criterion, after);
  };
  return {
    criteria,
    choose: (criterion: Criterion, points: number) => give(criterion, { points, notCounted: false }),
    /** Leaves a criterion out for this student, or counts it again. */
    leaveOut: (criterion: Criterion) =>
      give(criterion, { points: undefined, notCounted: !markOf(criterion).notCounted }),
    remark: (criterion: Criterion, remark: string) => {
      if (remark !== markOf(criterion).remark) give(criterion, { remark });
    },
    word: (word: string) => {
      if (word !== paper?.given.word) send({ path: 'word', body: { word }, says: `a word on the whole: “${word}”` });
    },
    /** Up or down a stair; the first press chooses its lowest step. */
    step: (criterion: Criterion, by: number) => {
      const { levels } = criterion;
      const now = levels.findIndex((l) => l.points === markOf(criterion).points);
      const to = levels[Math.max(0, Math.min(levels.length - 1, now < 0 ? 0 : now + by))];
      if (to !== levels[now]) give(criterion, { points: to.points, notCounted: false });
    },
    undo: () => {
      const at = undos.current.map((u) => u.student).lastIndexOf(studentId);
      const [last] = at < 0 ? [] : undos.current.splice(at, 1);
      if (last) set(last.criterion, last.before);
    },
    /** What waits for a reason, on this paper. */
    held: held?.student === studentId ? held.wanted : null,
    leaveHeld: () => {
      // What was not given is not to be undone.
      if (held?.wanted.path !== 'word') undos.current.pop();
      setHeld(null);
    },
    becauseOf: (text: string) => {
      setReason({ student: studentId, text });
      if (held) put({ ...held.wanted, body: { ...held.wanted.body, reason: text } });
      setHeld(null);
    },
  };
}
