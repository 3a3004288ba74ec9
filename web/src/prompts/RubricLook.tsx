import { useState } from 'react';
import type { Criterion, MarkView } from '../api/schema';
import { Steps } from '../ui/Steps';
import css from './RubricBuilder.module.css';

type As = 'marker' | 'student' | 'phone';
const AS: Record<As, string> = {
  marker: 'as whoever marks',
  student: 'as a student who got marks',
  phone: 'the same on a phone',
};

/** The steps as others will have them before them; what is chosen here is kept nowhere. */
export function RubricLook({ criteria }: { criteria: Criterion[] }) {
  const [as, setAs] = useState<As>('marker');
  const [marks, setMarks] = useState<Record<string, number>>({});
  const named = criteria.filter((c) => c.name.trim());
  // Where nothing was tried yet a student sees the step below the highest.
  const markOf = (c: Criterion): MarkView => ({
    criterion: c.id,
    notCounted: false,
    remark: '',
    points: marks[c.id] ?? (as === 'marker' ? undefined : c.levels[Math.max(0, c.levels.length - 2)].points),
  });
  return (
    <details className={css.look}>
      <summary>Look at them</summary>
      <p className="row wrap above-2">
        {(Object.keys(AS) as As[]).map((a) => (
          <label key={a}>
            <input type="radio" name="rubric-look" checked={as === a} onChange={() => setAs(a)} /> {AS[a]}
          </label>
        ))}
      </p>
      <div className={as === 'phone' ? css.phone : css.desk} data-as={as}>
        {named.length === 0 && <p className="muted">No criterion has a name yet.</p>}
        {named.map((c) => (
          <div key={c.id}>
            <Steps
              criterion={c}
              mark={markOf(c)}
              isCurrent={as === 'marker'}
              onChoose={as === 'marker' ? (points) => setMarks({ ...marks, [c.id]: points }) : undefined}
            />
          </div>
        ))}
      </div>
    </details>
  );
}
