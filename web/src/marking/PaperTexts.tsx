import { memo, type RefObject, useState } from 'react';
import { Link } from 'react-router';
import type { Paper, PaperComment } from '../api/schema';
import { Asides } from '../asides/Asides';
import { NameMenu } from '../people/NameMenu';
import { t } from '../texts/en';
import { CleanHtml } from '../ui/CleanHtml';
import { ExcerptNote } from '../ui/ExcerptNote';
import { StateBoard } from '../ui/StateBoard';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { OutsideTime } from '../writing/OutsideTime';
import { HandedAgain } from './HandedAgain';
import css from './Mark.module.css';
import { NotedText, WriteBeside } from './NotedText';

function lateness(paper: Paper, days: number) {
  if (days === 0) return 'on time';
  const grace = paper.graceMinutes
    ? ` after ${t.count(Math.round(paper.graceMinutes / 60), 'hour', 'hours')} of grace`
    : '';
  return `${t.count(days, 'day', 'days')} late${grace}`;
}

interface PaperTextsProps {
  paper: Paper;
  classId: number;
  /** What stands in place of the name, where that is kept back. */
  as?: string;
  /** Without it nothing can be allowed here. */
  onAllow?: () => void;
  /** Without it nothing can be said here about who handed it in. */
  onMembers?: () => void;
  /** What the page's key for a note does, while words are chosen; without it nothing is written here. */
  beside?: RefObject<(() => void) | null>;
}

/** Whether a paper is drawn alike: a step changes what is given, and nothing of the texts. */
function isAlike({ paper: was, ...before }: PaperTextsProps, { paper: is, ...now }: PaperTextsProps): boolean {
  const { given: gave, ...had } = was;
  const { given, ...has } = is;
  // What was handed in again is taken as the paper stands.
  const isAsGiven = gave === given || (gave.standing === given.standing && !is.posts.some((p) => p.newer || p.taken));
  return (
    isAsGiven &&
    before.classId === now.classId &&
    before.as === now.as &&
    !before.onAllow === !now.onAllow &&
    !before.onMembers === !now.onMembers &&
    Object.entries(has).every(([field, value]) => had[field as keyof typeof had] === value)
  );
}

/** All posts of a paper, in the order in which they came, and the comments that were given for it. */
export const PaperTexts = memo(function PaperTexts({
  paper,
  classId,
  as,
  onAllow,
  onMembers,
  beside,
}: PaperTextsProps) {
  const { standing } = paper.given;
  const name = as ?? paper.student;
  const allow = onAllow && (
    <>
      {' · '}
      <Word tiny onClick={onAllow}>
        Own date, let off, again
      </Word>
    </>
  );
  const own = paper.ownDue && (
    <>
      {' '}
      · own date <When at={paper.ownDue} />
    </>
  );
  const who = as ? (
    <b>{as}</b>
  ) : (
    <NameMenu classId={classId} person={paper.studentId} name={paper.student}>
      <b>{paper.student}</b>
      {paper.group ? `, ${paper.group.toLowerCase()}` : ''}
    </NameMenu>
  );
  const alone = paper.askedPosts === 0;
  return (
    <>
      {paper.together && !as && <Together paper={paper} onMembers={onMembers} />}
      {!paper.evidence && (
        <p className="muted inside-5">
          <StateBoard state={standing} withWord /> ·{' '}
          {standing === 'LET_OFF' ? `${name} was let off.` : `${name}: nothing was handed in for this prompt.`}
          {own}
          {allow}
        </p>
      )}
      {paper.evidence && alone && (
        <div className={css.who}>
          {who}
          {own}
          {allow}
        </div>
      )}
      {paper.posts.map((post, i) => (
        <article key={post.postId} className={i > 0 ? css.another : undefined}>
          <div className={css.who}>
            {i === 0 && !paper.together && <>{who} · </>}
            {paper.askedPosts > 1 && `post ${i + 1} of ${paper.askedPosts}, `}
            handed in{post.by && !as ? ` by ${post.by}` : ''} <When at={post.handedInAt} />,{' '}
            {lateness(paper, post.daysLate)}
            {i === 0 && (standing === 'RELEASED' || standing === 'LET_OFF') && ` · ${t.states[standing].toLowerCase()}`}
            {i === 0 && own}
            {i === 0 && allow}
          </div>
          {post.gathered && <OutsideTime postId={post.postId} />}
          {post.word && (
            <p className={css.said}>
              <span className="tiny muted">Said with it:</span> {post.word}
            </p>
          )}
          <h1>{post.title}</h1>
          {beside ? (
            <WriteBeside paper={paper} post={post} beside={beside} />
          ) : (
            <NotedText html={post.html} postId={post.postId} notes={post.notes} />
          )}
          <ExcerptNote excerpt={post.excerpt} />
          {beside && !as && <Say postId={post.postId} classId={classId} author={post.by ?? paper.student} />}
          {(post.newer || post.taken) && <HandedAgain paper={paper} post={post} />}
        </article>
      ))}
      {paper.evidence && paper.posts.length < paper.askedPosts && (
        <p className="muted">
          {t.count(paper.askedPosts, 'post is', 'posts are')} asked for; {paper.posts.length} came so far.
        </p>
      )}
      {paper.comments.length > 0 && (
        <Given comments={paper.comments} classId={classId} asked={paper.evidence?.commentsAsked ?? 0} open={alone} />
      )}
    </>
  );
}, isAlike);

