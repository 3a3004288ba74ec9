import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { postJson } from '../api/client';
import { newsForMeOptions } from '../api/queries';
import type { NewsItem } from '../api/schema';
import { useWrite } from '../api/write';
import { Chip } from '../ui/Chip';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { MailOffer } from './MailOffer';
import css from './News.module.css';

const SAYS: Record<string, (n: NewsItem) => string> = {
  POST: () => 'published',
  COMMENT: () => 'commented on',
  ANSWER: () => 'answered you under',
  WORD: () => 'has a private word for you about',
  RETURNED: () => 'returned with a note',
  HIDDEN: () => 'hid',
  SOURCE: (n) =>
    n.by ? 'has an outside blog from which nothing could be read for days:' : 'Nothing could be read for days from',
  APPROVED: () => 'approved',
  SCORE: () => 'marked and released',
  RESCORED: (n) => (n.by ? 'changed your score for' : 'Your score has changed for'),
  OWN_DATE: () => 'You have a date of your own for',
  LET_OFF: () => 'You were let off',
  AGAIN: () => 'You may hand in again for',
  TO_REVIEW: () => 'You have papers of classmates to review for',
  SECOND_ASKED: () => 'would like you to read papers a second time for',
  REVIEW_REMINDER: () => 'Your reviews are due soon for',
  REVIEW_RETURNED: () => 'returned a review of yours for',
  REVIEWED: () => 'Classmates have reviewed your paper for',
  PROMPT_CHOSEN: () => 'said which prompt is answered by',
  EXAMPLE_ASKED: () => 'would like to show as an example',
  WARM_UP_ASKED: () => 'would like reviewers to warm up on',
  QUESTION_ANSWERED: () => 'answered your question under',
  FEEDBACK_WORD: () => 'has a private word for you about your marks for',
  FEEDBACK_ANSWERED: () => 'answered to the marks for',
};

/** What concerns the reader in person; the rest is what one subscribed to. */
const ABOUT_ME = new Set([
  'ANSWER',
  'WORD',
  'RETURNED',
  'HIDDEN',
  'APPROVED',
  'SOURCE',
  'SCORE',
  'RESCORED',
  'OWN_DATE',
  'LET_OFF',
  'AGAIN',
  'TO_REVIEW',
  'SECOND_ASKED',
  'REVIEW_REMINDER',
  'REVIEW_RETURNED',
  'REVIEWED',
  'PROMPT_CHOSEN',
  'EXAMPLE_ASKED',
  'WARM_UP_ASKED',
  'QUESTION_ANSWERED',
  'FEEDBACK_WORD',
  'FEEDBACK_ANSWERED',
]);
const SHOWN = [
  ['', 'everything'],
  ['me', 'about me'],
  ['subscribed', 'what I subscribed to'],
] as const;

/** What is new since last time: answers, what became of one's posts, and what one subscribed to. */
export function NewsPage() {
  const news = useQuery(newsForMeOptions);
  const [params, setParams] = useSearchParams();
  const show = params.get('show') ?? '';
  const items = news.data?.items.filter((n) => !show || (show === 'me') === ABOUT_ME.has(n.kind)) ?? [];
  const seen = useWrite(() => postJson('/api/news/seen'), { stale: [newsForMeOptions.queryKey] });
  return (
    <div className="page plain">
      <title>News · Vast Porch</title>
      <main>
        <div className="row wrap wide">
          <h1>News</h1>
          {news.data && (
            <span className="muted">
              {news.data.fresh === 0 ? 'nothing that you have not seen' : `${news.data.fresh} you have not seen`}
            </span>
          )}
          <span className="row wide push">
            {news.data && news.data.fresh > 0 && <Word onClick={() => seen.run()}>I have seen all</Word>}
            <Link className="word" to="/subscriptions">
              My subscriptions
            </Link>
          </span>
        </div>
        {news.data && news.data.items.length > 0 && (
          <p className="above-4 below-0">
            {SHOWN.map(([value, word]) => (
              <Chip
                key={value}
                aria-pressed={show === value}
                onClick={() => setParams(value ? { show: value } : {}, { replace: true })}
              >
                {word}
              </Chip>
            ))}
          </p>
        )}
        <MailOffer />
        {news.isPending && <Loading />}
        {news.isError && <Trouble error={news.error} onRetry={() => news.refetch()} />}
        {news.data?.items.length === 0 && (
          <p className="muted above-4">
            When somebody answers you, or something is published that you subscribed to, it stands here. You can
            subscribe on the page of a blog, a person or a post.
          </p>
        )}
        {news.data && news.data.items.length > 0 && items.length === 0 && (
          <p className="muted above-4">
            {show === 'me'
              ? 'Nobody has answered you lately, and nothing was decided about your posts.'
              : 'Nothing new in what you subscribed to.'}
          </p>
        )}
        {items.map((n) => (
          <article key={n.kind + n.to + (n.comment ?? '') + n.at} className={`${css.item} ${n.fresh ? css.fresh : ''}`}>
            <p className="above-0 below-0">
              {n.by && <b>{n.by}</b>} {SAYS[n.kind]?.(n) ?? ''}{' '}
              <Link className="word" to={n.to}>
                {n.title || 'a post'}
              </Link>
              {n.fresh && <span className="away"> (new)</span>}
            </p>
            {n.lines && <p className={css.lines}>{n.lines}</p>}
            <p className="tiny muted above-0 below-0">
              {n.className} · <When at={n.at} />
            </p>
          </article>
        ))}
      </main>
    </div>
  );
}
