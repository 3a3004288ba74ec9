import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { promptsOptions } from '../api/queries';
import { Asides } from '../asides/Asides';
import { GivenTable } from '../comments/Given';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { CopyLink } from '../ui/LastingLink';
import { Loading, Trouble } from '../ui/Trouble';
import { Due } from '../ui/When';

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
        <div style={{ display: 'flex', alignItems: 'baseline' }}>
          <h1>Prompts</h1>
          {manages && (
            <Link className="word" style={{ marginLeft: 'auto' }} to={`/classes/${id}/prompts/new`}>
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
          <section key={p.id} style={{ padding: '18px 0', borderBottom: '1px solid var(--line)' }}>
            <h2>{p.title}</h2>
            <p className="muted" style={{ margin: '2px 0 6px', fontSize: 15 }}>
              <Due at={p.due} /> · {t.count(p.points, 'point', 'points')}
              {p.rubric ? ` · ${p.rubric.criteria.map((c) => c.name).join(', ')}` : ' · no rubric'}
            </p>
            <p style={{ margin: 0, font: '17px/1.55 var(--serif)', color: 'var(--reading)' }}>{p.instructions}</p>
            <p style={{ margin: '6px 0 0' }}>
              <Link className="word" to={`/classes/${id}/porch?prompt=${p.id}`}>
                Its posts
              </Link>
              {' · '}
              <Link className="word" to={`/classes/${id}/mark/${p.id}`}>
                Mark
              </Link>
              {' · '}
              <CopyLink path={`/classes/${id}/write?prompt=${p.id}`} />
            </p>
            {p.asked.comments > 0 && (
              <details style={{ marginTop: 8 }} onToggle={(e) => show(`g${p.id}`, e.currentTarget.open)}>
                <summary className="tiny" style={{ cursor: 'pointer' }}>
                  Comments given
                </summary>
                {shown[`g${p.id}`] && <GivenTable prompt={p.id} />}
              </details>
            )}
            <details style={{ marginTop: 8 }} onToggle={(e) => show(`s${p.id}`, e.currentTarget.open)}>
              <summary className="tiny" style={{ cursor: 'pointer' }}>
                Among the staff
              </summary>
              {shown[`s${p.id}`] && (
                <div style={{ maxWidth: 520, marginTop: 8 }}>
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
