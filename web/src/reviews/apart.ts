import type { Apart } from '../api/schema';

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven'];

/** How far one reading lies from another, in words. */
export const stepsApart = (steps: number) =>
  steps === 0
    ? 'on the same step'
    : `${NUMBERS[Math.abs(steps)]} ${Math.abs(steps) === 1 ? 'step' : 'steps'} ${steps > 0 ? 'higher' : 'lower'}`;

/** The same of a second reading, also where it is held against nothing yet. */
export const againstFirst = (apart: Apart[]) =>
  apart.length === 0 ? 'no first marks yet' : apartInWords(apart) || 'the same steps';

/** "one step lower in Evidence, two steps higher in Reflection"; empty where all is the same. */
export const apartInWords = (apart: Apart[]) =>
  apart
    .filter((a) => a.steps !== 0)
    .map((a) => `${stepsApart(a.steps)} in ${a.name}`)
    .join(', ');
