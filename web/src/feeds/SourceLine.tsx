import { Radio, Select, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import { sourceEntriesOptions } from '../api/queries';
import type { SourceView } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { AnsweredPrompt } from '../writing/AnsweredPrompt';
import { useOwners } from './CandidateCard';
import css from './Sources.module.css';

/** How an outside blog does, in words. */
export function SourceHealth({ source: s }: { source: SourceView }) {
  return (
    <>
      <b className={!s.paused && (s.health === 'FALTERING' || s.health === 'STOPPED') ? 'warm' : 'ink'}>
        {s.asked ? 'waits for a yes' : s.paused ? 'resting' : t.health[s.health]}
      </b>{' '}
      · {t.count(s.entries, 'entry', 'entries')}
      {s.lastEntry && (
        <>
          , the newest <When at={s.lastEntry} />
        </>
      )}
    </>
  );
}

/** Why a blog is looked at as often as it is. */
const PACE = {
  FAILURES: 'less often, since it could not be read',
  DUE: 'soon again, since something is due',
  ASKED: 'as seldom as its site asks',
  HABIT: 'as often as it writes',
  SELDOM: 'once a day, since it writes seldom',
};

/** How much came in each of the last weeks, the present one at the right. */
function Weeks({ counts }: { counts: number[] }) {
  const most = Math.max(3, ...counts);
  return (
    <svg
      className={css.weeks}
      viewBox={`0 0 ${counts.length * 9} 26`}
      role="img"
      aria-label={`Entries in the last ${counts.length} weeks: ${counts.join(', ')}`}
    >
      {counts.map((n, i) => (
        <rect
          key={i}
          x={i * 9}
          y={25 - Math.max(1, (n / most) * 24)}
          width="6"
          height={Math.max(1, (n / most) * 24)}
          className={n ? css.some : css.no}
        />
      ))}
    </svg>
  );
}

/** When it was looked at and when it will be. */
export function SourceLooks({ source: s }: { source: SourceView }) {
  return (
    <p className="tiny muted above-1 below-0">
      {s.lastCheck && (
        <>
          Looked at <When at={s.lastCheck} />;{' '}
        </>
      )}
      {s.asked ? (
        'nothing comes from it before staff have said yes'
      ) : s.paused ? (
        'it is not looked at until it goes on'
      ) : s.health === 'STOPPED' ? (
        'not looked at any more'
      ) : (
        <>
          next <When at={s.nextCheck} />, {PACE[s.pace]}
        </>
      )}
      {s.from &&
        `; what is older than ${new Date(`${s.from}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })} is left out`}
    </p>
  );
}

type Panel = 'entries' | 'edit' | 'leaving' | '';

/** One outside blog with all that staff can do with it. */
export function SourceLine({ source: s, classId, manages }: { source: SourceView; classId: number; manages: boolean }) {
  const at = `/api/sources/${s.id}`;
  const here = {
    here: true,
    stale: [
      ['sources', classId],
      ['source-entries', s.id],
    ],
  };
  const [panel, setPanel] = useState<Panel>('');
  const refresh = useWrite(() => postJson(`${at}/refresh`), here);
  const rest = useWrite(() => putJson(`${at}/paused`, { paused: !s.paused }), here);
  const toggle = (which: Panel) => setPanel(panel === which ? '' : which);
  return (
    <section className={css.source}>
      <div>
        <h2>
          <a href={s.siteAddress || s.feedAddress} target="_blank" rel="noopener noreferrer">
            {s.title}
          </a>
        </h2>
        {!s.asked && <Weeks counts={s.weeks} />}
        <p className="muted above-1 below-0 less">
          {s.person ? `Posts of ${s.person}` : 'News for the class'} · <SourceHealth source={s} />
        </p>
        {s.lastError && <p className="tell wrong above-2 below-0">{s.lastError}</p>}
        {s.untidy && !s.lastError && (
          <p className="tiny muted above-1 below-0">Its feed is untidy: it was read by guess, as far as it goes.</p>
        )}
        <SourceLooks source={s} />
      </div>
      <div className={css.acts}>
        {manages && s.asked && (
          <Word onClick={() => rest.run()} disabled={rest.busy} aria-label={`Let it in: ${s.title}`}>
            Let it in
          </Word>
        )}
        {manages && !s.asked && (
          <Word onClick={() => refresh.run()} disabled={refresh.busy}>
            {refresh.busy ? 'Looking' : 'Refresh now'}
          </Word>
        )}
        <Word tiny onClick={() => toggle('entries')} aria-label={`Entries of ${s.title}`}>
          Entries
        </Word>
        {manages && (
          <>
            <Word tiny onClick={() => toggle('edit')} aria-label={`Change: ${s.title}`}>
              Change
            </Word>
            {!s.asked && (
              <Word tiny onClick={() => rest.run()} aria-label={`${s.paused ? 'Go on' : 'Let it rest'}: ${s.title}`}>
                {s.paused ? 'Go on' : 'Let it rest'}
              </Word>
            )}
            <Word tiny onClick={() => toggle('leaving')} aria-label={`${s.asked ? 'No' : 'Take out'}: ${s.title}`}>
              {s.asked ? 'No' : 'Take out'}
            </Word>
          </>
        )}
      </div>
      {panel === 'entries' && <Entries source={s} classId={classId} manages={manages} />}
      {panel === 'edit' && <Edit source={s} classId={classId} onDone={() => setPanel('')} />}
      {panel === 'leaving' && <Leaving source={s} classId={classId} onClose={() => setPanel('')} />}
      <Wrong says={refresh.problem || rest.problem} />
    </section>
  );
}

function Entries({ source: s, classId, manages }: { source: SourceView; classId: number; manages: boolean }) {
  const [asked, setAsked] = useState('');
  const { data: entries } = useQuery(sourceEntriesOptions(s.id));
  const set = useWrite((wanted: { key: string; leftOut: boolean }) => putJson(`/api/sources/${s.id}/entries`, wanted), {
    here: true,
    stale: [
      ['sources', classId],
      ['source-entries', s.id],
    ],
  });
  if (!entries) return <Loading />;
  return (
    <div className={css.panel}>
      {entries.length === 0 && <p className="muted below-0 above-0">Nothing has come yet.</p>}
      {entries.map((e) => (
        <div key={e.key} className="ruled-above inside-2 foot-2 row wide wrap above-0 below-0 less">
          <span className={`grow ${e.leftOut ? 'muted' : ''}`}>
            {e.link ? (
              <a href={e.link} target="_blank" rel="noopener noreferrer">
                {e.title || 'Without a title'}
              </a>
            ) : (
              e.title || 'Without a title'
            )}{' '}
            <span className="muted tiny">
              · <When at={e.at} />
              {e.leftOut && ' · left out'}
              {e.prompt && ` · for ${e.prompt}`}
            </span>
          </span>
          {e.postId ? (
            <>
              <Word tiny onClick={() => setAsked(asked === e.key ? '' : e.key)} aria-label={`Its prompt: ${e.title}`}>
                Its prompt
              </Word>
              <a className="word tiny" href={`/posts/${e.postId}`}>
                The post
              </a>
              {asked === e.key && (
                <span className="full">
                  <AnsweredPrompt postId={e.postId} untitled />
                </span>
              )}
            </>
          ) : (
            manages && (
              <Word
                tiny
                onClick={() => set.run({ key: e.key, leftOut: !e.leftOut })}
                aria-label={`${e.leftOut ? 'Let it in' : 'Leave it out'}: ${e.title}`}
              >
                {e.leftOut ? 'Let it in' : 'Leave it out'}
              </Word>
            )
          )}
        </div>
      ))}
      <p className="tiny muted above-2 below-0">
        What is let in comes with the next look, if its blog still carries it.
      </p>
      <Wrong says={set.problem} />
    </div>
  );
}

function Edit({ source: s, classId, onDone }: { source: SourceView; classId: number; onDone: () => void }) {
  const owners = useOwners(classId);
  const [title, setTitle] = useState(s.title);
  const [owner, setOwner] = useState(s.personId ? String(s.personId) : 'news');
  const [from, setFrom] = useState(s.from ?? '');
  const save = useWrite(
    () =>
      putJson(`/api/sources/${s.id}`, {
        title,
        personId: owner === 'news' ? undefined : Number(owner),
        from: from || undefined,
      }),
    { here: true, stale: [['sources', classId]], onDone },
  );
  return (
    <form
      className={css.panel}
      aria-label={`Change ${s.title}`}
      onSubmit={(e) => {
        e.preventDefault();
        save.run();
      }}
    >
      <div className="row end wrap">
        <TextInput
          className={css.whose}
          label="Its name here"
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <TextInput type="date" label="Begin on" value={from} onChange={(e) => setFrom(e.target.value)} />
        <Select
          className={css.whose}
          label="Whose it is"
          searchable
          allowDeselect={false}
          value={owner}
          onChange={(v) => setOwner(v ?? owner)}
          data={owners}
        />
        <Button go type="submit" disabled={save.busy}>
          Save
        </Button>
        <Word onClick={onDone}>{t.cancel}</Word>
      </div>
      <p className="tiny muted above-2 below-0">
        What came already stays as it is and whose it is. What comes from now on follows this.
      </p>
      <Wrong says={save.problem} />
    </form>
  );
}

function Leaving({ source: s, classId, onClose }: { source: SourceView; classId: number; onClose: () => void }) {
  const [posts, setPosts] = useState('stay');
  const remove = useWrite(() => deleteJson(`/api/sources/${s.id}${posts === 'go' ? '?posts=true' : ''}`), {
    here: true,
    stale: [['sources', classId], ['me']],
  });
  return (
    <div className={`tell ${css.panel}`} role="alertdialog" aria-label={`Take out ${s.title}`}>
      {s.person ? (
        <>
          Nothing comes from it any more.
          <Radio.Group
            className="above-2"
            label={`The ${t.count(s.entries, 'post', 'posts')} that came`}
            value={posts}
            onChange={setPosts}
          >
            <Radio className="above-1" value="stay" label="stay in the class" />
            <Radio className="above-1" value="go" label="go into the bin, where they can be had back for 30 days" />
          </Radio.Group>
        </>
      ) : (
        'Nothing comes from it any more, and its news no longer stand beside the Porch.'
      )}
      <p className="row above-3 below-0">
        <Button onClick={() => remove.run()}>Take it out</Button>
        <Word onClick={onClose}>{t.cancel}</Word>
      </p>
      <Wrong says={remove.problem} />
    </div>
  );
}
