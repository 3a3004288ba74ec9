import type { ClassView, TermView, WeekView } from '../api/schema';

/** The place of the term that counts now. */
export const presentTerm = (of: ClassView) =>
  Math.max(
    0,
    of.terms.findIndex((term) => term.now),
  );

/** What a term is called: by its name, else by its days. */
export function termName(term: TermView): string {
  if (term.name) return term.name;
  const day = (date: string) =>
    new Date(`${date}T12:00:00Z`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
  return `${day(term.firstDay)} to ${day(term.lastDay)}`;
}

/** The week in which something happened, and the term if there are several; nothing for what lies in no term. */
export function weekName(terms: TermView[], at: string): string | undefined {
  for (const term of terms) {
    const week = term.weeks.find((w) => at >= w.start && at < w.end);
    if (week) {
      const words = week.number ? `Week ${week.number}` : 'The break';
      return terms.length > 1 ? `${words}, ${termName(term)}` : words;
    }
  }
  return undefined;
}

/** A range of weeks of a term, as it stands in the address of a page. */
export interface ChosenWeeks {
  /** The place of the term that is shown. */
  term: number;
  weeks: WeekView[];
  /** First and last week, as indexes; none for all of what the page shows. */
  range?: [number, number];
  /** What a list is narrowed by. */
  filter: { term?: number; fromWeek?: number; toWeek?: number };
}

/** Reads the weeks and the term that an address names; without a term it is the present one. */
export function chosenWeeks(of: ClassView | undefined, params: URLSearchParams): ChosenWeeks {
  const named = params.get('term');
  const term = named === null || !of?.terms[Number(named)] ? (of ? presentTerm(of) : 0) : Number(named);
  const weeks = of?.terms[term]?.weeks ?? [];
  const [from, to] = params.get('weeks')?.split('-').map(Number) ?? [];
  const range: [number, number] | undefined = from === undefined ? undefined : [from, to ?? from];
  return {
    term,
    weeks,
    range,
    filter: { term: named === null ? undefined : term, fromWeek: range?.[0], toWeek: range?.[1] },
  };
}

/** A range as an address says it. */
export const weeksParam = (range?: [number, number]) =>
  range && (range[0] === range[1] ? `${range[0]}` : `${range[0]}-${range[1]}`);
