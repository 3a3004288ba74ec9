import type { Beside, BlogRules, Draft } from '../api/schema';
import { Sightline } from '../parts/Sightline';
import { When } from '../parts/When';
import { t } from '../texts/en';
import type { Typed } from './useDraft';
import css from './Write.module.css';

const NEEDS: Record<string, (asked: number) => string> = {
  TITLE: () => 'A title',
  WORDS: (n) => (n <= 1 ? 'Some words' : `${n} words or more`),
  PICTURES: (n) => t.count(n, 'picture', 'pictures'),
  PICTURES_DESCRIBED: () => 'Every picture described',
  TAGS: (n) => (n === 1 ? 'A tag' : `${n} tags`),
  LINKS: (n) => t.count(n, 'link', 'links'),
  COMMENTS: () => 'Comments for classmates',
  MOST_WORDS: (n) => `${n} words at most`,
  MOST_POSTS: (n) => `${t.count(n, 'post', 'posts')} at most`,
};
const PERIODS: Record<string, string> = { DAY: 'today', WEEK: 'this week', TERM: 'this term' };

/** The rules of the blog in words a student understands, said before they bite; nothing where there are none. */
function rulesInWords(rules: BlogRules): string[] {
  const said: string[] = [];
  const windowed = (minutes: number, verb: string) => {
    if (minutes === 0) said.push(`Once it is published you cannot ${verb} it any more.`);
    if (minutes > 0) said.push(`You can ${verb} it for ${t.count(minutes, 'minute', 'minutes')} after it is published.`);
  };
  windowed(rules.edit.minutes, 'change');
  windowed(rules.delete.minutes, 'delete');
  if (rules.mostPictures < 40) said.push(rules.mostPictures === 0 ? 'Posts have no pictures here.' : `At most ${t.count(rules.mostPictures, 'picture', 'pictures')}, each up to ${rules.mostMegabytes} MB.`);
  return said;
}

interface BesideDraftProps {
  draft: Draft;
  beside: Beside;
  typed: Typed;
  onChange: (part: Partial<Typed>) => void;
}

/** What stands beside the text while one writes: the prompt, what is asked for, tags, and who will read it. */
export function BesideDraft({ draft, beside, typed, onChange }: BesideDraftProps) {
  const { prompt } = draft;
  return (
    <>
      {draft.history[0]?.step === 'RETURN' && (
        <p className="tell" style={{ margin: '0 0 18px' }}><b style={{ fontWeight: 600 }}>{draft.history[0].by}</b> sent it back: “{draft.history[0].note}”</p>
      )}
      {prompt && (
        <>
          <h4>{prompt.title} · due <When at={prompt.due} />{prompt.late ? ' · late now' : ''}</h4>
          {prompt.instructions && <p className="tiny" style={{ margin: '0 0 10px' }}>{prompt.instructions}</p>}
          {prompt.questions.map((q) => <div key={q} className={css.question}>{q}</div>)}
        </>
      )}
      {prompt?.answerFirst && <p className="tiny muted" style={{ margin: '0 0 10px' }}>Classmates read your answer once they have published their own, and you read theirs once yours is published.</p>}
      {draft.blog.about && <><h4>{draft.blog.title}</h4><p className="tiny" style={{ margin: 0 }}>{draft.blog.about}</p></>}
      <h4>Before you hand in</h4>
      <div role="list" aria-live="polite">
        {beside.needs.map((n) => (
          <div key={n.need} className={css.need} role="listitem">
            <i className={`${css.dot} ${n.met ? css.ok : n.has > 0 ? css.half : ''}`} />
            <span>{NEEDS[n.need]?.(n.asked) ?? n.need}<span className="away">{n.met ? ', done' : ', still missing'}</span></span>
            <span>{n.need === 'MOST_POSTS' ? `${n.has} so far ${PERIODS[draft.rules.per]}` : n.need === 'MOST_WORDS' ? n.has : n.need === 'TITLE' ? (n.met ? '' : 'missing') : n.met ? n.has : `${n.has} of ${n.asked}`}</span>
          </div>
        ))}
      </div>
      {draft.own && rulesInWords(draft.rules).map((rule) => <p key={rule} className="tiny muted" style={{ margin: '6px 0 0' }}>{rule}</p>)}
      <h4><label htmlFor="tags">Tags, with commas between them</label></h4>
      <input id="tags" className={css.tagbox} defaultValue={typed.tags.join(', ')} onChange={(e) => onChange({ tags: e.target.value.split(',').map((x) => x.trim()).filter(Boolean) })} />
      <h4><label htmlFor="audience">Who will read it</label></h4>
      <select id="audience" className={css.tagbox} value={typed.audience} onChange={(e) => onChange({ audience: e.target.value })}>
        {draft.audiences.map((a) => <option key={a} value={a}>{t.audiences[a]}</option>)}
      </select>
      <div style={{ marginTop: 8 }} className="muted tiny">
        {beside.goesToApproval ? 'A teacher looks at it first. After that:' : 'It is published as soon as you hand it in.'}
      </div>
      <Sightline line={beside.sightline} />
      {beside.holds.length > 0 && (
        <p className="tell" style={{ margin: '12px 0 0', fontSize: 14.5 }}>
          A teacher will look at this: {beside.holds.map((h) => `${t.holds[h.rule]}${h.found ? ` (“${h.found}”)` : ''}`).join(', ')}. Leave it out if nobody else should know it.
        </p>
      )}
    </>
  );
}
