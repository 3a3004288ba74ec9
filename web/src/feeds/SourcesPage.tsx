import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import { feedReadersOptions, ownRuleOptions, sourcesOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { RuleChoice } from '../ui/RuleChoice';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { BringInBox } from './BringInBox';
import { GonePosts } from './GonePosts';
import { OpmlPart } from './OpmlPart';
import { SourceLine } from './SourceLine';

/** Outside blogs: paste an address, see what would come, choose whose it is. Then they come by themselves. */
export function SourcesPage() {
  const { id, name, manages } = useClass();
  const [asked, setAsked] = useState(false);
  // What is about to be looked at is asked for often, until it has been.
  const sources = useQuery({
    ...sourcesOptions(id),
    refetchInterval: (q) => (q.state.data?.some((s) => s.due) ? 1_500 : 20_000),
  });
  const waiting = sources.data?.filter((s) => s.due).length ?? 0;
  const all = useWrite(() => postJson(`/api/classes/${id}/sources/refresh`), {
    here: true,
    stale: [['sources', id]],
    onDone: () => setAsked(true),
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
            <BringInBox classId={id} />
          </>
        )}
        {manages && (sources.data?.length ?? 0) > 1 && (
          <p className="row wide above-5 below-0">
            <Word onClick={() => all.run()} disabled={all.busy}>
              Refresh all now
            </Word>
            <span className="muted tiny" role="status">
              {waiting > 0
                ? `${t.count(waiting, 'blog is', 'blogs are')} still to be looked at`
                : asked
                  ? 'All were looked at.'
                  : ''}
            </span>
            <Wrong says={all.problem} />
          </p>
        )}
        {sources.isPending && <Loading />}
        {sources.isError && <Trouble error={sources.error} onRetry={() => sources.refetch()} />}
        {sources.data?.length === 0 && <p className="muted inside-4">Nothing is gathered from outside yet.</p>}
        {sources.data?.map((s) => (
          <SourceLine key={s.id} source={s} classId={id} manages={manages} />
        ))}
        {manages && <GonePosts classId={id} />}
        {manages && <OwnRule classId={id} />}
        {manages && <OpmlPart classId={id} />}
        {manages && <FeedReaders classId={id} />}
      </main>
    </div>
  );
}

const OWN = [
  { value: 'STAFF_ONLY', label: 'Staff alone add outside blogs' },
  { value: 'ASKED', label: 'Students may register their own; staff say yes first' },
  { value: 'FREE', label: 'Students may register their own, and it comes in at once' },
];

/** Whether students register outside blogs of their own. */
function OwnRule({ classId }: { classId: number }) {
  const rule = ownRuleOptions(classId);
  const { data } = useQuery(rule);
  if (!data) return null;
  return (
    <RuleChoice
      title="Whose doing"
      label="Who adds outside blogs"
      choices={OWN}
      rule={data.own}
      queryKey={rule.queryKey}
      send={(own, seen) => putJson(`/api/classes/${classId}/sources/rule`, { own, seen })}
    >
      Whatever comes in is looked at by the rules of the class, as posts written here are.
    </RuleChoice>
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
