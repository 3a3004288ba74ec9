import { Textarea } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { paperOptions } from '../api/queries';
import type { Paper, SecondLine } from '../api/schema';
import { useWrite } from '../api/write';
import { againstFirst } from '../reviews/apart';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

interface SecondsNoteProps {
  paper: Paper;
  manages: boolean;
}

/** What others gave who read a paper a second time, and which of the two counts where they lie too far apart. */
export function SecondsNote({ paper, manages }: SecondsNoteProps) {
  return paper.seconds.map((s) => (
    <div key={s.readerId} className="tell below-3">
      <p className="above-0 below-0">
        <b>{s.reader}</b> has read this too: {againstFirst(s.apart)}.{' '}
        {s.comesBack && 'That is further apart than this class lets pass. Talk it over below, among the staff.'}
        {s.settled &&
          ` ${s.settled.by ?? 'A teacher'} has settled it: the ${s.settled.takesSecond ? 'second reading' : 'first marks'} count. “${s.settled.reason}”`}
      </p>
      {s.comesBack && manages && <Settle paper={paper} second={s} />}
    </div>
  ));
}

function Settle({ paper, second }: { paper: Paper; second: SecondLine }) {
  const client = useQueryClient();
  const [reason, setReason] = useState('');
  const [open, setOpen] = useState(false);
  const settle = useWrite(
    (takesSecond: boolean) =>
      putJson(`/api/prompts/${paper.promptId}/second-readings/${paper.studentId}/by/${second.readerId}/settled`, {
        seen: paper.given.seen,
        rev: second.rev,
        takesSecond,
        reason,
      }),
    {
      here: true,
      stale: [['second-readings'], ['strip', paper.promptId]],
      onDone: () => client.invalidateQueries({ queryKey: paperOptions(paper.promptId, paper.studentId).queryKey }),
    },
  );
  if (!open) return <Word onClick={() => setOpen(true)}>Set what counts</Word>;
  return (
    <>
      <Textarea
        className="above-2"
        label="Why"
        description="Both readers see it; the student too, if a score that was shown changes."
        autosize
        autoFocus
        maxLength={1000}
        value={reason}
        onChange={(e) => setReason(e.currentTarget.value)}
      />
      <Wrong says={settle.problem} />
      <p className="row wrap above-3 below-0">
        <Button disabled={settle.busy} onClick={() => settle.run(false)}>
          The first marks count
        </Button>
        <Button disabled={settle.busy} onClick={() => settle.run(true)}>
          The second reading counts
        </Button>
        <Word onClick={() => setOpen(false)}>Not now</Word>
      </p>
    </>
  );
}
