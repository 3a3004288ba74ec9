import type { Effects } from '../api/schema';
import { t } from '../texts/en';
import css from './Compose.module.css';

const some = (names: string[]) =>
  names.length <= 4 ? names.join(', ') : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`;

interface ChangeEffectsProps {
  effects: Effects;
  reason: string;
  onReason: (reason: string) => void;
  reasonMissing: boolean;
}

/** What a change of a prompt changes for whom, before it is kept. */
export function ChangeEffects({ effects, reason, onReason, reasonMissing }: ChangeEffectsProps) {
  const { becomeLate, becomeOnTime, scores, aside, toldDate, needsReason } = effects;
  const nothing = !becomeLate.length && !becomeOnTime.length && !scores.length && !aside.length && !toldDate;
  if (nothing) return <p className="tiny muted above-3 below-0">Nobody’s lateness or score changes by this.</p>;
  return (
    <section className={css.effects} aria-labelledby="effects">
      <h2 id="effects">What this changes</h2>
      <ul>
        {toldDate > 0 && <li>{t.count(toldDate, 'student', 'students')} could read the date that was.</li>}
        {becomeLate.length > 0 && (
          <li>
            <b>{t.count(becomeLate.length, 'student becomes', 'students become')} late</b>: {some(becomeLate)}.
          </li>
        )}
        {becomeOnTime.length > 0 && (
          <li>
            {t.count(becomeOnTime.length, 'student is', 'students are')} late no more: {some(becomeOnTime)}.
          </li>
        )}
        {scores.length > 0 && (
          <li>
            <b>{t.count(scores.length, 'score changes', 'scores change')}</b>:{' '}
            {scores
              .slice(0, 4)
              .map((s) => `${s.student} ${s.before ?? 'none'} → ${s.after ?? 'none'}`)
              .join(', ')}
            {scores.length > 4 && ` and ${scores.length - 4} more`}.
          </li>
        )}
        {aside.map((a) => (
          <li key={a.criterion}>
            {t.count(a.marks, 'mark', 'marks')} for {a.criterion} {a.marks === 1 ? 'is' : 'are'} kept, and{' '}
            {a.marks === 1 ? 'counts' : 'count'} no more.
          </li>
        ))}
      </ul>
      {needsReason && (
        <label className={css.reason}>
          Students have seen some of these scores. Why do they change? They read it.
          <textarea
            rows={2}
            maxLength={1000}
            value={reason}
            aria-invalid={reasonMissing}
            onChange={(e) => onReason(e.target.value)}
          />
        </label>
      )}
    </section>
  );
}
