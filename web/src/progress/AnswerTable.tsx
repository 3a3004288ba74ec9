import { Link } from 'react-router';
import type { AnsweringView } from '../api/schema';
import css from './WhoAnswersWhom.module.css';

/** What the picture shows, as a table: whom each answers and how often. */
export function AnswerTable({ view, classId }: { view: AnsweringView; classId: number }) {
  const answers = (row: number) =>
    view.threads
      .filter((c) => c.from === row)
      .map((c) => `${view.students[c.to].name} ${c.comments}`)
      .join(', ');
  return (
    <section className={css.frame} aria-label="Who answers whom, as a table" tabIndex={0}>
      <table className={css.table}>
        <thead>
          <tr>
            <th scope="col">Student</th>
            <th scope="col" className={css.number}>
              gave
            </th>
            <th scope="col" className={css.number}>
              got
            </th>
            <th scope="col" className={css.number}>
              from
            </th>
            <th scope="col" className={css.number}>
              answered back
            </th>
            <th scope="col">answers</th>
          </tr>
        </thead>
        <tbody>
          {view.students.map((s, i) => (
            <tr key={s.studentId}>
              <th scope="row">
                <Link to={`/classes/${classId}/persons/${s.place}`}>{s.name}</Link>
                {s.group && <span>{s.group}</span>}
              </th>
              <td className={css.number}>{s.given}</td>
              <td className={css.number}>{s.received}</td>
              <td className={css.number}>{s.answeredBy}</td>
              <td className={css.number}>{s.answeredBack}</td>
              <td>{answers(i)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
