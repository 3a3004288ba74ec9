import { describe, expect, it } from 'vitest';
import { gaveWayInWords } from './gaveWay';

const nothing = { each: 0, papers: 0, more: 0, group: 0, repeated: 0, mutual: 0 };

describe('what gave way in a plan', () => {
  it('is said where something did', () => {
    expect(gaveWayInWords(nothing)).toEqual([]);
    expect(gaveWayInWords({ ...nothing, mutual: 1 })).toEqual(['1 pair reviews each other.']);
  });
  it('begins with what weighs most', () => {
    expect(gaveWayInWords({ ...nothing, each: 1, group: 2, repeated: 3 })).toEqual([
      'There are too few papers: each gets 1 review fewer than asked for.',
      '2 papers go to somebody of the same group.',
      '3 pairs have met before, for another prompt.',
    ]);
  });
});
