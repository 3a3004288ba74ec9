import { useQuery, useQueryClient } from '@tanstack/react-query';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { Link, Navigate, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { paperOptions, stripOptions } from '../api/queries';
import type { Strip, StripView } from '../api/schema';
import { Asides } from '../asides/Asides';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { useKeys } from '../ui/keys';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { AllowanceDialog } from './AllowanceDialog';
import { Dock, type Opened } from './Dock';
import css from './Mark.module.css';
import { Meanwhile, type Wanted } from './Meanwhile';
import { MembersDialog } from './MembersDialog';
import { PaperTexts } from './PaperTexts';
import { Recordings } from './Recordings';
import { ReleaseTime } from './ReleaseTime';
import { SamenessLine } from './SamenessLine';
import { SayIt } from './SayIt';
import { ScoreHistory } from './ScoreHistory';
import { SecondsNote } from './SecondsNote';
import { Unsent } from './Unsent';
import { useGiving } from './useGiving';
import { useMarkLine } from './useMarkLine';
import { useReleasing } from './useReleasing';
import { useSaying } from './useSaying';

/** Marking one prompt: the class along the top, the post to read, the steps at the foot. */
export function MarkPage() {
  const { id } = useClass();
  const { promptId, studentId } = useParams();
  const way = useWay();
  const strip = useQuery(stripOptions(Number(promptId), way.blind));
  if (strip.isError)
    return (
      <div className="page plain">
        <Trouble error={strip.error} onRetry={() => strip.refetch()} />
      </div>
    );
  if (!strip.data)
    return (
      <div className="page plain">
        <Loading />
      </div>
    );
  if (strip.data.students.length === 0)
    return (
      <div className="page plain">
        <p className="muted">
          There is nobody in this class yet.{' '}
          <Link className="word" to={`/classes/${id}/people/roster`}>
            Enrol students
          </Link>
        </p>
      </div>
    );
  if (!studentId) {
    const first = strip.data.students.find((s) => s.toMark) ?? strip.data.students[0];
    return <Navigate to={`/classes/${id}/mark/${promptId}/${first.studentId}${way.search}`} replace />;
  }
  return <Marking strip={strip.data} studentId={Number(studentId)} />;
}

const AHEAD = 2;

function Marking({ strip, studentId }: { strip: Strip; studentId: number }) {
  const { id, manages } = useClass();
  const navigate = useNavigate();
  const client = useQueryClient();
  const location = useLocation();
  const paper = useQuery({ ...paperOptions(strip.promptId, studentId), placeholderData: undefined });
  const [stair, setStair] = useState(0);
  const [folded, setFolded] = useState(false);
  const [looksBack, setLooksBack] = useState(false);
  const [open, setOpen] = useState<Opened>(null);
  const [said, setSaid] = useState('');
  const [allowing, setAllowing] = useState(false);
  const [joining, setJoining] = useState(false);
  const [saying, setSaying] = useState(false);
  const read = useRef<HTMLElement>(null);
  const beside = useRef<(() => void) | null>(null);
  const way = useWay();
  const { put, settled, meanwhile, waiting, leave } = useMarkLine(strip, studentId, setSaid, way.blind);
  const at = strip.students.findIndex((s) => s.studentId === studentId);
  const p = paper.data;
  const voice = useSaying(strip.promptId, studentId, setSaid);
  const giving = useGiving(strip, studentId, p, put);
  const { criteria } = giving;
  const current = criteria[stair];
  const go = (to?: { studentId: number }) => {
    if (!to) return;
    if (!way.byCriterion) setStair(0);
    setOpen(null);
    setSaying(false);
    setSaid('');
    navigate(`/classes/${id}/mark/${strip.promptId}/${to.studentId}${way.search}`);
  };
  const chosen = useRef(go);
  chosen.current = go;
  const choose = useCallback((to: StripView) => {
    chosen.current(to);
    // Else the next Enter, which is for the stairs, would choose this student again.
    read.current?.focus();
  }, []);
  const next = () => {
    const others = [...strip.students.slice(at + 1), ...strip.students.slice(0, at)];
    if (way.changed) {
      const again = others.find((s) => s.changed);
      return again ? go(again) : setSaid('Nothing else was handed in again since it was marked.');
    }
    if (!way.byCriterion || !current) return go(others.find((s) => s.toMark) ?? strip.students[at + 1]);
    const open = (criterion: string) => (s: StripView) => s.toMark && !s.given.includes(criterion);
    const here = others.find(open(current.id));
    if (here) return go(here);
    // All papers have this criterion: on with the next one.
    const on = criteria.findIndex((c) => strip.students.some(open(c.id)));
    if (on < 0) return setSaid('Every paper that is there has all its steps.');
    setStair(on);
    go(strip.students.find(open(criteria[on].id)));
  };
  const isThere = paper.data !== undefined;
  const upcoming = [...strip.students.slice(at + 1), ...strip.students.slice(0, at)]
    .filter((s) => s.toMark)
    .slice(0, AHEAD)
    .map((s) => s.studentId)
    .join();
  // While one reads, the next papers come, so that each is there at the press of a key.
  useEffect(() => {
    if (!upcoming || !isThere) return;
    // What came ahead is asked for again when it is looked at, and not before.
    for (const next of upcoming.split(','))
      void client.prefetchQuery({
        ...paperOptions(strip.promptId, Number(next)),
        staleTime: Number.POSITIVE_INFINITY,
      });
  }, [client, strip.promptId, upcoming, isThere]);
  const toStair = (by: number) => setStair((stair + by + criteria.length) % Math.max(1, criteria.length));
  const { release, takeOver } = useReleasing(strip.promptId, settled, setSaid);
  const canTakeOver = manages && !!p?.given.toTakeOver;
  useKeys([
    ...(current?.levels ?? []).map((l, i) => ({
      key: String(i + 1),
      says: `${current.name}: ${l.name} (${l.points})`,
      run: () => giving.choose(current, l.points),
    })),
    ...(current
      ? [
          { key: 'ArrowRight', says: 'One step up', run: () => giving.step(current, 1) },
          { key: 'ArrowLeft', says: 'One step down', run: () => giving.step(current, -1) },
          { key: '.', says: 'Points between the steps', run: () => setOpen('points') },
          { key: '0', says: 'Leave this stair out, or count it again', run: () => giving.leaveOut(current) },
          { key: 'u', says: 'Undo my last step here', run: giving.undo },
        ]
      : []),
    { key: 'Enter', says: 'Next stair', run: () => toStair(1) },
    { key: 'ArrowDown', says: 'Next stair', run: () => toStair(1) },
    { key: 'ArrowUp', says: 'The stair before', run: () => toStair(-1) },
    { key: 'c', says: 'A comment on this stair', run: () => setOpen('remark') },
    { key: 'w', says: 'A word on the whole', run: () => setOpen('word') },
    { key: 'v', says: 'Say it: record your voice, yourself or the screen', run: () => setSaying(true) },
    { key: 'e', says: 'What was given earlier on this stair', run: () => setLooksBack(!looksBack) },
    { key: 'b', says: 'Write beside the words that are chosen', run: () => beside.current?.() },
    ...(canTakeOver ? [{ key: 't', says: 'Take these marks over', run: () => takeOver.run(studentId) }] : []),
    { key: 'n', says: 'Next to mark', run: next },
    { key: 'p', says: 'The student before', run: () => go(strip.students[at - 1]) },
    { key: 's', says: folded ? 'Show the steps' : 'Fold the steps away', run: () => setFolded(!folded) },
  ]);
  const standing = p?.given.standing;
  // What several handed in together stands in the strip once.
  const known = at < 0 && strip.students.find((s) => p?.together?.alike.includes(s.studentId));
  if (known) return <Navigate to={`/classes/${id}/mark/${strip.promptId}/${known.studentId}${way.search}`} replace />;
  return (
    <div className={css.frame}>
      <title>{`${strip.title} · Mark`}</title>
      <section className={css.strip} aria-label="The papers">
        <div className={css.title}>
          <b>{strip.title}</b>
          <br />
          <span className="tiny muted">
            {strip.marked} of {strip.handedIn} marked
          </span>
        </div>
        <Students students={strip.students} current={studentId} onChoose={choose} />
        <select
          aria-label="Way through the papers"
          className={`pick ${css.way}`}
          value={way.is}
          onChange={(e) => navigate(`${location.pathname}${e.target.value && `?way=${e.target.value}`}`)}
        >
          <option value="">by student</option>
          <option value="criterion">by criterion</option>
          <option value="changed">handed in again</option>
          <option value="blind">without names</option>
        </select>
        {strip.toRelease > 0 && manages && (
          <Button className="before-4 one-line" disabled={release.busy} onClick={() => release.run(undefined)}>
            Release {strip.toRelease}
          </Button>
        )}
        {strip.toTakeOver > 1 && manages && (
          <Button className="before-4 one-line" disabled={takeOver.busy} onClick={() => takeOver.run(undefined)}>
            Take over {strip.toTakeOver}
          </Button>
        )}
        {strip.hasRubric && manages && <ReleaseTime promptId={strip.promptId} marked={strip.toRelease} />}
      </section>
      <main ref={read} className={css.read} tabIndex={0} aria-label="The post">
        <div className={css.text}>
          {said && (
            <p className="tell" role="status">
              {said}
            </p>
          )}
          {waiting > 0 && (
            <p className="tell" role="status">
              The server cannot be reached. {t.count(waiting, 'step is', 'steps are')} kept on this computer and sent
              when it is back; go on marking.
            </p>
          )}
          {meanwhile && p && (
            <Meanwhile
              paper={p}
              wanted={meanwhile.wanted}
              problem={meanwhile.problem}
              onGive={() => put(meanwhile.wanted)}
              onLeave={leave}
            />
          )}
          {giving.held && <Why wanted={giving.held} onSay={giving.becauseOf} onLeave={giving.leaveHeld} />}
          {p?.given.changed && p.evidence && !meanwhile && (
            <p className="tell" role="status">
              {p.student} has handed in again. The marks below were given by {p.given.marker} on what was there before;
              go through them, they count for this with the next step that you choose.
            </p>
          )}
          {p?.given.toTakeOver && !meanwhile && (
            <p className="tell row middle" role="status">
              <span className="grow">
                {p.given.assistant} has marked this.{' '}
                {manages ? 'It counts once you take it over.' : 'It counts once a teacher has taken it over.'}
              </span>
              {manages && (
                <Button disabled={takeOver.busy} onClick={() => takeOver.run(studentId)}>
                  Take it over <span className="key">T</span>
                </Button>
              )}
            </p>
          )}
          {p && <SecondsNote paper={p} manages={manages} />}
          {p?.peers && !way.blind && (
            <p className="muted below-3">
              <Link className="word" to={`/classes/${id}/reviews/of/${strip.promptId}/${studentId}`}>
                {t.count(p.peers.reviews, 'review', 'reviews')} by classmates
              </Link>
              : the ring on each stair is the middle of what they gave.
            </p>
          )}
          {paper.isError && <Trouble error={paper.error} onRetry={() => paper.refetch()} />}
          {!p && !paper.isError && <Loading />}
          {p && (
            <PaperTexts
              paper={p}
              classId={id}
              as={way.blind ? strip.students[at]?.name : undefined}
              onAllow={manages ? () => setAllowing(true) : undefined}
              onMembers={() => setJoining(true)}
              beside={beside}
            />
          )}
          {p && !way.blind && <SamenessLine promptId={strip.promptId} studentId={studentId} classId={id} />}
          {p && standing === 'RELEASED' && (
            <div className="above-6 measure">
              <Asides
                at={`/api/prompts/${strip.promptId}/marking/${studentId}/words`}
                heading={`Between ${way.blind ? strip.students[at]?.name : p.student} and the staff`}
                label="A word about these marks, to the student alone"
                verb="Send it"
              />
              {!way.blind && (
                <p className="above-3 below-0">
                  <Link
                    className="word"
                    to={`/classes/${id}/weeks/reports?week=${strip.due.slice(0, 10)}&only=${studentId}`}
                  >
                    A report of this week to {p.student}
                  </Link>
                </p>
              )}
            </div>
          )}
          {saying && p && (
            <SayIt
              name={way.blind ? strip.students[at]?.name : (p.together?.name ?? p.student)}
              onClose={() => setSaying(false)}
              onSay={(file, words) => void voice.say(file, words)}
            />
          )}
          {p && <Unsent voice={voice} />}
          {p && <Recordings recordings={p.recordings} promptId={strip.promptId} />}
          {p?.given.marker && <ScoreHistory key={studentId} paper={p} manages={manages} />}
          {p && (
            <div className="above-6 measure">
              <Asides
                at={`/api/prompts/${strip.promptId}/marking/${studentId}/staff-thread`}
                heading="Among the staff, about this marking"
                label="No student ever reads this"
                verb="Add it"
              />
            </div>
          )}
        </div>
      </main>
      {p?.evidence && p.rubric && standing !== 'LET_OFF' && !folded && (
        <Dock
          paper={p}
          rubric={p.rubric}
          stair={stair}
          open={open}
          giving={giving}
          looksBack={looksBack}
          onLookBack={() => setLooksBack(!looksBack)}
          onStair={setStair}
          onOpen={setOpen}
          onSay={() => setSaying(true)}
          onNext={next}
          onRelease={manages && standing === 'MARKED' ? () => release.run(studentId) : undefined}
        />
      )}
      {p?.evidence && !p.rubric && (
        <div className={css.dock}>
          <p className="muted above-0 below-0">This prompt has no rubric, so there is nothing to mark by.</p>
        </div>
      )}
      {p && allowing && (
        <AllowanceDialog
          prompt={strip.promptId}
          student={studentId}
          name={p.together?.name ?? p.student}
          called={p.together?.name ?? p.student.split(' ')[0]}
          onClose={() => setAllowing(false)}
        />
      )}
      {p?.together && joining && <MembersDialog classId={id} paper={p} onClose={() => setJoining(false)} />}
    </div>
  );
}

/** How one goes through the papers: by student, by criterion, without names, or only what was handed in again. */
function useWay() {
  const is = useSearchParams()[0].get('way') ?? '';
  return {
    is,
    byCriterion: is === 'criterion',
    blind: is === 'blind',
    changed: is === 'changed',
    search: is && `?way=${is}`,
  };
}

interface StudentsProps {
  students: StripView[];
  current: number;
  onChoose: (to: StripView) => void;
}

/** A board for each student; drawn anew only when one of them stands otherwise. */
const Students = memo(function Students({ students, current, onChoose }: StudentsProps) {
  return (
    <div className={css.people} role="group" aria-label="Students">
      {students.map((s) => (
        <button
          type="button"
          key={s.studentId}
          className={`${css.student} ${s.late ? css.late : ''}`}
          aria-current={s.studentId === current}
          title={`${s.name}: ${saysOf(s)}`}
          aria-label={`${s.initials}, ${s.name}: ${saysOf(s)}`}
          onClick={() => onChoose(s)}
        >
          <span aria-hidden="true">
            <StateBoard state={s.standing} big ownDate={s.ownDate} />
          </span>
          {s.initials}
        </button>
      ))}
    </div>
  );
});

const saysOf = (s: StripView) =>
  [
    t.states[s.standing],
    s.toTakeOver && 'to be taken over',
    s.late && 'late',
    s.ownDate && 'own date',
    s.changed && 'handed in again since it was marked',
  ]
    .filter(Boolean)
    .join(', ');

/** A score that its student has seen changes only with a reason. */
function Why({ wanted, onSay, onLeave }: { wanted: Wanted; onSay: (reason: string) => void; onLeave: () => void }) {
  const [text, setText] = useState('');
  return (
    <form
      className={css.why}
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) onSay(text);
      }}
    >
      <p className="above-0 below-2">
        The student has seen this score. You want to give <b>{wanted.says}</b>.
      </p>
      <label>
        Why does it change? The student reads this.
        <input autoFocus value={text} maxLength={1000} onChange={(e) => setText(e.target.value)} />
      </label>
      <Button go type="submit" disabled={!text.trim()}>
        Change it
      </Button>{' '}
      <Word onClick={onLeave}>Leave it as it is</Word>
    </form>
  );
}
