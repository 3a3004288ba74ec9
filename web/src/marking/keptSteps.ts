import type { Seen } from '../api/schema';
import type { Wanted } from './Meanwhile';

/** A step of a marker that the server has not taken yet. */
export interface Step {
  student: number;
  wanted: Wanted;
  /** The paper as it stood on the page, or as the step before left it. */
  seen: Seen;
  /** Whether it was sent and never answered: the server may have it all the same. */
  sent?: boolean;
}

/** Keeps steps in this browser under the name of one page; what there is no room for, the server gets all the same. */
export function keepSteps(name: string, steps: Step[]) {
  try {
    if (steps.length > 0) localStorage.setItem(name, JSON.stringify(steps));
    else localStorage.removeItem(name);
  } catch {
    // No room: they are sent as long as the page is open.
  }
}

/** Takes the steps that earlier pages left under names that begin so; from now on they are this page's. */
export function takeSteps(begin: string): Step[] {
  const steps: Step[] = [];
  for (const name of Object.keys(localStorage).filter((n) => n.startsWith(begin))) {
    try {
      // That page may still be open in another tab, and have sent them.
      for (const step of JSON.parse(localStorage.getItem(name) ?? '[]') as Step[]) steps.push({ ...step, sent: true });
    } catch {
      // Not ours to read.
    }
    localStorage.removeItem(name);
  }
  return steps;
}

/** Whether a page left steps under a name that begins so. */
export const hasSteps = (begin: string) => Object.keys(localStorage).some((name) => name.startsWith(begin));
