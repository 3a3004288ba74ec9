import { Drawer } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { weekOfStudentOptions } from '../api/queries';
import { Asides } from '../asides/Asides';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import css from './Weeks.module.css';

interface WeekBesideProps {
  classId: number;
  monday: string;
  /** Its number; empty for a week of break. */
  week: string;
  student: number;
  onClose: () => void;
}

/** What stands behind one cell of the weeks. */
export function WeekBeside({ classId, monday, week, student, onClose }: WeekBesideProps) {
  const { data, error } = useQuery(weekOfStudentOptions(classId, monday, student));
  return (
    <Drawer
      opened
      onClose={onClose}
      position="right"
      size="min(520px, 100vw)"
      title={data ? `${data.name}, ${week ? `week ${week}` : 'in the break'}` : 'A week'}
    >
      {error && <Trouble error={error} />}
      {!data && !error && <Loading />}
      {data && (
        <>
          <p className="above-0 below-4">
            <Link className="word" to={`/classes/${classId}/weeks/reports?week=${monday}&only=${student}`}>
              As a report
            </Link>
          </p>
          {data.papers.length > 0 && (
            <section className="below-4">
              <h2 className={css.part}>Due in this week</h2>
              {data.papers.map((p) => (
                <p key={p.promptId} className={css.entry}>
                  <Link className="word" to={`/classes/${classId}/mark/${p.promptId}/${student}`}>
                    {p.title}
                  </Link>
                  <span className="muted">
                    <StateBoard state={p.state} withWord />
                    {p.late && ', late'}
                  </span>
                </p>
              ))}
            </section>
          )}
          <section>
            <h2 className={css.part}>Written in this week</h2>
            {data.posts.length === 0 && <p className="muted">Nothing came.</p>}
            {data.posts.map((p) => (
              <p key={p.postId} className={css.entry}>
                <Link className="word" to={`/posts/${p.postId}`}>
                  {p.title || 'Without a title'}
                </Link>
                <span className="muted">
                  <StateBoard state={p.state} withWord /> · <When at={p.at} />
                </span>
              </p>
            ))}
          </section>
          <section className="above-5">
            <Asides
              at={`/api/classes/${classId}/people/${student}/words`}
              heading="Private words"
              label={`A word that only ${data.name} and the staff read`}
              verb="Send it"
            />
          </section>
        </>
      )}
    </Drawer>
  );
}
