import { useQuery } from '@tanstack/react-query';
import { schoolWeeksOptions } from '../api/queries';
import type { ClassWeeks } from '../api/schema';
import { Loading, Trouble } from '../ui/Trouble';
import css from './Weeks.module.css';

const short = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const day = (date: string) => short.format(new Date(`${date}T12:00`));
const wait = (hours?: number) =>
  hours === undefined ? '' : hours < 48 ? `${hours} h` : `${Math.round(hours / 24)} days`;

/** For the keeper: how much is written in each class, and how long it waits. */
export function SchoolWeeksPage() {
  const { data, error, refetch } = useQuery(schoolWeeksOptions);
  return (
    <div className="page wide">
      <title>Classes by weeks · Vast Porch</title>
      <main className={css.main}>
        <h1>Classes by weeks</h1>
        <p className="muted above-2 below-4">
          Posts that went up in each week, and under them the comments. What waits is told in hours, and nobody is
          named.
        </p>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading lines={6} />}
        {data?.classes.length === 0 && <p className="muted">No teacher has made a class yet.</p>}
        {data && data.classes.length > 0 && (
          <section className={css.frame} aria-label="Classes by weeks" tabIndex={0}>
            <table className={css.school}>
              <thead>
                <tr>
                  <th scope="col">Class</th>
                  {data.mondays.map((monday) => (
                    <th key={monday} scope="col" className={css.sum}>
                      {day(monday)}
                    </th>
                  ))}
                  <th scope="col" className={css.sum} title="Three of four texts were decided on within this">
                    usual wait
                  </th>
                  <th scope="col" className={css.sum} title="How long the text waits that waits longest now">
                    waits now
                  </th>
                </tr>
              </thead>
              <tbody>
                {data.classes.map((c) => (
                  <Row key={c.id} of={c} mondays={data.mondays} />
                ))}
              </tbody>
            </table>
          </section>
        )}
      </main>
    </div>
  );
}

function Row({ of, mondays }: { of: ClassWeeks; mondays: string[] }) {
  return (
    <tr>
      <th scope="row">{of.name}</th>
      {mondays.map((monday, i) => (
        <td key={monday} className={css.sum}>
          {of.posts[i] || <span className="muted">·</span>}
          <span className={css.under}>
            {of.comments[i] || ''}
            <span className="away">{of.comments[i] ? ' comments' : ''}</span>
          </span>
        </td>
      ))}
      <td className={css.sum}>{wait(of.usualHours)}</td>
      <td className={css.sum}>{wait(of.oldestHours)}</td>
    </tr>
  );
}
