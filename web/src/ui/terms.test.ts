import { describe, expect, it } from 'vitest';
import type { ClassView } from '../api/schema';
import { chosenWeeks, presentTerm, termName, weekName, weeksParam } from './terms';

const week = (number: number, monday: string, next: string) => ({
  number,
  monday,
  start: `${monday}T00:00:00Z`,
  end: `${next}T00:00:00Z`,
  now: false,
});
const spring = {
  name: '',
  firstDay: '2026-04-13',
  lastDay: '2026-04-24',
  now: false,
  weeks: [week(1, '2026-04-13', '2026-04-20'), week(0, '2026-04-20', '2026-04-27')],
};
const autumn = {
  name: 'Autumn',
  firstDay: '2026-09-07',
  lastDay: '2026-09-20',
  now: true,
  weeks: [week(1, '2026-09-07', '2026-09-14'), week(2, '2026-09-14', '2026-09-21')],
};
const of = { terms: [spring, autumn] } as unknown as ClassView;
const params = (text: string) => new URLSearchParams(text);

describe('the weeks in an address', () => {
  it('are those of the present term if none is named', () => {
    expect(presentTerm(of)).toBe(1);
    expect(chosenWeeks(of, params('weeks=0-1'))).toEqual({
      term: 1,
      weeks: autumn.weeks,
      range: [0, 1],
      filter: { term: undefined, fromWeek: 0, toWeek: 1 },
    });
    expect(chosenWeeks(of, params('weeks=1')).range).toEqual([1, 1]);
  });

  it('are those of the term that is named, which alone narrows too', () => {
    const chosen = chosenWeeks(of, params('term=0'));
    expect(chosen.weeks).toEqual(spring.weeks);
    expect(chosen.range).toBeUndefined();
    expect(chosen.filter).toEqual({ term: 0, fromWeek: undefined, toWeek: undefined });
    expect(chosenWeeks(of, params('term=7')).term).toBe(1);
    expect(chosenWeeks(undefined, params('term=0')).weeks).toEqual([]);
  });

  it('are said as they are read', () => {
    expect(weeksParam([2, 2])).toBe('2');
    expect(weeksParam([2, 4])).toBe('2-4');
    expect(weeksParam(undefined)).toBeUndefined();
  });
});

describe('a term', () => {
  it('is called by its name, else by its days', () => {
    expect(termName(autumn)).toBe('Autumn');
    expect(termName(spring)).toBe('13 Apr 2026 to 24 Apr 2026');
  });

  it('is said beside a week only where there are several', () => {
    expect(weekName([autumn], '2026-09-15T10:00:00Z')).toBe('Week 2');
    expect(weekName(of.terms, '2026-09-15T10:00:00Z')).toBe('Week 2, Autumn');
    expect(weekName(of.terms, '2026-04-21T10:00:00Z')).toBe('The break, 13 Apr 2026 to 24 Apr 2026');
    expect(weekName(of.terms, '2026-06-01T10:00:00Z')).toBeUndefined();
  });
});
