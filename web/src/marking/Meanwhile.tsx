import type { Paper } from '../api/schema';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import css from './Mark.module.css';

/** Something that a marker gives: where it goes, what is sent, and how it is said. */
export interface Wanted {
  path: string;
  body: Record<string, unknown>;
  says: string;
}

interface MeanwhileProps {
  /** The paper as it stands now. */
  paper: Paper;
  wanted: Wanted;
  problem: string;
  onGive: () => void;
  onLeave: () => void;
}

/** Somebody was faster, or the text is another one now: what stands there and what one wanted to give, to choose between. */
export function Meanwhile({ paper, wanted, problem, onGive, onLeave }: MeanwhileProps) {
  const given = (paper.rubric?.criteria ?? []).flatMap((c) => {
    const points = paper.given.marks.find((m) => m.criterion === c.id)?.points;
    return points === undefined ? [] : [`${c.name}: ${points}`];
  });
  return (
    <div className={css.meanwhile} role="alert">
      <p>
        <b>{problem}</b>
      </p>
      <dl>
        <dt>Stands there now{paper.given.marker ? `, by ${paper.given.marker}` : ''}</dt>
        <dd>
          {given.length > 0 ? given.join(' · ') : 'no marks yet'}
          {paper.given.word && (
            <>
              <br />“{paper.given.word}”
            </>
          )}
        </dd>
        <dt>You wanted to give</dt>
        <dd>{wanted.says}</dd>
      </dl>
      <Button onClick={onGive}>Give mine</Button> <Word onClick={onLeave}>Leave it as it stands</Word>
    </div>
  );
}
