import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { postJson } from '../api/client';
import { warmUpOptions } from '../api/queries';
import type { WarmUpPage as View } from '../api/schema';
import { useWrite } from '../api/write';
import { apartInWords } from '../reviews/apart';
import { Judging } from '../reviews/Judging';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';

/** A student judges a paper that a teacher has marked, and sees then how near the own steps come. */
export function WarmUpPage() {
  const { id } = useClass();
  const warmUpId = Number(useParams().warmUpId);
  const { data, error, refetch } = useQuery(warmUpOptions(warmUpId));
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  const no = data.all.findIndex((p) => p.id === warmUpId) + 1;
  return (
    <div className="page plain" key={warmUpId}>
      <title>{`Warm up · ${data.title}`}</title>
      <main>
        <p className="muted above-0 below-1">
          {data.title}, <Link to={`/classes/${id}/reviews`}>reviews</Link>
        </p>
        <h1>
          Warm up, paper {no} of {data.all.length}
        </h1>
        {!data.done && (
          <p className="above-2 measure">
            Read it and choose the step that you think fits on each stair. Your teacher has marked it too; you see that
            when you are done. Nobody else reads your steps here, and they count for nothing.
          </p>
        )}
        <Paper view={data} classId={id} />
      </main>
    </div>
  );
}

function Paper({ view, classId }: { view: View; classId: number }) {
  const client = useQueryClient();
  const key = warmUpOptions(view.id).queryKey;
  const at = `/api/warm-ups/${view.id}`;
  const done = useWrite(
    () => postJson<View>(`${at}/done`, { rev: client.getQueryData<View>(key)?.own.rev ?? view.own.rev }),
    { scope: at, here: true, fills: key, stale: [['to-review', classId], ['warm-up'], ['peer-review']] },
  );
  const teacher = view.teacher;
  return (
    <>
      {teacher && <HowNear view={view} />}
      <Judging
        classId={classId}
        view={view}
        queryKey={key}
        at={at}
        stale={[]}
        can={!view.done}
        heading={teacher ? 'Your steps, and your teacher’s' : 'Your steps'}
        dots={
          teacher &&
          ((criterion) => {
            const points = teacher.marks.find((m) => m.criterion === criterion)?.points;
            return points === undefined ? [] : [{ who: 'your teacher', points, ring: true }];
          })
        }
        between={teacher && <Why view={view} />}
      />
      {view.done ? (
        <p className="above-4">
          <Link className="word" to={onward(view, classId)}>
            {view.next
              ? 'The next paper to warm up on'
              : view.review
                ? 'Now the first paper of a classmate'
                : 'All your reviews'}
          </Link>
        </p>
      ) : (
        <section className="above-4">
          <Wrong says={done.problem} />
          <p className="row wrap middle">
            <Button go disabled={done.busy || !view.own.finished} onClick={() => done.run()}>
              See how near I came
            </Button>
            <span className="muted">
              {view.own.finished ? 'After that your steps stay as they are.' : 'Once every stair has a step.'}
            </span>
          </p>
        </section>
      )}
    </>
  );
}

const onward = (view: View, classId: number) =>
  view.next
    ? `/classes/${classId}/reviews/warm-up/${view.next}`
    : view.review
      ? `/classes/${classId}/reviews/${view.review}`
      : `/classes/${classId}/reviews`;

/** How the own steps lie to the teacher's, in words. */
function HowNear({ view }: { view: View }) {
  const same = view.apart.filter((a) => a.steps === 0).length;
  const others = apartInWords(view.apart);
  return (
    <p className="tell measure" role="status">
      <b>
        {same === view.apart.length
          ? 'You chose the same steps as your teacher.'
          : `You chose the same step on ${same} of ${t.count(view.apart.length, 'stair', 'stairs')}.`}
      </b>{' '}
      {others && `You were ${others}.`} The ring is your teacher’s step.
    </p>
  );
}

/** What the teacher says to the steps, and on the whole. */
function Why({ view }: { view: View }) {
  const said = view.rubric.criteria
    .map((c) => ({ name: c.name, remark: view.teacher?.marks.find((m) => m.criterion === c.id)?.remark ?? '' }))
    .filter((s) => s.remark);
  if (said.length === 0 && !view.teacher?.word) return null;
  return (
    <section className="above-5 measure">
      <h3>What your teacher says of it</h3>
      {said.map((s) => (
        <p key={s.name}>
          <span className="muted">{s.name}:</span> {s.remark}
        </p>
      ))}
      {view.teacher?.word && <p>{view.teacher.word}</p>}
    </section>
  );
}
