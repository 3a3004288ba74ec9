import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { askedOfMeOptions, promptsOptions, stripOptions } from '../api/queries';
import type { PromptView } from '../api/schema';
import { useClass } from '../session/useClass';
import { useKeptName } from '../session/useKeptName';
import { t } from '../texts/en';
import { Loading, NotThere } from '../ui/Trouble';
import { When } from '../ui/When';
import { hasSteps } from './keptSteps';

/** The prompts of the class with how far the marking is. */
export function ChoosePromptPage() {
  const { id, name, manages, staff } = useClass();
  const { data } = useQuery(promptsOptions(id));
  if (!staff) return <NotThere />;
  if (!data)
    return (
      <div className="page plain">
        <Loading />
      </div>
    );
  return (
    <div className="page plain">
      <title>{`Mark · ${name}`}</title>
      <main>
        <h1>Mark</h1>
        <AskedOfMe classId={id} />
        {data.length === 0 && (
          <p className="muted">
            No prompt is set yet.{' '}
            {manages && (
              <Link className="word" to={`/classes/${id}/prompts/new`}>
                Set a prompt
              </Link>
            )}
          </p>
        )}
        {data.length > 0 && (
          <p className="less">
            <Link className="word" to={`/classes/${id}/agreement`}>
              Do two readers see the same?
            </Link>
            {data.some((p) => p.reviews.peers) && (
              <Link className="word before-3" to={`/classes/${id}/reviews`}>
                Who has reviewed whom?
              </Link>
            )}
          </p>
        )}
        {data.length > 0 && (
          <div className="scrolls">
            <table className="rows above-5">
              <thead>
                <tr>
                  <th>Prompt</th>
                  <th>Due</th>
                  <th className="nums">Handed in</th>
                  <th className="nums">Marked</th>
                  <th className="nums">To release</th>
                </tr>
              </thead>
              <tbody>
                {data.map((p) => (
                  <Row key={p.id} prompt={p} classId={id} manages={manages} />
                ))}
              </tbody>
            </table>
          </div>
        )}
      </main>
    </div>
  );
}

/** Papers that a colleague asks the reader to read too. */
function AskedOfMe({ classId }: { classId: number }) {
  const { data } = useQuery(askedOfMeOptions(classId));
  return data?.map((a) => {
    const open = a.papers.filter((p) => !p.finished);
    return (
      <p key={a.promptId} className="tell row wrap middle">
        <span className="grow">
          You were asked to read {t.count(open.length, 'paper', 'papers')} of <b>{a.title}</b> a second time.
        </span>
        <Link className="word" to={`/classes/${classId}/second-readings/${a.promptId}/${open[0].studentId}`}>
          Read
        </Link>
      </p>
    );
  });
}

function Row({ prompt, classId, manages }: { prompt: PromptView; classId: number; manages: boolean }) {
  const { data } = useQuery(stripOptions(prompt.id));
  const unsent = hasSteps(useKeptName(`marks-${prompt.id}-`));
  return (
    <tr>
      <td>
        <Link className="word" to={`/classes/${classId}/mark/${prompt.id}`}>
          {prompt.title}
        </Link>
        {unsent && (
          <Link className="word tiny before-2" to={`/classes/${classId}/mark/${prompt.id}`}>
            what you gave here is not sent yet: open it to send it
          </Link>
        )}
        {!prompt.rubric && <span className="muted tiny"> no rubric</span>}
        {prompt.rubric && manages && (
          <Link className="word tiny before-2" to={`/classes/${classId}/second-readings/${prompt.id}`}>
            second readings
            {data && data.apart > 0 && <b className="warm"> ({data.apart} too far apart)</b>}
          </Link>
        )}
        {prompt.rubric && (
          <Link className="word tiny before-2" to={`/classes/${classId}/sameness/${prompt.id}`}>
            shared passages
          </Link>
        )}
        {prompt.reviews.peers && (
          <Link className="word tiny before-2" to={`/classes/${classId}/reviews/round/${prompt.id}`}>
            reviews by classmates
          </Link>
        )}
      </td>
      <td>
        <When at={prompt.due} />
      </td>
      <td className="nums">{data ? `${data.handedIn} of ${data.students.length}` : ''}</td>
      <td className="nums">{data?.marked}</td>
      <td className="nums">{data?.toRelease || ''}</td>
    </tr>
  );
}
