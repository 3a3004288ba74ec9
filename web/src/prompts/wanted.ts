import type { Criterion, Peers, Reviews, WantedAnswers, WantedPrompt } from '../api/schema';
import type { Counted } from './counted';

/** What a form keeps of a prompt: every field has a value that an input can show. */
export interface PromptForm {
  title: string;
  instructions: string;
  questions: string;
  starter: string;
  example: string;
  tag: string;
  opens: string;
  due: string;
  closes: string;
  graceHours: number;
  latePercentPerDay: number;
  lateMostPercent: number;
  lateFloor: number;
  points: number;
  askedPosts: number;
  byGroups: boolean;
  byCategory: string;
  byTag: boolean;
  byTime: boolean;
  words: number;
  pictures: number;
  tags: number;
  category: boolean;
  links: number;
  sources: number;
  comments: number;
  commentsDue: string;
  commentsWords: number;
  commentsFirst: boolean;
  commentOn: number[];
  ownFirst: boolean;
  /** The blog into which answers go; empty for any. */
  into: string;
  namesKept: boolean;
  namesUntil: string;
  bundleId: string;
  rubricHidden: boolean;
  /** Whether students say by the rubric how they see it. */
  self: Reviews['self'];
  selfShare: number;
  /** How many papers each student reviews; 0 if they do not. */
  each: number;
  givenWhen: Peers['when'];
  givenAt: string;
  peersDue: string;
  authorsKept: boolean;
  reviewersKept: boolean;
  /** The criteria by which they judge; empty for all. */
  peersCriteria: string[];
  /** What they answer besides, one question a line. */
  peersQuestions: string;
  peersShare: number;
  peersAnswered: boolean;
  criteria: Criterion[];
}

const MINUTES = 16;

const ONE_POST: WantedAnswers = {
  posts: 1,
  ownFirst: false,
  byGroups: false,
  commentsFirst: false,
  commentOn: [],
  byTag: false,
  byTime: false,
};

/** Plain lines as the paragraphs of a text. */
const asHtml = (text: string) =>
  text
    .split(/\n+/)
    .filter((l) => l.trim())
    .map((l) => `<p>${l.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</p>`)
    .join('');

/** The paragraphs of a text as plain lines. */
function asLines(html: string): string {
  const parsed = new DOMParser().parseFromString(html, 'text/html');
  return [...parsed.body.children].map((p) => p.textContent ?? '').join('\n');
}

/** A criterion that is added is known by a name of its own, so that no mark of another one is taken for its. */
export const newId = () => `n${crypto.randomUUID().slice(0, 12)}`;

export function toForm(p: WantedPrompt): PromptForm {
  const { asked, answers = ONE_POST } = p;
  return {
    title: p.title,
    instructions: p.instructions,
    questions: p.questions.join('\n'),
    starter: asLines(p.starter ?? ''),
    example: p.example ?? '',
    tag: p.tag ?? '',
    opens: p.opens?.slice(0, MINUTES) ?? '',
    due: p.due.slice(0, MINUTES),
    closes: p.closes?.slice(0, MINUTES) ?? '',
    graceHours: p.graceHours,
    latePercentPerDay: p.latePercentPerDay,
    lateMostPercent: p.lateMostPercent,
    lateFloor: p.lateFloor ?? 0,
    points: p.points,
    askedPosts: answers.posts,
    byGroups: answers.byGroups,
    byCategory: answers.byCategory ? String(answers.byCategory) : '',
    byTag: answers.byTag,
    byTime: answers.byTime,
    words: asked.words,
    pictures: asked.pictures,
    tags: asked.tags,
    category: asked.category > 0,
    links: asked.links,
    sources: asked.sources,
    comments: asked.comments,
    commentsDue: p.commentsDue?.slice(0, MINUTES) ?? '',
    commentsWords: p.commentsWords ?? 0,
    commentsFirst: answers.commentsFirst,
    commentOn: answers.commentOn,
    ownFirst: answers.ownFirst,
    into: answers.into ?? '',
    namesKept: !!answers.namesKept,
    namesUntil: answers.namesKept?.until?.slice(0, MINUTES) ?? '',
    bundleId: p.bundleId ? String(p.bundleId) : '',
    rubricHidden: p.rubricHidden ?? false,
    self: p.reviews?.self ?? 'NOT_ASKED',
    selfShare: p.reviews?.selfShare ?? 0,
    each: p.reviews?.peers?.each ?? 0,
    givenWhen: p.reviews?.peers?.when ?? 'BY_HAND',
    givenAt: p.reviews?.peers?.at?.slice(0, MINUTES) ?? '',
    peersDue: p.reviews?.peers?.due.slice(0, MINUTES) ?? '',
    authorsKept: p.reviews?.peers?.authorsKept ?? true,
    reviewersKept: p.reviews?.peers?.reviewersKept ?? true,
    peersCriteria: p.reviews?.peers?.criteria ?? [],
    peersQuestions: p.reviews?.peers?.questions.join('\n') ?? '',
    peersShare: p.reviews?.peers?.share ?? 0,
    peersAnswered: p.reviews?.peers?.answered ?? true,
    criteria: p.rubric?.criteria ?? [],
  };
}

