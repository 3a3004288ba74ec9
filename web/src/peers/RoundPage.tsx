import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { deleteJson, postJson } from '../api/client';
import { roundOptions, warmUpPapersOptions } from '../api/queries';
import type { RoundLine, RoundView } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { GiveOne } from './GiveOne';
import { GivingOut } from './GivingOut';
import { Picture } from './Picture';
import { isSent, STAGE } from './stage';

/** One prompt's round of reviews: giving papers out, then who has done theirs. */
export function RoundPage() {
  const { id, name, manages } = useClass();
  const promptId = Number(useParams().promptId);
  const { data, error, refetch } = useQuery(roundOptions(promptId));
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  return (
    <div className="page plain">
      <title>{`Reviews · ${data.title} · ${name}`}</title>
      <main>
        <p className="muted above-0 below-1">
          <Link to={`/classes/${id}/prompt/${promptId}`}>{data.title}</Link>, one of the{' '}
          <Link to={`/classes/${id}/reviews`}>rounds of reviews</Link> in this class
        </p>
        <h1>{data.givenAt ? 'Who has done theirs' : 'Give out the papers'}</h1>
        <Out round={data} />
        <WarmUps round={data} classId={id} manages={manages} />
        {data.givenAt ? (
          <Round round={data} />
        ) : manages ? (
          <GivingOut round={data} />
        ) : (
          <p className="muted">A teacher of this class gives them out.</p>
        )}
      </main>
    </div>
  );
}

/** How many papers there are to warm up on, and the way to them. */
function WarmUps({ round, classId, manages }: { round: RoundView; classId: number; manages: boolean }) {
  const { promptId } = round;
  const { data } = useQuery(warmUpPapersOptions(promptId));
  // Who has begun does not warm up any more: nothing is offered then.
  const helps = manages && (!round.givenAt || round.lines.some((l) => l.stage === 'NOT_BEGUN'));
  if (!data || (data.papers.length === 0 && !helps)) return null;
  const ready = data.papers.filter((p) => p.ready).length;
  return (
    <p className="muted measure">
      {ready > 0
        ? `Reviewers warm up first, on ${t.count(ready, 'paper', 'papers')} that ${ready === 1 ? 'is' : 'are'} marked. `
        : 'Reviewers begin at once. '}
      <Link className="word" to={`/classes/${classId}/reviews/warm-up-papers/${promptId}`}>
        {data.papers.length === 0 ? 'Let them warm up first' : 'The warm-up papers'}
      </Link>
    </p>
  );
}

/** Whose papers take no part, and why. */
function Out({ round }: { round: RoundView }) {
  if (round.without.length === 0 && round.shut.length === 0) return null;
  return (
    <p className="muted measure">
      {round.without.length > 0 && `Not handed in yet: ${round.without.join(', ')}. `}
      {round.shut.length > 0 && `No classmate may read the papers of ${round.shut.join(', ')}, so they take no part.`}
    </p>
  );
}

function Round({ round }: { round: RoundView }) {
  const { id, manages } = useClass();
  const { lines } = round;
  const sent = lines.filter((l) => isSent(l.stage)).length;
  const late = lines.filter((l) => l.late && !isSent(l.stage)).length;
  const waits = lines.filter((l) => l.stage === 'WAITS').length;
  return (
    <>
      <p className="measure">
        <b>
          {sent} of {lines.length}
        </b>{' '}
        sent
        {waits > 0 && (
          <>
            , {waits}{' '}
            <Link className="word" to={`/classes/${id}/approve?sort=reviews`}>
              to be looked at
            </Link>
          </>
        )}
        {late > 0 && (
          <>
            , <b className="warm">{late} late</b>
          </>
        )}
        . Given out <When at={round.givenAt!} />, due <When at={round.rules.due} />.
      </p>
      <Picture
        people={round.people}
        cells={lines.map((l) => ({
          reviewer: l.reviewerId,
          author: l.authorId,
          kind: isSent(l.stage) ? 'sent' : l.stage === 'NOT_BEGUN' ? 'planned' : 'begun',
          late: l.late,
          says: STAGE[l.stage],
        }))}
      />
      <Lines round={round} />
      {manages && <GiveOne round={round} />}
    </>
  );
}

function Lines({ round }: { round: RoundView }) {
  const { id, manages } = useClass();
  const key = roundOptions(round.promptId).queryKey;
  const pass = useWrite((l: RoundLine) => postJson<RoundView>(`/api/peer-reviews/${l.id}/passed-on`, {}), {
    here: true,
    fills: key,
  });
  const take = useWrite((l: RoundLine) => deleteJson<RoundView>(`/api/peer-reviews/${l.id}`), {
    here: true,
    fills: key,
  });
  const [all, setAll] = useState(false);
  const wanting = round.lines.filter((l) => all || l.far || l.stage !== 'DONE');
  const shown = wanting.sort((a, b) => rank(a) - rank(b));
  return (
    <>
      <p className="row wrap middle above-6 below-0">
        <b>
          {all
            ? 'All reviews'
            : wanting.length === 0
              ? 'Nothing is missing.'
              : t.count(wanting.length, 'review is missing or wants a look', 'reviews are missing or want a look')}
        </b>
        {(all || wanting.length < round.lines.length) && (
          <Word aria-pressed={all} onClick={() => setAll(!all)}>
            {all ? 'What is missing' : `Show all ${round.lines.length}`}
          </Word>
        )}
      </p>
      <Wrong says={pass.problem || take.problem} />
      <div className="scrolls" tabIndex={0} role="region" aria-label="Reviews" hidden={shown.length === 0}>
        <table className="rows above-2">
          <thead>
            <tr>
              <th>Reads</th>
              <th>The paper of</th>
              <th>How far</th>
              <th>
                <span className="away">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((l) => (
              <tr key={l.id}>
                <td className="one-line">{l.reviewer}</td>
                <td className="one-line">
                  <Link className="word" to={`/classes/${id}/reviews/of/${round.promptId}/${l.authorId}`}>
                    {l.author}
                  </Link>
                </td>
                <td>
                  <span className={l.late && !isSent(l.stage) ? 'warm' : undefined}>
                    {STAGE[l.stage]}
                    {l.late && ', late'}
                  </span>
                  {l.sentAt && (
                    <span className="muted tiny">
                      {' '}
                      <When at={l.sentAt} />
                    </span>
                  )}
                  {l.far && <b className="warm tiny"> far from all others</b>}
                  {l.helped !== undefined && <span className="muted tiny"> helped{l.helped && `: “${l.helped}”`}</span>}
                </td>
                <td className="nums one-line">
                  {manages && !isSent(l.stage) && (
                    <>
                      <Word
                        tiny
                        aria-label={`Pass on: ${l.reviewer}, ${l.author}`}
                        disabled={pass.busy}
                        onClick={() => pass.run(l)}
                      >
                        Pass on
                      </Word>
                      <Word
                        className="before-3"
                        tiny
                        aria-label={`Take back: ${l.reviewer}, ${l.author}`}
                        disabled={take.busy}
                        onClick={() => take.run(l)}
                      >
                        Take back
                      </Word>
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="tiny muted above-2">
        “Pass on” gives the paper to whoever has time for it. {t.count(round.people.length, 'student', 'students')} take
        part; who hands in late is fitted in, and who leaves is replaced, by themselves.
      </p>
    </>
  );
}

/** What wants to be looked at comes first. */
const rank = (l: RoundLine) => (l.far ? 0 : l.late && !isSent(l.stage) ? 1 : !isSent(l.stage) ? 2 : 3);
