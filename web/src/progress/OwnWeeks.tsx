import { useQuery } from '@tanstack/react-query';
import { ownWeeksOptions } from '../api/queries';
import { t } from '../texts/en';
import { StateBoard } from '../ui/StateBoard';
import css from './Weeks.module.css';

/** A student's own weeks as a line of boards. */
export function OwnWeeks({ classId }: { classId: number }) {
  const { data } = useQuery(ownWeeksOptions(classId));
  const line = data?.line;
  if (!line?.cells.some((c) => c.parts > 0)) return null;
  return (
    <section className="above-2 below-5" aria-labelledby="own-weeks">
      <h2 id="own-weeks" className={css.part}>
        My weeks
      </h2>
      <ol className={css.own}>
        {data?.heads.map((h, i) => {
          const cell = line.cells[i];
          return (
            <li key={h.day} className={`${h.isBreak ? css.break : ''} ${h.isNow ? css.now : ''}`}>
              <span className={css.no}>{h.isBreak ? <span className="away">break</span> : h.name}</span>
              {cell.parts > 0 ? (
                <span
                  className={cell.late ? css.late : undefined}
                  title={`${t.states[cell.state]}${cell.late ? ', late' : ''}`}
                >
                  <StateBoard state={cell.state} ownDate={cell.ownDate} big />
                  {cell.late && <span className="away">late</span>}
                </span>
              ) : (
                <span className={css.empty} />
              )}
            </li>
          );
        })}
      </ol>
      <p className="tiny muted above-2 below-0">
        {line.of > 0 && `${line.onTime} of ${line.of} on time`}
        {line.streak > 1 && `, ${line.streak} weeks in a row`}
        {line.of > 0 && ' · '}
        {t.count(line.comments, 'comment', 'comments')} to others
      </p>
    </section>
  );
}
