import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { promptsOptions } from '../api/queries';
import { Asides } from '../asides/Asides';
import { GivenTable } from '../comments/Given';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { CleanHtml } from '../ui/CleanHtml';
import { CopyLink } from '../ui/LastingLink';
import { Loading, Trouble } from '../ui/Trouble';
import { Due } from '../ui/When';
import { OutsideAnswers } from '../writing/OutsideAnswers';
import { CopyElsewhere } from './CopyElsewhere';

export function PromptsPage() {
  const { id, name, manages } = useClass();
  const prompts = useQuery(promptsOptions(id));
  // What is folded away is asked for once it is opened.
  const [shown, setShown] = useState<Record<string, boolean>>({});
  const show = (what: string, open: boolean) => setShown((before) => ({ ...before, [what]: open }));
  return (
    <div className="page plain">
      <title>{`Prompts · ${name}`}</title>
      <main>
        <div className="row">
          <h1>Prompts</h1>
          {manages && (
            <Link className="word push" to={`/classes/${id}/prompts/new`}>
              Set a prompt
            </Link>
          )}
        </div>
        {prompts.isPending && <Loading />}
        {prompts.isError && <Trouble error={prompts.error} onRetry={() => prompts.refetch()} />}
        {prompts.data?.length === 0 && (
          <p className="muted">No prompt is set yet. A prompt says what to write, until when, and how it is marked.</p>
        )}
        {prompts.data?.map((p) => (
          <section className="inside-4 foot-4 ruled" key={p.id}>
            <h2>
              <Link to={`/classes/${id}/prompt/${p.id}`}>{p.title}</Link>
            </h2>
            <p className="muted above-1 below-2 less">
              <Due at={p.due} /> · {t.count(p.points, 'point', 'points')}
              {p.rubric ? ` · ${p.rubric.criteria.map((c) => c.name).join(', ')}` : ' · no rubric'}
            </p>
            <CleanHtml className="reading less" html={p.instructions} />
            <p className="above-2 below-0">
              <Link className="word" to={`/classes/${id}/porch?prompt=${p.id}`}>
                Its posts
              </Link>
              {' · '}
              <Link className="word" to={`/classes/${id}/mark/${p.id}`}>
                Mark
              </Link>
              {' · '}
              {manages && (
                <>
                  <Link className="word" to={`/classes/${id}/prompts/${p.id}`} aria-label={`Change ${p.title}`}>
                    Change
                  </Link>
                  {' · '}
                  <Link
                    className="word"
                    to={`/classes/${id}/prompts/new?from=${p.id}&weeks=1`}
                    aria-label={`Copy for a week later: ${p.title}`}
                  >
                    Copy for a week later
                  </Link>
                  {' · '}
                  <CopyElsewhere prompt={p} />
                </>
              )}
              <CopyLink path={`/classes/${id}/prompt/${p.id}`} />
            </p>
            {p.asked.comments > 0 && (
              <details className="above-2" onToggle={(e) => show(`g${p.id}`, e.currentTarget.open)}>
                <summary className="tiny points">Comments given</summary>
                {shown[`g${p.id}`] && <GivenTable prompt={p.id} />}
              </details>
            )}
            <details className="above-2" onToggle={(e) => show(`o${p.id}`, e.currentTarget.open)}>
              <summary className="tiny points">From outside blogs</summary>
              {shown[`o${p.id}`] && <OutsideAnswers prompt={p.id} classId={id} />}
            </details>
            <details className="above-2" onToggle={(e) => show(`s${p.id}`, e.currentTarget.open)}>
              <summary className="tiny points">Among the staff</summary>
              {shown[`s${p.id}`] && (
                <div className="measure above-2">
                  <Asides at={`/api/prompts/${p.id}/staff-thread`} label="No student ever reads this" verb="Add it" />
                </div>
              )}
            </details>
          </section>
        ))}
      </main>
    </div>
  );
}
