import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import { scoreHistoryOptions } from '../api/queries';
import type { Paper, ScoreLine, Standing } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Loading } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Mark.module.css';

const happened = (line: ScoreLine) => {
  if (line.kind === 'RELEASED') return `released at ${line.after}`;
  if (line.kind === 'TAKEN_BACK') return `taken back, was ${line.before}`;
  return line.before === line.after
    ? 'words changed'
    : `changed from ${line.before ?? 'none'} to ${line.after ?? 'none'}`;
};

/** What happened to a score since its student first saw it, and taking it back. */
export function ScoreHistory({ paper, manages }: { paper: Paper; manages: boolean }) {
  const [open, setOpen] = useState(false);
  const { data } = useQuery({ ...scoreHistoryOptions(paper.promptId, paper.studentId), enabled: open });
  const [reason, setReason] = useState<string | null>(null);
  const back = useWrite(
    (why: string) =>
      postJson<Standing>(`/api/prompts/${paper.promptId}/marking/${paper.studentId}/take-back`, {
        seen: paper.given.seen,
        reason: why,
      }),
    {
      here: true,
      stale: [['paper', paper.promptId], ['strip', paper.promptId], ['score-history', paper.promptId], ['me']],
      onDone: () => setReason(null),
      onWrong: () => setReason((r) => r ?? ''),
    },
  );
  return (
    <div className="above-4 less">
      {manages && paper.given.releasedAt && reason === null && (
        <Word disabled={back.busy} onClick={() => back.run('')}>
          Take the score back
        </Word>
      )}
      {reason !== null && (
        <form
          className={css.why}
          onSubmit={(e) => {
            e.preventDefault();
            back.run(reason);
          }}
        >
          <label>
            Why is it taken back?
            <input autoFocus value={reason} maxLength={1000} onChange={(e) => setReason(e.target.value)} />
          </label>
          <Button type="submit" disabled={!reason.trim() || back.busy}>
            Take it back
          </Button>{' '}
          <Word onClick={() => setReason(null)}>Leave it</Word>
          <Wrong says={reason ? back.problem : ''} />
        </form>
      )}
      <details className="above-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary className="tiny points">What happened to this score</summary>
        {open && !data && <Loading />}
        {paper.given.assistant && (
          <p className="tiny muted">
            Marked by {paper.given.assistant}
            {paper.given.takenOverBy && (
              <>
                , taken over by {paper.given.takenOverBy}, <When at={paper.given.takenOverAt!} />
              </>
            )}
            .
          </p>
        )}
        {data?.length === 0 && <p className="tiny muted">Its student has not seen it yet.</p>}
        <ul className={css.history}>
          {data?.map((line) => (
            <li key={line.at}>
              <When at={line.at} />: {happened(line)}, by {line.by}
              {line.reason && <span className="muted"> · “{line.reason}”</span>}
            </li>
          ))}
        </ul>
      </details>
    </div>
  );
}