/** @param before the prompt as it was, of which what the form cannot show stays */
export function toWanted(f: PromptForm, before?: WantedPrompt): WantedPrompt {
  const known = before && toForm(before);
  const time = (now: string, form?: string, kept?: string) => (now && now === form ? kept : now || undefined);
  return {
    title: f.title,
    instructions: f.instructions,
    questions: f.questions.split('\n'),
    starter: f.starter === known?.starter ? before?.starter : asHtml(f.starter),
    example: f.example || undefined,
    tag: f.tag || undefined,
    opens: time(f.opens, known?.opens, before?.opens),
    due: time(f.due, known?.due, before?.due) ?? '',
    closes: time(f.closes, known?.closes, before?.closes),
    graceHours: f.graceHours,
    latePercentPerDay: f.latePercentPerDay,
    lateMostPercent: f.lateMostPercent,
    lateFloor: f.lateFloor || undefined,
    points: f.points,
    answers: {
      posts: f.askedPosts,
      byGroups: f.byGroups,
      byCategory: f.byCategory ? Number(f.byCategory) : undefined,
      byTag: f.byTag,
      byTime: f.byTime,
      commentsFirst: f.comments > 0 && f.commentsFirst,
      commentOn: f.comments > 0 ? f.commentOn : [],
      ownFirst: f.ownFirst,
      into: (f.askedPosts > 0 && f.into) || undefined,
      namesKept: f.namesKept
        ? { until: time(f.namesUntil, known?.namesUntil, before?.answers?.namesKept?.until) }
        : undefined,
    },
    asked: {
      words: f.words,
      pictures: f.pictures,
      tags: f.tags,
      category: f.category ? 1 : 0,
      links: f.links,
      sources: f.sources,
      comments: f.comments,
    },
    commentsDue: f.comments ? time(f.commentsDue, known?.commentsDue, before?.commentsDue) : undefined,
    commentsWords: f.comments ? f.commentsWords : 0,
    bundleId: f.bundleId ? Number(f.bundleId) : undefined,
    rubricHidden: f.rubricHidden,
    reviews:
      f.criteria.length > 0 && (f.self !== 'NOT_ASKED' || f.each > 0)
        ? {
            self: f.self,
            selfShare: f.self === 'NOT_ASKED' ? 0 : f.selfShare,
            peers:
              f.each > 0
                ? {
                    each: f.each,
                    when: f.givenWhen,
                    at: f.givenWhen === 'AT' ? time(f.givenAt, known?.givenAt, before?.reviews?.peers?.at) : undefined,
                    due: time(f.peersDue, known?.peersDue, before?.reviews?.peers?.due) ?? f.due,
                    authorsKept: f.authorsKept,
                    reviewersKept: f.reviewersKept,
                    criteria: f.peersCriteria,
                    questions: f.peersQuestions.split('\n').filter((q) => q.trim()),
                    share: f.peersShare,
                    answered: f.peersAnswered,
                  }
                : undefined,
          }
        : known?.self === 'NOT_ASKED' && known.each === 0
          ? before?.reviews
          : undefined,
    rubric: f.criteria.length ? { criteria: f.criteria } : undefined,
  };
}

const level = (name: string, points: number, descriptor: string) => ({ name, points, descriptor });

const counted = (what: Counted) => ({ what, atLeast: [] });

/** A rubric to begin from; every word and number of it can be changed. */
const BEGINNING: Criterion[] = [
  {
    id: 'observation',
    name: 'Observation',
    weight: 2,
    levels: [
      level('none', 0, 'Says nothing of what was seen.'),
      level('some', 2, 'Says what was seen.'),
      level('careful', 4, 'Says what was seen, where and when.'),
      level('exact', 6, 'Measured or counted, more than once.'),
    ],
    counted: [counted('PICTURES'), counted('DESCRIBED')],
  },
  {
    id: 'evidence',
    name: 'Evidence',
    weight: 2,
    levels: [
      level('none', 0, 'No reason is given.'),
      level('told', 2, 'Says that it is so.'),
      level('shown', 4, 'Says what the claim rests on.'),
      level('tested', 6, 'Tried it another way.'),
    ],
    counted: [counted('LINKS'), counted('WORKS')],
  },
  {
    id: 'reflection',
    name: 'Reflection',
    weight: 1,
    levels: [
      level('none', 0, 'No thought of one’s own.'),
      level('likes', 1, 'Says what was good or bad.'),
      level('asks', 2, 'Asks a question.'),
      level('changes', 3, 'Says what will be done differently.'),
    ],
    counted: [counted('COMMENTS')],
  },
  {
    id: 'readers',
    name: 'Writing for readers',
    weight: 1,
    levels: [
      level('lost', 0, 'A reader is lost.'),
      level('found', 1, 'A reader can follow.'),
      level('led', 2, 'A reader is led on.'),
      level('kept', 3, 'A reader wants more.'),
    ],
    counted: [counted('WORDS'), counted('TAGS')],
  },
];

const nextSunday = () => {
  const d = new Date();
  d.setDate(d.getDate() + ((7 - d.getDay()) % 7 || 7));
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}T20:00`;
};

/** A prompt to begin from. */
export const beginning = (): PromptForm => ({
  title: '',
  instructions: '',
  questions: '',
  starter: '',
  example: '',
  tag: '',
  opens: '',
  due: nextSunday(),
  closes: '',
  graceHours: 24,
  latePercentPerDay: 5,
  lateMostPercent: 50,
  lateFloor: 0,
  points: 18,
  askedPosts: 1,
  byGroups: false,
  byCategory: '',
  byTag: false,
  byTime: false,
  words: 100,
  pictures: 0,
  tags: 1,
  category: false,
  links: 0,
  sources: 0,
  comments: 0,
  commentsDue: '',
  commentsWords: 0,
  commentsFirst: false,
  commentOn: [],
  ownFirst: false,
  into: '',
  namesKept: false,
  namesUntil: '',
  bundleId: '',
  rubricHidden: false,
  self: 'NOT_ASKED',
  selfShare: 0,
  each: 0,
  givenWhen: 'BY_HAND',
  givenAt: '',
  peersDue: '',
  authorsKept: true,
  reviewersKept: true,
  peersCriteria: [],
  peersQuestions: '',
  peersShare: 0,
  peersAnswered: true,
  criteria: BEGINNING,
});
