import { useState } from 'react';
import { Link } from 'react-router';
import { putJson } from '../api/client';
import type { BlogRules, CheckedDraft, Draft } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Chip } from '../ui/Chip';
import { CleanHtml } from '../ui/CleanHtml';
import { NamesKeptNote } from '../ui/NamesKeptNote';
import { Sightline } from '../ui/Sightline';
import { tell } from '../ui/Told';
import { Due } from '../ui/When';
import { Word } from '../ui/Word';
import type { Typed } from './useDraft';
import { WorksUsed } from './WorksUsed';
import css from './Write.module.css';

const NEEDS: Record<string, (asked: number) => string> = {
  TITLE: () => 'A title',
  WORDS: (n) => (n <= 1 ? 'Some words' : `${n} words or more`),
  PICTURES: (n) => t.count(n, 'picture', 'pictures'),
  PICTURES_DESCRIBED: () => 'Every picture described',
  TAGS: (n) => (n === 1 ? 'A tag' : `${n} tags`),
  CATEGORY: () => 'A category',
  SOURCES: (n) => t.count(n, 'source', 'sources'),
  LINKS: (n) => t.count(n, 'link', 'links'),
  COMMENTS: (n) => `${t.count(n, 'comment', 'comments')} for classmates`,
  OWN_VIEW: () => 'How you see it yourself',
  MOST_WORDS: (n) => `${n} words at most`,
  MOST_POSTS: (n) => `${t.count(n, 'post', 'posts')} at most`,
};
const PERIODS: Record<string, string> = { DAY: 'today', WEEK: 'this week', TERM: 'this term' };

/** The rules of the blog in words a student understands, said before they bite; nothing where there are none. */
function rulesInWords(rules: BlogRules): string[] {
  const said: string[] = [];
  const windowed = (minutes: number, verb: string) => {
    if (minutes === 0) said.push(`Once it is published you cannot ${verb} it any more.`);
    if (minutes > 0)
      said.push(`You can ${verb} it for ${t.count(minutes, 'minute', 'minutes')} after it is published.`);
  };
  windowed(rules.edit.minutes, 'change');
  windowed(rules.delete.minutes, 'delete');
  if (rules.mostPictures < 40)
    said.push(
      rules.mostPictures === 0
        ? 'Posts have no pictures here.'
        : `At most ${t.count(rules.mostPictures, 'picture', 'pictures')}, each up to ${rules.mostMegabytes} MB.`,
    );
  return said;
}

/** Where a student stands on the way to earned trust; only while somebody looks first, or looked before trust was there. */
function trustInWords({ approval, approvalsInRow, trustAfter, holds }: CheckedDraft): string {
  if (trustAfter === 0 || approval.source === 'STAFF' || approval.source === 'STUDENT') return '';
  if (approval.source === 'TRUST')
    return holds.length > 0
      ? 'You have earned trust: without what is named here it would go straight out.'
      : 'You have earned trust: your posts go straight out.';
  return approval.policy === 'BEFORE'
    ? `${approvalsInRow === 0 ? 'None' : approvalsInRow} of your posts ${approvalsInRow === 1 ? 'was' : 'were'} approved in a row; after ${trustAfter} they go straight out.`
    : '';
}

interface DraftCheckProps {
  draft: Draft;
  beside: CheckedDraft;
  typed: Typed;
  onChange: (part: Partial<Typed>) => void;
  /** The class's own time of day at which it goes up; empty for as soon as it may. */
  publishAt: string;
  onPublishAt: (at: string) => void;
}

