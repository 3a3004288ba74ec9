import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ApiProblem, putJson } from '../api/client';
import { paperOptions, stripOptions } from '../api/queries';
import type { Paper, Seen, Standing, Strip, StripView } from '../api/schema';
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
  given: answer.marks.filter((m) => m.points !== undefined || m.notCounted).map((m) => m.criterion),
});

/**
 * Sends what a marker gives one after the other, in the order of the keys, each naming the paper as the one before it left it. Of several answers only the last is shown,
 * so that no earlier one takes a newer step back. What is refused because the paper stands otherwise is kept in `meanwhile`: its marker sees both and decides.
 */
export function useMarkLine(strip: Strip, studentId: number, say: (what: string) => void, blind = false) {
  const client = useQueryClient();
  const [meanwhile, setMeanwhile] = useState<{ wanted: Wanted; problem: string } | null>(null);
  const line = useRef({ last: Promise.resolve(), of: new Map<number, { waiting: number; seen?: Seen }>() });
  const here = useRef(studentId);
  useEffect(() => {
    here.current = studentId;
    setMeanwhile(null);
  }, [studentId]);

  const put = (wanted: Wanted) => {
    const mine = line.current.of.get(studentId) ?? { waiting: 0 };
    line.current.of.set(studentId, mine);
    const shown = client.getQueryData(paperOptions(strip.promptId, studentId).queryKey);
    // A fresh answer may not be drawn yet, and an older one may have been drawn after it: the newest that this page was told counts.
    if (mine.waiting === 0) mine.seen = newest(mine.seen, seenOf(shown));
    mine.waiting++;
    line.current.last = line.current.last.then(() => keep(studentId, mine, wanted)).finally(() => mine.waiting--);
  };
  const keep = async (student: number, mine: { waiting: number; seen?: Seen }, wanted: Wanted) => {
    // After a refusal nothing of what was typed behind it is sent: it was meant for a paper that stands otherwise.
    if (!mine.seen) return;
    const { queryKey } = paperOptions(strip.promptId, student);
    try {
      await client.cancelQueries({ queryKey });
      const answer = await putJson<Standing>(`/api/prompts/${strip.promptId}/marking/${student}/${wanted.path}`, {
        ...wanted.body,
        seen: mine.seen,
      });
      mine.seen = answer.seen;
      if (mine.waiting === 1) client.setQueryData(queryKey, (now) => now && { ...now, given: answer });
      client.setQueriesData<Strip>(
        { queryKey: ['strip', strip.promptId] },
        (old) => old && { ...old, students: old.students.map((s) => (s.studentId === student ? after(s, answer) : s)) },
      );
      if (here.current === student) setMeanwhile(null);
      say('');
      void client.invalidateQueries({ queryKey: ['strip', strip.promptId] });
      void client.invalidateQueries({ queryKey: ['me'] });
    } catch (e) {
      mine.seen = undefined;
      const problem = e instanceof ApiProblem ? e.message : 'This was not kept. Please try again.';
      if (here.current !== student)
        say(
          `${strip.students.find((s) => s.studentId === student)?.name}, ${wanted.says}: this was not kept. ${problem}`,
        );
      else if (e instanceof ApiProblem && e.code === 'marked-meanwhile') setMeanwhile({ wanted, problem });
      else say(problem);
      void client.invalidateQueries({ queryKey });
    }
  };
  /** The strip, when everything that was given has been answered. */
  const settled = async () => {
    await line.current.last;
    return client.getQueryData(stripOptions(strip.promptId, blind).queryKey) ?? strip;
  };
  return { put, settled, meanwhile, leave: () => setMeanwhile(null) };
}
