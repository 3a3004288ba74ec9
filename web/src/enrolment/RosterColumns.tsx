import type { ColumnTaken } from '../api/schema';
import css from './Enrolment.module.css';

export type Column = ColumnTaken['as'];

const AS: Record<Column, string> = {
  FAMILY: 'family name',
  GIVEN: 'given name',
  FULL: 'whole name, given name first',
  FULL_FAMILY_FIRST: 'whole name, family name first',
  EMAIL: 'e-mail',
  NUMBER: 'school number',
  GROUP: 'group',
  LEFT: 'not used',
};

/** As what each column of a list was taken; any of them can be changed. */
export function RosterColumns({
  columns,
  onChange,
}: {
  columns: ColumnTaken[];
  onChange: (columns: Column[]) => void;
}) {
  const change = (at: number, as: Column) => {
    // A name that is said in one column is not said in another as well; of two that one says the same of, the later choice counts.
    onChange(columns.map((c, i) => (i === at ? as : c.as === as && as !== 'LEFT' ? 'LEFT' : c.as)));
  };
  return (
    <fieldset className={css.columns}>
      <legend>The columns of the list, and what they were taken as</legend>
      {columns.map((c, i) => (
        <label key={i} className={c.as === 'LEFT' ? css.unused : undefined}>
          <b>{c.head || `Column ${i + 1}`}</b>
          <span className="tiny muted">{c.sample ? `such as “${c.sample}”` : 'empty'}</span>
          <select className="pick" value={c.as} onChange={(e) => change(i, e.target.value as Column)}>
            {(Object.keys(AS) as Column[]).map((as) => (
              <option key={as} value={as}>
                {AS[as]}
              </option>
            ))}
          </select>
        </label>
      ))}
    </fieldset>
  );
}