/** What stands beside the text while one writes: the prompt, what is asked for, tags, and who will read it. */
export function DraftCheck({ draft, beside, typed, onChange, publishAt, onPublishAt }: DraftCheckProps) {
  const { prompt } = draft;
  const { id: classId } = useClass();
  return (
    <>
      {prompt && (
        <>
          <h2>
            {prompt.title} · <Due at={prompt.due} />
            {prompt.late ? ' · late now' : ''}
          </h2>
          {prompt.instructions && <CleanHtml className="tiny above-0 below-3" html={prompt.instructions} />}
          {prompt.questions.map((q) => (
            <div key={q} className={css.question}>
              {q}
            </div>
          ))}
        </>
      )}
      {prompt?.answerFirst && (
        <p className="tiny muted above-0 below-3">
          Classmates read your answer once they have published their own, and you read theirs once yours is published.
        </p>
      )}
      {draft.blog.about && (
        <>
          <h2>{draft.blog.title}</h2>
          <p className="tiny above-0 below-0">{draft.blog.about}</p>
        </>
      )}
      <h2>Before you hand in</h2>
      <div role="list" aria-live="polite">
        {beside.needs.map((n) => (
          <div key={n.need} className={css.need} role="listitem">
            <i className={`${css.dot} ${n.met ? css.ok : n.has > 0 ? css.half : ''}`} />
            <span>
              {n.need === 'OWN_VIEW' && prompt ? (
                <Link className="word" to={`/classes/${classId}/own-view/${prompt.id}`}>
                  {NEEDS.OWN_VIEW(1)}
                </Link>
              ) : (
                (NEEDS[n.need]?.(n.asked) ?? n.need)
              )}
              <span className="away">{n.met ? ', done' : ', still missing'}</span>
            </span>
            <span>
              {n.need === 'MOST_POSTS'
                ? `${n.has} so far ${PERIODS[draft.rules.per]}`
                : n.need === 'MOST_WORDS'
                  ? n.has
                  : n.need === 'TITLE' || n.need === 'CATEGORY' || n.need === 'OWN_VIEW'
                    ? n.met
                      ? ''
                      : 'missing'
                    : n.met
                      ? n.has
                      : `${n.has} of ${n.asked}`}
            </span>
          </div>
        ))}
      </div>
      {draft.own &&
        rulesInWords(draft.rules).map((rule) => (
          <p key={rule} className="tiny muted above-2 below-0">
            {rule}
          </p>
        ))}
      <h2>
        <label htmlFor="tags">Tags, with commas between them</label>
      </h2>
      <TagBox tags={typed.tags} suggestions={draft.suggestions} onChange={(tags) => onChange({ tags })} />
      {draft.categories.length > 0 && (
        <>
          <h2>
            <label htmlFor="category">Category</label>
          </h2>
          <select
            id="category"
            className={css.tagbox}
            value={typed.category ?? ''}
            onChange={(e) => onChange({ category: e.target.value ? Number(e.target.value) : undefined })}
          >
            <option value="">none</option>
            {draft.categories.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </select>
        </>
      )}
      <WorksUsed works={typed.works} references={beside.references} onChange={(works) => onChange({ works })} />
      <h2>
        <label htmlFor="audience">Who will read it</label>
      </h2>
      <select
        id="audience"
        className={css.tagbox}
        value={typed.audience}
        onChange={(e) => onChange({ audience: e.target.value })}
      >
        {draft.audiences.map((a) => (
          <option key={a} value={a}>
            {t.audiences[a]}
          </option>
        ))}
      </select>
      <details className="above-2" open={!!publishAt}>
        <summary className="tiny points muted">Let it go up at a time of your choice</summary>
        <input
          type="datetime-local"
          aria-label="When it goes up"
          className={`${css.tagbox} above-2`}
          value={publishAt.slice(0, 16)}
          onChange={(e) => onPublishAt(e.target.value)}
        />
        {publishAt && (
          <Word tiny onClick={() => onPublishAt('')}>
            As soon as it may after all
          </Word>
        )}
      </details>
      {draft.mayAnnounce && <Announcement draft={draft} />}
      <div className="muted tiny above-2">
        {beside.goesToApproval
          ? 'A teacher looks at it first. After that:'
          : beside.approval.policy === 'AFTER'
            ? 'It is published as soon as you hand it in. A teacher looks at it after that.'
            : 'It is published as soon as you hand it in.'}
      </div>
      <Sightline line={beside.sightline} />
      <NamesKeptNote of={draft.namesKept} />
      {draft.own && trustInWords(beside) && <p className="muted tiny above-2 below-0">{trustInWords(beside)}</p>}
      {beside.holds.length > 0 && (
        <p className="tell less above-3 below-0">
          A teacher will look at this:{' '}
          {beside.holds.map((h) => `${t.holds[h.rule]}${h.found ? ` (“${h.found}”)` : ''}`).join(', ')}.
          {beside.holds.some((h) => h.found && h.rule !== 'LINK') ? ' Leave it out if nobody else should know it.' : ''}
        </p>
      )}
    </>
  );
}

/** Tags as one types them, with those in use to choose from. */
function TagBox({
  tags,
  suggestions,
  onChange,
}: {
  tags: string[];
  suggestions: string[];
  onChange: (tags: string[]) => void;
}) {
  const [text, setText] = useState(tags.join(', '));
  const set = (value: string) => {
    setText(value);
    onChange(
      value
        .split(',')
        .map((x) => x.trim())
        .filter(Boolean),
    );
  };
  const begun = text.split(',').pop()!.trim().toLowerCase();
  const fitting = suggestions
    .filter((s) => !tags.some((x) => x.toLowerCase() === s.toLowerCase()) && s.toLowerCase().startsWith(begun))
    .slice(0, 6);
  const take = (tag: string) =>
    set(
      `${[
        ...text
          .split(',')
          .slice(0, -1)
          .map((x) => x.trim()),
        tag,
      ]
        .filter(Boolean)
        .join(', ')}, `,
    );
  return (
    <>
      <input id="tags" className={css.tagbox} value={text} autoComplete="off" onChange={(e) => set(e.target.value)} />
      {fitting.length > 0 && (
        <div className="above-2" role="group" aria-label="In use so far">
          {fitting.map((s) => (
            <Chip className="tiny" key={s} onClick={() => take(s)}>
              {s}
            </Chip>
          ))}
        </div>
      )}
    </>
  );
}

/** Whether a post of staff is an announcement, which stands apart from what students write; kept at once. */
function Announcement({ draft }: { draft: Draft }) {
  const [on, setOn] = useState(draft.announcement);
  const put = useWrite((announcement: boolean) => putJson(`/api/posts/${draft.id}/announcement`, { announcement }), {
    scope: `announcement-${draft.id}`,
    onWrong: (says, _error, wanted) => {
      setOn(!wanted);
      tell(says);
    },
  });
  const toggle = () => {
    setOn(!on);
    put.run(!on);
  };
  return (
    <label className="tiny row above-3">
      <input type="checkbox" checked={on} onChange={toggle} />
      An announcement: it stands apart, not among the posts of students
    </label>
  );
}
