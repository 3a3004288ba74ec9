import { Select, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, deleteJson, postJson, putJson } from '../api/client';
import { feedReadersOptions, peopleOptions, sourcesOptions } from '../api/queries';
import type { Candidate, Found, SourceView } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Sources.module.css';

/** Outside blogs: paste an address, see what would come, choose whose it is. Then they come by themselves. */
export function SourcesPage() {
  const { id, name, manages } = useClass();
  const sources = useQuery({ ...sourcesOptions(id), refetchInterval: 20_000 });
  const [address, setAddress] = useState('');
  const [found, setFound] = useState<Found | null>(null);
  const look = useWrite(() => postJson<Found>(`/api/classes/${id}/sources/look`, { address }), {
    here: true,
    onDone: setFound,
  });
  return (
    <div className="page plain">
      <title>{`Outside blogs · ${name}`}</title>
      <main>
        <h1>Outside blogs</h1>
        {manages && (
          <>
            <p className="muted above-2 below-3">
              Paste the address of a blog that is kept elsewhere. You see its entries before anything is saved.
            </p>
            <form
              className="row start"
              onSubmit={(e) => {
                e.preventDefault();
                setFound(null);
                look.run();
              }}
            >
              <TextInput
                className="grow"
                aria-label="Address of the blog"
                placeholder="rowlock.example"
                value={address}
                onChange={(e) => setAddress(e.target.value)}
                error={look.problem || undefined}
              />
              <Button go type="submit" disabled={look.busy || !address.trim()}>
                {look.busy ? 'Looking' : 'Look'}
              </Button>
            </form>
            {found && (
              <div className="above-4" role="status">
                <p className="tell above-0 below-0">{found.sentence}</p>
                {found.candidates.map((c) => (
                  <CandidateCard
                    key={c.feedAddress}
                    classId={id}
                    candidate={c}
                    onAdded={() => {
                      setFound(null);
                      setAddress('');
                    }}
                  />
                ))}
              </div>
            )}
          </>
        )}
        {sources.isPending && <Loading />}
        {sources.isError && <Trouble error={sources.error} onRetry={() => sources.refetch()} />}
        {sources.data?.length === 0 && <p className="muted inside-4">Nothing is gathered from outside yet.</p>}
        {sources.data?.map((s) => (
          <Source key={s.id} source={s} classId={id} manages={manages} />
        ))}
        {manages && <FeedReaders classId={id} />}
      </main>
    </div>
  );
}

function CandidateCard({
  classId,
  candidate,
  onAdded,
}: {
  classId: number;
  candidate: Candidate;
  onAdded: () => void;
}) {
  const { data: people } = useQuery(peopleOptions(classId));
  const [owner, setOwner] = useState<string | null>(null);
  const students = (people ?? []).filter((p) => p.role === 'STUDENT' && p.state !== 'left');
  const [unread, setUnread] = useState(false);
  const add = useWrite(
    (keepTrying: boolean) =>
      postJson(`/api/classes/${classId}/sources`, {
        feedAddress: candidate.feedAddress,
        siteAddress: candidate.site,
        title: candidate.title,
        description: candidate.description,
        personId: owner === 'news' ? undefined : Number(owner),
        keepTrying,
      }),
    {
      stale: [[]],
      onDone: onAdded,
      onWrong: (_says, e) => setUnread(e instanceof ApiProblem && e.code === 'source-unread'),
    },
  );
  return (
    <section className={css.candidate} aria-label={candidate.title}>
      <h2>{candidate.title || candidate.feedAddress}</h2>
      <p className="muted above-1 below-3 less">
        {candidate.description} · {t.count(candidate.entries, 'entry', 'entries')}
      </p>
      {candidate.preview.slice(0, 4).map((e) => (
        <div className="ruled-above inside-2 foot-2 less" key={e.title + e.at}>
          {e.title}{' '}
          <span className="muted tiny">
            · <When at={e.at} />
          </span>
          <div className="muted tiny">{e.firstLines}</div>
        </div>
      ))}
      <div className="row end wrap above-3">
        <Select
          className={css.whose}
          label="Whose it is"
          placeholder="Choose"
          searchable
          value={owner}
          onChange={setOwner}
          data={[
            { value: 'news', label: 'News for the class' },
            ...students.map((p) => ({ value: String(p.id), label: p.group ? `${p.name} (${p.group})` : p.name })),
          ]}
        />
        <Button go onClick={() => add.run(false)} disabled={!owner || add.busy}>
          Gather it
        </Button>
      </div>
      <p className="tiny muted above-2 below-0">
        {owner && owner !== 'news'
          ? 'Its entries are approved and marked like posts written here.'
          : owner
            ? 'Its entries stand beside the Porch, each leading to the original.'
            : ''}
      </p>
      <Wrong says={add.problem} />
      {unread && <Word onClick={() => add.run(true)}>Add it all the same, and keep trying</Word>}
    </section>
  );
}

