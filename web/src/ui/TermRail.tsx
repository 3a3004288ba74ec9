import { useRef } from 'react';
import type { Rail, TermView, WeekView } from '../api/schema';
import { t } from '../texts/en';
import css from './TermRail.module.css';
import { termName } from './terms';

interface TermRailProps {
  terms: TermView[];
  /** The place of the term that is shown. */
  term: number;
  rail: Rail;
  /** First and last chosen week, as indexes; none means the whole term. */
  chosen?: [number, number];
  onChoose: (range?: [number, number]) => void;
  onTerm: (term: number) => void;
}

/** The row of week posts: how much was published each week, what is due, and the range that is shown. Click, drag or arrow keys choose. */
export function TermRail({ terms, term, rail, chosen, onChoose, onTerm }: TermRailProps) {
  const weeks = terms[term]?.weeks ?? [];
  const from = useRef<number | null>(null);
  const most = Math.max(6, ...rail.counts);
  const due = (w: WeekView) => rail.due.some((d) => d >= w.start && d < w.end);
  const say = (w: WeekView, i: number) =>
    `${w.number === 0 ? 'Break' : `Week ${w.number}`}, ${t.count(rail.counts[i] ?? 0, 'post', 'posts')}${due(w) ? ', something is due' : ''}${w.now ? ', now' : ''}`;
  const nowIndex = weeks.findIndex((w) => w.now);
  return (
    <div className="on-paper">
      {terms.length > 1 && (
        <p className={css.terms}>
          <select className={css.term} aria-label="Term" value={term} onChange={(e) => onTerm(Number(e.target.value))}>
            {terms.map((of, i) => (
              <option key={of.firstDay} value={i}>
                {termName(of)}
                {of.now ? ', now' : ''}
              </option>
            ))}
          </select>
        </p>
      )}
      <section className={css.rail} aria-label="Weeks of the term">
        <div className={css.hand} />
        <div className={css.foot} />
        {weeks.map((w, i) => {
          const on = chosen !== undefined && i >= chosen[0] && i <= chosen[1];
          return (
            <button
              type="button"
              key={w.monday}
              className={[
                css.week,
                on ? css.on : '',
                w.number === 0 ? css.gap : '',
                nowIndex >= 0 && i > nowIndex ? css.ahead : '',
              ].join(' ')}
              aria-label={say(w, i)}
              aria-pressed={on}
              title={say(w, i)}
              onPointerDown={() => (from.current = i)}
              onPointerUp={() => {
                const start = from.current ?? i;
                from.current = null;
                const range: [number, number] = [Math.min(start, i), Math.max(start, i)];
                onChoose(chosen && range[0] === chosen[0] && range[1] === chosen[1] ? undefined : range);
              }}
              onKeyDown={(e) => {
                if (e.key === 'Enter' || e.key === ' ') {
                  e.preventDefault();
                  onChoose(on && chosen[0] === chosen[1] ? undefined : [i, i]);
                }
                const step = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
                if (step === 0 || !weeks[i + step]) return;
                e.preventDefault();
                (e.currentTarget.parentElement!.querySelectorAll('button')[i + step] as HTMLElement).focus();
                onChoose(
                  e.shiftKey && chosen
                    ? [Math.min(chosen[0], i + step), Math.max(chosen[1], i + step)]
                    : [i + step, i + step],
                );
              }}
            >
              <span className={css.post}>
                <span className={css.fill} style={{ height: `${((rail.counts[i] ?? 0) / most) * 100}%` }} />
              </span>
              {due(w) && <span className={css.flag} />}
              {w.now && <span className={css.lamp} />}
              <span className={css.label}>{w.number === 0 ? 'break' : w.number}</span>
            </button>
          );
        })}
      </section>
    </div>
  );
}
