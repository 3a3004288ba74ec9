import css from './Meter.module.css';

/** How far long work is. */
export function Meter({ done, total, label }: { done: number; total: number; label: string }) {
  return (
    <span
      className={css.meter}
      role="progressbar"
      aria-valuenow={done}
      aria-valuemin={0}
      aria-valuemax={total}
      aria-label={label}
    >
      <i style={{ width: `${(100 * done) / Math.max(1, total)}%` }} />
    </span>
  );
}
