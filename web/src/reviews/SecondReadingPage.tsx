import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { secondPageOptions } from '../api/queries';
import type { SecondPage } from '../api/schema';
import { useClass } from '../session/useClass';
import { Loading, Trouble } from '../ui/Trouble';
import { apartInWords } from './apart';
import { Judging } from './Judging';

const WHY_NOT: Partial<Record<SecondPage['can'], string>> = {
  NOTHING_HANDED_IN: 'Nothing is handed in here any more.',
  DONE_BLIND: 'You read this without the first marks. You have seen them by now, so your reading stays as it is.',
  SETTLED: 'A teacher has settled what counts here. Both readings are kept.',
};

/** A paper that a colleague marked, read a second time. */
export function SecondReadingPage() {
  const { id } = useClass();
  const { promptId, studentId } = useParams();
  const options = secondPageOptions(Number(promptId), Number(studentId));
  const { data, error, refetch } = useQuery(options);
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  const can = data.can === 'ALLOWED';
  return (
    <div className="page plain" key={studentId}>
      <title>{`${data.name} · second reading`}</title>
      <main>
        <p className="muted above-0 below-1">{data.title}, a second reading</p>
        <h1>{data.name}</h1>
        {can && (
          <p className="above-2 measure">
            {data.blind
              ? 'You read this without the first marks. They show once you have given every step.'
              : 'What you give counts only if a teacher says so. It is compared with the first marks.'}
          </p>
        )}
        {!can && <p className="tell">{WHY_NOT[data.can]}</p>}
        {data.own.finished && data.apart.length > 0 && (
          <p className="tell">
            {data.apart.some((a) => a.steps !== 0)
              ? `Against the first marks you are ${apartInWords(data.apart)}.`
              : 'You gave the same steps as the first marks.'}
          </p>
        )}
        <Judging
          classId={id}
          view={data}
          queryKey={options.queryKey}
          at={`/api/prompts/${promptId}/second-readings/${studentId}`}
          stale={[['second-readings']]}
          can={can}
          heading="Your steps"
          asks="A word on this"
          whole="For the staff alone."
          dots={(criterion) => {
            const points = data.first?.marks.find((m) => m.criterion === criterion)?.points;
            return points === undefined ? [] : [{ who: 'first marks', points, ring: true }];
          }}
          done={
            <Link
              className="word"
              to={data.next ? `/classes/${id}/second-readings/${promptId}/${data.next}` : `/classes/${id}/mark`}
            >
              {data.next ? 'Next paper' : 'Back to Mark'}
            </Link>
          }
        />
      </main>
    </div>
  );
}
