import { describe, expect, it } from 'vitest';
import { againstFirst, apartInWords, stepsApart } from './apart';

const apart = (name: string, steps: number) => ({ criterion: name, name, steps, most: 3 });

describe('how far two readings lie apart', () => {
  it('is said in steps, with its direction', () => {
    expect(stepsApart(0)).toBe('on the same step');
    expect(stepsApart(1)).toBe('one step higher');
    expect(stepsApart(-2)).toBe('two steps lower');
  });
  it('names the criteria that differ', () => {
    expect(apartInWords([apart('Evidence', -1), apart('Voice', 0), apart('Reflection', 2)])).toBe(
      'one step lower in Evidence, two steps higher in Reflection',
    );
  });
  it('never calls a reading the same that is held against nothing', () => {
    expect(againstFirst([])).toBe('no first marks yet');
    expect(againstFirst([apart('Voice', 0)])).toBe('the same steps');
    expect(againstFirst([apart('Voice', 1)])).toBe('one step higher in Voice');
  });
});
