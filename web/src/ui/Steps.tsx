import type { Criterion, MarkView } from '../api/schema';
import css from './Steps.module.css';

interface StepsProps {
  criterion: Criterion;
  mark?: MarkView;
  /** Whether the keys work on this stair. @default false */
  isCurrent?: boolean;
  /** Without it the stair is only looked at. */
  onChoose?: (points: number) => void;
}

const LOWEST = 44;
const HIGHEST = 88;

/** A criterion as a stair: a step for each level, the chosen one in teal. */
export function Steps({ criterion, mark, isCurrent = false, onChoose }: StepsProps) {
  const { levels } = criterion;
  const height = (i: number) => LOWEST + ((HIGHEST - LOWEST) * i) / Math.max(1, levels.length - 1);
  const chosen = levels.find((l) => mark?.points === l.points);
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
        className={`${css.steps} ${mark?.notCounted ? css.aside : ''} on-paper`}
        role="radiogroup"
        aria-label={criterion.name}
      >
        {levels.map((level, i) => (
          <button
            key={level.points}
            type="button"
            role="radio"
            aria-checked={mark?.points === level.points}
            aria-label={`${level.points} ${level.name}`}
            title={level.descriptor}
            tabIndex={isCurrent ? 0 : -1}
            disabled={!onChoose}
            className={`${css.step} ${onChoose ? '' : css.static}`}
            style={{ height: height(i) }}
            onClick={() => onChoose?.(level.points)}
          >
            <span>{level.points}</span> <span>{level.name}</span>
          </button>
        ))}
      </div>
      {chosen && <p className={css.descriptor}>{chosen.descriptor}</p>}
    </>
  );
}
