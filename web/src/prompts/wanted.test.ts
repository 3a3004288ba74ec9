import { describe, expect, it } from 'vitest';
import type { WantedPrompt } from '../api/schema';
import { beginning, newId, toForm, toWanted } from './wanted';

const kept: WantedPrompt = {
  title: 'Week 7 log',
  instructions: 'Write about one thing.',
  questions: ['What?', 'Why?'],
  tag: 'log',
  opens: '2026-11-23T08:00:12',
  due: '2026-11-29T20:00:00',
  closes: '2026-12-06T20:00:00',
  graceHours: 24,
  latePercentPerDay: 5,
  lateMostPercent: 50,
  lateFloor: 3.5,
  points: 18,
  asked: { words: 60, pictures: 0, tags: 1, category: 1, links: 0, sources: 0, comments: 2 },
  answers: {
    posts: 2,
    ownFirst: true,
    byGroups: true,
    commentsFirst: true,
    commentOn: [7, 9],
    byCategory: 3,
    byTag: true,
    byTime: false,
    into: 'b4',
    namesKept: { until: '2026-12-09T20:00:30' },
  },
  commentsDue: '2026-12-02T20:00:00',
  commentsWords: 15,
  example: '<p>Nine slugs, counted twice.</p>',
  starter: '<p>On <b>Monday</b></p><p>I</p>',
  bundleId: 4,
  rubricHidden: true,
  rubric: {
    criteria: [
      {
        id: 'c1',
        name: 'Voice',
        weight: 1,
        counted: [{ what: 'WORDS', atLeast: [50] }],
        levels: [
          { name: 'low', points: 0, descriptor: '' },
          { name: 'high', points: 3, descriptor: '' },
        ],
      },
    ],
  },
};

describe('a prompt on its form', () => {
  it('comes back as it was when nothing is changed, with what the form cannot show', () => {
    expect(toWanted(toForm(kept), kept)).toEqual(kept);
  });

  it('keeps a time to its second unless it is changed', () => {
    const form = { ...toForm(kept), opens: '2026-11-24T08:00' };
    expect(toWanted(form, kept).opens).toBe('2026-11-24T08:00');
    expect(toWanted(toForm(kept), kept).opens).toBe('2026-11-23T08:00:12');
    expect(toWanted({ ...toForm(kept), closes: '' }, kept).closes).toBeUndefined();
  });

  it('makes paragraphs of lines, and signs of tags', () => {
    expect(toWanted({ ...beginning(), starter: 'a < b & c\n\nI' }).starter).toBe('<p>a &lt; b &amp; c</p><p>I</p>');
  });

  it('asks for no words of comments where it asks for none', () => {
    const wanted = toWanted({ ...toForm(kept), comments: 0 }, kept);
    expect([wanted.commentsDue, wanted.commentsWords]).toEqual([undefined, 0]);
    expect([wanted.answers?.commentsFirst, wanted.answers?.commentOn]).toEqual([false, []]);
  });

  it('goes without marks when every criterion is gone', () => {
    expect(toWanted({ ...toForm(kept), criteria: [] }, kept).rubric).toBeUndefined();
  });

  it('knows each added criterion by a name of its own', () => {
    expect(newId()).not.toBe(newId());
    expect(newId().length).toBeLessThan(40);
  });
});
