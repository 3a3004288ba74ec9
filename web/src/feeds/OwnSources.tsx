import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson } from '../api/client';
import { ownRuleOptions, ownSourcesOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { Register } from './Register';
import { SourceHealth, SourceLooks } from './SourceLine';

/** So many a student can have in a class. */
const MOST = 3;

/** A student's own blogs outside, and a way to have them looked at now. */
export function OwnSources({ classId }: { classId: number }) {
  const { data: sources } = useQuery(ownSourcesOptions(classId));
  const [said, setSaid] = useState('');
  const look = useWrite(() => postJson(`/api/classes/${classId}/sources/mine/refresh`), {
    here: true,
    stale: [
      ['own-sources', classId],
      ['own-posts', classId],
    ],
    onDone: () => setSaid('Your blog was looked at. What is new stands above.'),
  });
  const { data: rule } = useQuery(ownRuleOptions(classId));
  const back = useWrite((id: number) => deleteJson(`/api/sources/${id}/mine`), {
    here: true,
    stale: [['own-sources', classId]],
  });
  const mayAdd = rule !== undefined && rule.own !== 'STAFF_ONLY' && (sources?.length ?? MOST) < MOST;
  if (!sources?.length && !mayAdd) return null;
  const gathered = sources?.filter((s) => !s.asked) ?? [];
  return (
    <section className="above-6">
      <h2>My blog outside</h2>
      {sources?.map((s) => (
        <div key={s.id} className="ruled-above inside-3 foot-3">
          <a href={s.siteAddress || s.feedAddress} target="_blank" rel="noopener noreferrer">
            {s.title}
          </a>
          <p className="muted less above-1 below-0">
            <SourceHealth source={s} />
          </p>
          {s.lastError && <p className="tell wrong above-2 below-0">{s.lastError}</p>}
          <SourceLooks source={s} />
          {s.asked && (
            <p className="above-1 below-0">
              <Word tiny onClick={() => back.run(s.id)} aria-label={`Take it back: ${s.title}`}>
                Take it back
              </Word>
            </p>
          )}
        </div>
      ))}
      {gathered.length > 0 && (
        <p className="above-3 below-0">
          <Word onClick={() => look.run()} disabled={look.busy}>
            {look.busy ? 'Looking' : 'I have just published something'}
          </Word>
        </p>
      )}
      {mayAdd && <Register classId={classId} asks={rule.own === 'ASKED'} />}
      <p className="muted tiny above-1 below-0" role="status">
        {said}
      </p>
      <Wrong says={look.problem || back.problem} />
    </section>
  );
}