function Source({ source: s, classId, manages }: { source: SourceView; classId: number; manages: boolean }) {
  const at = `/api/sources/${s.id}`;
  const here = { here: true, stale: [['sources', classId]] };
  const [leaving, setLeaving] = useState(false);
  const refresh = useWrite(() => postJson(`${at}/refresh`), here);
  const rest = useWrite(() => putJson(`${at}/paused`, { paused: !s.paused }), here);
  const remove = useWrite(() => deleteJson(at), here);
  return (
    <section className={css.source}>
      <div>
        <h2>
          <a href={s.siteAddress || s.feedAddress} target="_blank" rel="noopener noreferrer">
            {s.title}
          </a>
        </h2>
        <p className="muted above-1 below-0 less">
          {s.person ? `Posts of ${s.person}` : 'News for the class'} ·{' '}
          <b className={!s.paused && (s.health === 'FALTERING' || s.health === 'STOPPED') ? 'warm' : 'ink'}>
            {s.paused ? 'resting' : t.health[s.health]}
          </b>{' '}
          · {t.count(s.entries, 'entry', 'entries')}
          {s.lastEntry && (
            <>
              , the last <When at={s.lastEntry} />
            </>
          )}
        </p>
        {s.untidy && !s.lastError && (
          <p className="tiny muted above-1 below-0">Its feed is untidy: it was read by guess, as far as it goes.</p>
        )}
        {s.lastError && <p className="tell wrong above-2 below-0">{s.lastError}</p>}
        <p className="tiny muted above-1 below-0">
          {s.lastCheck && (
            <>
              Looked at <When at={s.lastCheck} />;{' '}
            </>
          )}
          {s.paused ? (
            'it is not looked at until it goes on'
          ) : s.health === 'STOPPED' ? (
            'not looked at any more'
          ) : (
            <>
              next <When at={s.nextCheck} />
            </>
          )}
        </p>
      </div>
      {manages && (
        <div className={css.acts}>
          <Word onClick={() => refresh.run()} disabled={refresh.busy}>
            {refresh.busy ? 'Looking' : 'Refresh now'}
          </Word>
          <Word tiny onClick={() => rest.run()} aria-label={`${s.paused ? 'Go on' : 'Let it rest'}: ${s.title}`}>
            {s.paused ? 'Go on' : 'Let it rest'}
          </Word>
          <Word tiny onClick={() => setLeaving(true)} aria-label={`Take out: ${s.title}`}>
            Take out
          </Word>
        </div>
      )}
      {leaving && (
        <div className={`tell ${css.leaving}`} role="alertdialog" aria-label={`Take out ${s.title}`}>
          {s.person
            ? `Nothing comes from it any more. The ${t.count(s.entries, 'post that came stays', 'posts that came stay')} in the class.`
            : 'Nothing comes from it any more, and its news no longer stand beside the Porch.'}
          <p className="row above-3 below-0">
            <Button onClick={() => remove.run()}>Take it out</Button>
            <Word onClick={() => setLeaving(false)}>{t.cancel}</Word>
          </p>
        </div>
      )}
      <Wrong says={refresh.problem || rest.problem || remove.problem} />
    </section>
  );
}

/** Who reads the class by a secret feed address, and when it was used last; staff end one that has got about. */
function FeedReaders({ classId }: { classId: number }) {
  const { data: readers } = useQuery(feedReadersOptions(classId));
  const end = useWrite((person: number) => deleteJson(`/api/classes/${classId}/feed-readers/${person}`), {
    here: true,
    stale: [['feed-readers', classId]],
  });
  if (!readers?.length) return null;
  return (
    <section className="above-6">
      <h2>Who reads the class in a feed reader</h2>
      <p className="muted less above-1 below-2">
        Each has a secret address that shows just what that person may read. It ends by itself when somebody leaves.
      </p>
      {readers.map((r) => (
        <p key={r.personId} className="ruled-above inside-2 foot-2 row wide below-0">
          <span className="grow">
            {r.name}{' '}
            <span className="muted tiny">
              ·{' '}
              {r.lastUse ? (
                <>
                  used last <When at={r.lastUse} />
                </>
              ) : (
                'not used yet'
              )}
            </span>
          </span>
          <Word tiny onClick={() => end.run(r.personId)} aria-label={`End it: the feed address of ${r.name}`}>
            End it
          </Word>
        </p>
      ))}
      <Wrong says={end.problem} />
    </section>
  );
}
