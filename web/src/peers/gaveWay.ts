import type { GaveWay } from '../api/schema';
import { t } from '../texts/en';

/** Which wishes had to give way in a plan, each as a sentence. */
export function gaveWayInWords(g: GaveWay): string[] {
  return [
    g.each > 0 && `There are too few papers: each gets ${t.count(g.each, 'review', 'reviews')} fewer than asked for.`,
    g.papers > 0 &&
      `${t.count(g.papers, 'review is', 'reviews are')} missing, since nobody else may read those papers.`,
    g.more > 0 &&
      `${t.count(g.more, 'review goes', 'reviews go')} beyond somebody’s number, so that no paper is left out.`,
    g.group > 0 && `${t.count(g.group, 'paper goes', 'papers go')} to somebody of the same group.`,
    g.repeated > 0 && `${t.count(g.repeated, 'pair has', 'pairs have')} met before, for another prompt.`,
    g.mutual > 0 && `${t.count(g.mutual, 'pair reviews', 'pairs review')} each other.`,
  ].filter((s): s is string => typeof s === 'string');
}
