import { Textarea } from '@mantine/core';
import type { MarkView, Rubric } from '../api/schema';
import { type Dot, Steps } from '../ui/Steps';
import css from './Reviews.module.css';

interface ReviewStepsProps {
  rubric: Rubric;
  marks: MarkView[];
  /** What is asked beside each stair; without it there are no words. */
  asks?: string;
  /** What others gave on a stair. */
  dots?: (criterion: string) => Dot[];
  /** Without it the steps are only looked at. */
  onGive?: (mark: { criterion: string; points?: number; remark: string }) => void;
}

/** The stairs of a rubric one under the other, each with room for words: for who reads a paper and is not its marker. */
export function ReviewSteps({ rubric, marks, asks, dots, onGive }: ReviewStepsProps) {
  return (
    <div>
      {rubric.criteria.map((c) => {
        const mark = marks.find((m) => m.criterion === c.id);
        const given = mark?.remark ?? '';
        return (
          <div key={c.id} className={css.stair}>
            <Steps
              criterion={c}
              mark={mark}
              isCurrent
              dots={dots?.(c.id)}
              onChoose={onGive && ((points) => onGive({ criterion: c.id, points, remark: given }))}
            />
            {onGive && asks ? (
              <Textarea
                className="above-2"
                label={asks}
                aria-label={`${asks} ${c.name}`}
                autosize
                minRows={1}
                maxLength={4000}
                defaultValue={given}
                onBlur={(e) => {
                  const remark = e.currentTarget.value;
                  if (remark.trim() !== given) onGive({ criterion: c.id, points: mark?.points, remark });
                }}
              />
            ) : (
              given && <p className={css.remark}>{given}</p>
            )}
          </div>
        );
      })}
    </div>
  );
}
