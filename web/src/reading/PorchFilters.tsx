import { useState } from 'react';
import type { Facet, Group, Porch } from '../api/schema';
import { Chip } from '../ui/Chip';
import css from '../ui/Entry.module.css';
import { Word } from '../ui/Word';

export const SPANS = { TODAY: 'today', WEEK: 'this week', MONTH: 'this month', YEAR: 'this year' } as const;
export type Span = keyof typeof SPANS;

/** How many choices of a kind are shown before one asks for the others. */
const FIRST = 6;

interface PorchFiltersProps {
  groups: Group[];
  /** What there is to choose from; undefined while it comes. */
  porch?: Porch;
  params: URLSearchParams;
  onSet: (key: string, value?: string) => void;
}

/** All that the Porch can be narrowed by. What is chosen stands in the address. */
export function PorchFilters({ groups, porch, params, onSet }: PorchFiltersProps) {
  const choices = { params, onSet };
  return (
    <>
      <Choices
        {...choices}
        heading="When"
        name="span"
        of={Object.entries(SPANS).map(([key, label]) => ({ key, label }))}
        all="all"
        isAll={!params.has('span') && !params.has('weeks') && !params.has('term')}
      />
      {groups.length > 0 && (
        <Choices
          {...choices}
          heading="Whose"
          name="group"
          of={groups.map((g) => ({ key: String(g.id), label: g.name }))}
          all="everyone"
          isAll={!params.has('group') && !params.has('person')}
        />
      )}
      {porch && porch.people.length > 0 && (
        <select
          className="pick"
          aria-label="One person"
          value={params.get('person') ?? ''}
          onChange={(e) => onSet('person', e.target.value || undefined)}
        >
          <option value="">One person…</option>
          {porch.people.map((p) => (
            <option key={p.key} value={p.key}>
              {p.label} ({p.count})
            </option>
          ))}
        </select>
      )}
      {porch && (
        <>
          <Choices {...choices} heading="Prompt" name="prompt" of={porch.prompts} />
          <Choices {...choices} heading="Category" name="category" of={porch.categories} />
          <Choices {...choices} heading="Tag" name="tag" of={withChosen(porch.tags, params.get('tag'))} />
          <Choices {...choices} heading="From outside" name="source" of={porch.sources} />
          {(porch.unanswered > 0 || params.has('unanswered')) && (
            <Choices
              {...choices}
              heading="Answers"
              name="unanswered"
              of={[{ key: 'yes', label: 'not answered', count: porch.unanswered }]}
            />
          )}
        </>
      )}
    </>
  );
}

type Choice = Pick<Facet, 'key' | 'label'> & { count?: number };

interface ChoicesProps {
  heading: string;
  /** Its name in the address. */
  name: string;
  of: Choice[];
  /** The word for no choice. */
  all?: string;
  isAll?: boolean;
  params: URLSearchParams;
  onSet: (key: string, value?: string) => void;
}

/** Choices of which one can be taken: the first few and the one that is chosen, the others on demand. */
function Choices({ heading, name, of, all, isAll, params, onSet }: ChoicesProps) {
  const [open, setOpen] = useState(false);
  if (of.length === 0) return null;
  const chosen = params.get(name);
  const shown = open || of.length <= FIRST + 1 ? of : of.filter((c, i) => i < FIRST || c.key === chosen);
  return (
    <div role="group" aria-label={heading} className={css.choices}>
      <h2>{heading}</h2>
      {all && (
        <Chip aria-pressed={isAll} onClick={() => onSet(name)}>
          {all}
        </Chip>
      )}
      {shown.map((c) => (
        <Chip
          key={c.key}
          aria-pressed={chosen === c.key}
          onClick={() => onSet(name, chosen === c.key ? undefined : c.key)}
        >
          {c.label}
          {c.count === undefined ? '' : ` ${c.count}`}
        </Chip>
      ))}
      {shown.length < of.length && (
        <Word tiny onClick={() => setOpen(true)}>
          {of.length - shown.length} more
        </Word>
      )}
    </div>
  );
}

/** The tags in use most, and the one that is chosen, be it rare. */
const withChosen = (tags: Facet[], chosen: string | null): Choice[] =>
  chosen && !tags.some((g) => g.key === chosen) ? [...tags, { key: chosen, label: chosen }] : tags;
