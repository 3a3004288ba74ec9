import type { BlogPage } from '../api/schema';
import { t } from '../texts/en';
import css from './Blog.module.css';
import './Look.css';

type Look = BlogPage['look'];

/** Six looks to choose from, each shown as it is. */
export function LookChoice({ value, onChange }: { value: Look; onChange: (look: Look) => void }) {
  return (
    <div className={css.looks} role="group" aria-label="Look">
      {(Object.keys(t.looks) as Look[]).map((look) => (
        <button
          key={look}
          type="button"
          className={css.look}
          data-look={look}
          aria-pressed={value === look}
          onClick={() => onChange(look)}
        >
          <i />
          <span>{t.looks[look]}</span>
        </button>
      ))}
    </div>
  );
}