/** What one may say about a post elsewhere than in the marks: to everybody under it, or to its author alone. */
function Say({ postId, classId, author }: { postId: number; classId: number; author: string }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="above-4 measure">
      <p className="tiny above-0 below-2">
        <Link className="word tiny" to={`/classes/${classId}/posts/${postId}`}>
          Comment under it
        </Link>
        {' · '}
        <Word tiny aria-expanded={open} onClick={() => setOpen(!open)}>
          A private word to {author}
        </Word>
      </p>
      {open && (
        <Asides at={`/api/posts/${postId}/words`} label={`Only ${author} and the staff read this`} verb="Send it" />
      )}
    </div>
  );
}

/** Whose paper it is, where several hand in one. */
function Together({ paper, onMembers }: { paper: Paper; onMembers?: () => void }) {
  const of = paper.together;
  if (!of) return null;
  const apart = of.members.filter((m) => !of.alike.includes(m.studentId));
  return (
    <p className={`${css.who} below-2`}>
      {of.name && <b>{of.name}: </b>}
      {of.members.map((m) => m.name).join(', ')}
      {apart.length > 0 && `; marked apart: ${apart.map((m) => m.name).join(', ')}`}
      {onMembers && (
        <>
          {' · '}
          <Word tiny onClick={onMembers}>
            Who handed this in
          </Word>
        </>
      )}
    </p>
  );
}

interface GivenProps {
  comments: PaperComment[];
  classId: number;
  asked: number;
  /** Whether they are all that there is to read. */
  open: boolean;
}

/** The comments that a student gave to others for the prompt, as they stand under those posts. */
function Given({ comments, classId, asked, open }: GivenProps) {
  const counting = comments.filter((c) => c.counts).length;
  const says = `${t.count(counting, 'comment', 'comments')} given${asked > 0 ? `, ${asked} asked for` : ''}`;
  const list = (
    <ul className={css.answers}>
      {comments.map((c) => (
        <li key={`${c.postId} ${c.at}`}>
          <div className="tiny muted">
            under{' '}
            <Link className="word" to={`/classes/${classId}/posts/${c.postId}`}>
              {c.post}
            </Link>
            , <When at={c.at} />
            {!c.counts && ' · does not count'}
          </div>
          <CleanHtml html={c.html} />
        </li>
      ))}
    </ul>
  );
  if (open)
    return (
      <section aria-label="Comments given">
        <h1>{says}</h1>
        {list}
      </section>
    );
  return (
    <details className="above-5">
      <summary>{says}</summary>
      {list}
    </details>
  );
}
