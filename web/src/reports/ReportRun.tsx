import type { RunLine, RunView } from '../api/schema';
import { t } from '../texts/en';
import { Meter } from '../ui/Meter';
import { When } from '../ui/When';
import { Word } from '../ui/Word';

const SAYS: [RunLine['outcome'], string][] = [
  ['MAILED', 'sent'],
  ['FILED', 'on the Porch only, for want of an address'],
  ['SAME', 'the same as before, so not sent again'],
  ['LEFT', 'left the class'],
  ['STOPPED', 'not made, since it was stopped'],
  ['FAILED', 'could not be made'],
];
const NAMED = new Set<RunLine['outcome']>(['LEFT', 'FAILED', 'FILED']);
const MOST_NAMES = 6;

/** How far a run of reports is, or what became of it. It goes on when the page is left. */
export function ReportRun({ run, onStop }: { run: RunView; onStop: () => void }) {
  if (run.ended === undefined)
    return (
      <div>
        <p className="tiny muted above-0 below-1" role="status">
          {run.done} of {run.lines.length} are made. You can leave this page; it goes on.{' '}
          <Word tiny onClick={onStop}>
            Stop
          </Word>
        </p>
        <Meter done={run.done} total={run.lines.length} label="Reports made" />
      </div>
    );
  return (
    <p className="tell above-0 below-0" role="status">
      Made <When at={run.ended} />: {summary(run.lines)}.
    </p>
  );
}

/** "18 sent, 2 on the Porch only, for want of an address (Ilka Dragomir, Tama Kowhai)". */
function summary(lines: RunLine[]) {
  return SAYS.map(([outcome, word]) => {
    const of = lines.filter((l) => l.outcome === outcome);
    if (of.length === 0) return '';
    const names = NAMED.has(outcome) && of.length <= MOST_NAMES ? ` (${of.map((l) => l.student).join(', ')})` : '';
    return `${outcome === 'MAILED' ? t.count(of.length, 'report', 'reports') : of.length} ${word}${names}`;
  })
    .filter(Boolean)
    .join('; ');
}
