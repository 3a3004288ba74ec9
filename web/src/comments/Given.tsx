import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { givenOptions, promptsOptions } from '../api/queries';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { When } from '../ui/When';

/** How many comments each student gave for a prompt, of those asked for; for staff. */
export function GivenTable({ prompt }: { prompt: number }) {
  const { data } = useQuery(givenOptions(prompt));
  const { id } = useClass();
  if (!data) return null;
  const done = data.filter((g) => g.given >= g.asked).length;
  return (
    <>
      <p className="tiny muted above-2 below-2">
        {done} of {data.length} have given {data[0]?.asked} or more
        {data[0]?.due ? (
          <>
            , asked for until <When at={data[0].due} />
          </>
        ) : null}
        .
      </p>
      <table className="rows measure-s">
        <thead>
          <tr>
            <th>Name</th>
            <th className="nums">Comments given</th>
          </tr>
        </thead>
        <tbody>
          {data.map((g) => (
            <tr key={g.place}>
              <td>
                <Link to={`/classes/${id}/persons/${g.place}`}>{g.name}</Link>
              </td>
              <td className="nums">
                {g.given} of {g.asked}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** What a student still owes classmates, prompt by prompt; nothing where nothing is owed. */
export function Owed() {
  const { id } = useClass();
  const { data: prompts = [] } = useQuery(promptsOptions(id));
  const asking = prompts.filter((p) => p.commentsOpen).slice(0, 3);
  return (
    <>
      {asking.map((p) => (
        <OwedFor key={p.id} prompt={p.id} title={p.title} />
      ))}
    </>
  );
}

function OwedFor({ prompt, title }: { prompt: number; title: string }) {
  const { id } = useClass();
  const { data } = useQuery(givenOptions(prompt));
  const own = data?.[0];
  if (!own || own.given >= own.asked) return null;
  return (
    <p className="tell above-4 below-0">
      You have given {own.given} of {t.count(own.asked, 'comment', 'comments')} for {title}
      {own.due ? (
        <>
          , until <When at={own.due} />
        </>
      ) : null}
      .{' '}
      <Link className="word" to={`/classes/${id}/porch?prompt=${prompt}&unanswered=yes`}>
        Who waits for an answer
      </Link>
    </p>
  );
}
