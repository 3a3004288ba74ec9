import type { Measure } from '../api/schema';
import { t } from '../texts/en';

export type Counted = Measure['what'];

/** What can be counted beside a criterion, in the order in which it is offered; and what it is called there. */
export const CALLED: Record<Counted, string> = {
  WORDS: 'words',
  HEADINGS: 'headings',
  PICTURES: 'pictures',
  DESCRIBED: 'pictures that are described',
  SOUNDS: 'sounds',
  VIDEOS: 'videos',
  LINKS: 'links',
  WORKS: 'works used',
  TAGS: 'tags',
  CATEGORY: 'a category',
  COMMENTS: 'comments given',
  ON_TIME: 'on time',
};

export const COUNTED = Object.keys(CALLED) as Counted[];

const none = (number: number, one: string, many: string) => (number === 0 ? `no ${many}` : t.count(number, one, many));

/** What was counted, in words. */
export function saysCounted(what: Counted, number: number, commentsAsked: number): string {
  switch (what) {
    case 'WORDS':
      return t.count(number, 'word', 'words');
    case 'HEADINGS':
      return none(number, 'heading', 'headings');
    case 'PICTURES':
      return none(number, 'picture', 'pictures');
    case 'DESCRIBED':
      return `${number} described`;
    case 'SOUNDS':
      return none(number, 'sound', 'sounds');
    case 'VIDEOS':
      return none(number, 'video', 'videos');
    case 'LINKS':
      return none(number, 'link', 'links');
    case 'WORKS':
      return none(number, 'work used', 'works used');
    case 'TAGS':
      return none(number, 'tag', 'tags');
    case 'CATEGORY':
      return number === 0 ? 'no category' : 'a category';
    case 'COMMENTS':
      return `${t.count(number, 'comment', 'comments')} given${commentsAsked ? `, ${commentsAsked} asked for` : ''}`;
    case 'ON_TIME':
      return number === 0 ? 'late' : 'on time';
  }
}
