import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { ownViewOptions } from '../api/queries';
import type { OwnViewPage as View } from '../api/schema';
import { useClass } from '../session/useClass';
import { Loading, Trouble } from '../ui/Trouble';
import { Judging } from './Judging';

/** A student reads the own paper again and says by its steps how they see it. */
export function OwnViewPage() {
  const { id, name } = useClass();
  const { data, error, refetch } = useQuery(ownViewOptions(Number(useParams().promptId)));
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page plain">
      <title>{`How do you see it? · ${name}`}</title>
      <main>
        <p className="muted above-0 below-1">{data.title}</p>
        <h1>How do you see it?</h1>
        <OwnSteps view={data} classId={id} />
      </main>
    </div>
  );
}

const WHY_NOT: Partial<Record<View['can'], string>> = {
  NOTHING_HANDED_IN: 'Hand it in first; then you can say how you see it.',
  MARKS_SHOWN: 'You have seen the marks for this, so how you saw it before stays as it is.',
  LET_OFF: 'Nothing of this is asked of you.',
};

function OwnSteps({ view, classId }: { view: View; classId: number }) {
  const can = view.can === 'ALLOWED';
  return (
    <>
      {can ? (
        <p className="above-2 measure">
          {view.before
            ? 'Read your draft once more, then choose the step that fits and say why. After that, hand it in.'
            : 'Read it once more, then choose the step that fits and say why.'}{' '}
          {view.first ? 'Your marks show once you have chosen a step on every stair.' : 'Your teacher reads it too.'}{' '}
          {view.share > 0
            ? `It is ${view.share} % of your score.`
            : 'It does not change your score: it is about seeing your own work.'}
        </p>
      ) : (
        <p className="tell">{WHY_NOT[view.can]}</p>
      )}
      <Judging
        classId={classId}
        view={view}
        queryKey={ownViewOptions(view.promptId).queryKey}
        at={`/api/prompts/${view.promptId}/own-view`}
        stale={[['feedback', classId]]}
        can={can}
        heading="Your steps"
        asks="Why this step?"
        whole="What went well, what was hard?"
        done={
          <Link className="word" to={`/classes/${classId}/feedback`}>
            To your feedback
          </Link>
        }
      />
    </>
  );
}
