import { describe, expect, it } from 'vitest';
import { say } from './When';

/** A Wednesday. */
const now = new Date(2026, 10, 25, 12, 0);
const on = (day: number, hour = 16) => say(new Date(2026, 10, day, hour, 10), now);

describe('a moment as people say it', () => {
  it('says days that are near by what they are to today', () => {
    expect([on(25, 9), on(24), on(26)]).toEqual(['today 09:10', 'yesterday 16:10', 'tomorrow 16:10']);
  });

  it('never says the same of a day that was and one that comes', () => {
    expect([on(22, 20), on(29, 20)]).toEqual(['last Sunday 20:10', 'this Sunday 20:10']);
    expect([on(19), on(31)]).toEqual(['last Thursday 16:10', 'this Tuesday 16:10']);
  });

  it('says the date beyond six days', () => {
    expect([on(18), on(32)]).toEqual(['18 Nov', '2 Dec']);
  });
});
