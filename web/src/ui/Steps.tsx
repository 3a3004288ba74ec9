import type { Criterion, MarkView } from '../api/schema';
import css from './Steps.module.css';

/** Somebody else's step on the same stair. */
export interface Dot {
  who: string;
  points: number;
  /** Whether it is a second marker's, else the author's own. @default false */
  ring?: boolean;
}

interface StepsProps {
  criterion: Criterion;
  mark?: MarkView;
  /** Whether the keys work on this stair. @default false */
  isCurrent?: boolean;
  /** How others saw it who are not the marker: each a dot over the step that they gave. */
  dots?: Dot[];
  /** Without it the stair is only looked at. */
  onChoose?: (points: number) => void;
}

const LOWEST = 44;
const HIGHEST = 88;

/** A criterion as a stair: a step for each level, the chosen one in teal. */
export function Steps({ criterion, mark, isCurrent = false, dots = [], onChoose }: StepsProps) {
  const { levels } = criterion;
  const height = (i: number) => LOWEST + ((HIGHEST - LOWEST) * i) / Math.max(1, levels.length - 1);
  const chosen = levels.find((l) => mark?.points === l.points);
  const over = (i: number) => dots.filter((d) => d.points >= levels[i].points && !(d.points >= levels[i + 1]?.points));
  const between = !chosen && mark?.points !== undefined;
  return (
    <>
      <h3>
        {criterion.name}{' '}
        {mark?.notCounted ? (
          <span>not counted</span>
        ) : between ? (
          <span className={css.between}>
            {mark.points} of {levels.at(-1)?.points}
          </span>
        ) : (
          <span>weight {criterion.weight}</span>
        )}
      </h3>
      <div
        className={`${css.steps} ${mark?.notCounted ? css.aside : ''} ${dots.length > 0 ? css.dotted : ''} on-paper`}
        role="radiogroup"
        aria-label={criterion.name}
      >
        {levels.map((level, i) => (
          <button
            key={level.points}
            type="button"
            role="radio"
            aria-checked={mark?.points === level.points}
            aria-label={[`${level.points} ${level.name}`, ...over(i).map((d) => d.who)].join(', ')}
            title={level.descriptor}
            tabIndex={isCurrent ? 0 : -1}
            disabled={!onChoose}
            className={`${css.step} ${onChoose ? '' : css.static}`}
            style={{ height: height(i) }}
            onClick={() => onChoose?.(level.points)}
          >
            {over(i).length > 0 && (
              <span className={css.dots} aria-hidden="true">
                {over(i).map((d) => (
                  <i key={d.who} className={d.ring ? css.ring : undefined} />
                ))}
              </span>
            )}
            <span>{level.points}</span> <span>{level.name}</span>
          </button>
        ))}
      </div>
      {chosen && <p className={css.descriptor}>{chosen.descriptor}</p>}
    </>
  );
}
