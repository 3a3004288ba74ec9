import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { postJson } from '../api/client';
import { paperOptions, stripOptions } from '../api/queries';
import type { Paper, Released, Strip } from '../api/schema';
import { useWrite } from '../api/write';
import { Asides } from '../asides/Asides';
import { NameMenu } from '../people/NameMenu';
import { Reading } from '../reading/Reading';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { ExcerptNote } from '../ui/ExcerptNote';
import { useKeys } from '../ui/keys';
import { StateBoard } from '../ui/StateBoard';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { OutsideTime } from '../writing/OutsideTime';
import { Dock } from './Dock';
import css from './Mark.module.css';
import { Meanwhile } from './Meanwhile';
import { useMarkLine } from './useMarkLine';

/** Marking one prompt: the class along the top, the post to read, the steps at the foot. */
export function MarkPage() {
  const { id } = useClass();
  const { promptId, studentId } = useParams();
  const strip = useQuery(stripOptions(Number(promptId)));
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
    return <Navigate to={`/classes/${id}/mark/${promptId}/${first.studentId}`} replace />;
  }
  return <Marking strip={strip.data} studentId={Number(studentId)} />;
}

function Marking({ strip, studentId }: { strip: Strip; studentId: number }) {
  const { id, manages } = useClass();
  const navigate = useNavigate();
  const client = useQueryClient();
  const paper = useQuery({ ...paperOptions(strip.promptId, studentId), placeholderData: undefined });
  const [stair, setStair] = useState(0);
  const [folded, setFolded] = useState(false);
  const [open, setOpen] = useState<'remark' | 'word' | null>(null);
  const [said, setSaid] = useState('');
  const { put, settled, meanwhile, leave } = useMarkLine(strip, studentId, setSaid);
  const at = strip.students.findIndex((s) => s.studentId === studentId);
  const go = (to?: { studentId: number }) => {
    if (!to) return;
    setStair(0);
    setOpen(null);
    setSaid('');
    navigate(`/classes/${id}/mark/${strip.promptId}/${to.studentId}`);
  };
  const next = () =>
    go(
      [...strip.students.slice(at + 1), ...strip.students.slice(0, at)].find((s) => s.toMark) ?? strip.students[at + 1],
    );
  const p = paper.data;
  const criteria = p?.rubric?.criteria ?? [];
  const choose = (index: number, points: number) => {
    if (!p?.postId) return;
    const before = p.marks.find((m) => m.criterion === index);
    // Shown at once; the sum follows from the server, which is the one that computes it.
    client.setQueryData(
      paperOptions(strip.promptId, studentId).queryKey,
      (now) =>
        now && {
          ...now,
          marks: [
            ...now.marks.filter((m) => m.criterion !== index),
            { criterion: index, points, remark: before?.remark ?? '' },
          ],
        },
    );
    put({
      path: `criteria/${index}`,
      body: { points, remark: before?.remark ?? '' },
      says: `${criteria[index].name}: ${points}`,
    });
  };
  /** Up or down the stair that is current; the first press chooses its lowest step. */
  const step = (by: number) => {
    const levels = criteria[stair]?.levels ?? [];
    const now = levels.findIndex((l) => l.points === p?.marks.find((m) => m.criterion === stair)?.points);
    const to = levels[Math.max(0, Math.min(levels.length - 1, now < 0 ? 0 : now + by))];
    if (to && to !== levels[now]) choose(stair, to.points);
  };
  const toStair = (by: number) => setStair((stair + by + criteria.length) % Math.max(1, criteria.length));
  const release = useWrite(
    async () => {
      const papers = (await settled()).students
        .filter((s) => s.standing === 'MARKED')
        .map((s) => ({ student: s.studentId, seen: s.seen }));
      return postJson<Released>(`/api/prompts/${strip.promptId}/marking/release`, { papers });
    },
    {
      stale: [[]],
      onDone: ({ released, changed }) => {
        const up =
          released > 0
            ? `${t.count(released, 'score is', 'scores are')} released. The students see them under Feedback.`
            : 'Nothing was released.';
        const again = `Look again at ${changed.join(', ')}: something changed there since you opened this page.`;
        setSaid(changed.length > 0 ? `${up} ${again}` : up);
      },
      onWrong: setSaid,
    },
  );
  useKeys([
    ...(criteria[stair]?.levels ?? []).map((l, i) => ({
      key: String(i + 1),
      says: `${criteria[stair].name}: ${l.name} (${l.points})`,
      run: () => choose(stair, l.points),
    })),
    { key: 'ArrowRight', says: 'One step up', run: () => step(1) },
    { key: 'ArrowLeft', says: 'One step down', run: () => step(-1) },
    { key: 'Enter', says: 'Next stair', run: () => toStair(1) },
    { key: 'ArrowDown', says: 'Next stair', run: () => toStair(1) },
    { key: 'ArrowUp', says: 'The stair before', run: () => toStair(-1) },
    { key: 'c', says: 'A comment on this stair', run: () => setOpen('remark') },
    { key: 'w', says: 'A word on the whole', run: () => setOpen('word') },
    { key: 'n', says: 'Next to mark', run: next },
    { key: 'p', says: 'The student before', run: () => go(strip.students[at - 1]) },
    { key: 's', says: folded ? 'Show the steps' : 'Fold the steps away', run: () => setFolded(!folded) },
  ]);
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
        <div className={css.people} role="group" aria-label="Students">
          {strip.students.map((s) => (
            <button
              type="button"
              key={s.studentId}
              className={`${css.student} ${s.late ? css.late : ''}`}
              aria-current={s.studentId === studentId}
              title={`${s.name}: ${t.states[s.standing]}${s.late ? ', late' : ''}`}
              aria-label={`${s.initials}, ${s.name}: ${t.states[s.standing]}${s.late ? ', late' : ''}`}
              onClick={() => go(s)}
            >
              <span aria-hidden="true">
                <StateBoard state={s.standing} big />
              </span>
              {s.initials}
            </button>
          ))}
        </div>
        {strip.toRelease > 0 && manages && (
          <Button className="before-4 one-line" disabled={release.busy} onClick={() => release.run()}>
            Release {strip.toRelease}
          </Button>
        )}
      </section>
      <main className={css.read} tabIndex={0} aria-label="The post">
        <div className={css.text}>
          {said && (
            <p className="tell" role="status">
              {said}
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
          {p?.markedOn && !meanwhile && (
            <p className="tell" role="status">
              {p.student} has handed in again. The marks below were given by {p.marker} on the text before this one; go
              through them, they count for this one with the next step that you choose.
            </p>
          )}
          {paper.isError && <Trouble error={paper.error} onRetry={() => paper.refetch()} />}
          {!p && !paper.isError && <Loading />}
          {p && <PaperText paper={p} classId={id} student={studentId} />}
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
      {p?.postId && p.rubric && !folded && (
        <Dock
          paper={p}
          rubric={p.rubric}
          stair={stair}
          open={open}
          onStair={setStair}
          onOpen={setOpen}
          onChoose={choose}
          onNext={next}
          onRemark={(index, remark) =>
            put({
              path: `criteria/${index}`,
              body: { points: p.marks.find((m) => m.criterion === index)?.points, remark },
              says: `a comment on ${criteria[index].name}: “${remark}”`,
            })
          }
          onWord={(word) => put({ path: 'word', body: { word }, says: `a word on the whole: “${word}”` })}
        />
      )}
      {p?.postId && !p.rubric && (
        <div className={css.dock}>
          <p className="muted above-0 below-0">This prompt has no rubric, so there is nothing to mark by.</p>
        </div>
      )}
    </div>
  );
}

function PaperText({ paper, classId, student }: { paper: Paper; classId: number; student: number }) {
  if (!paper.postId)
    return (
      <p className="muted inside-5">
        <StateBoard state={paper.standing} withWord /> · {paper.student} has handed in nothing for this prompt.
      </p>
    );
  return (
    <article>
      <div className={css.who}>
        <NameMenu classId={classId} person={student} name={paper.student}>
          <b>{paper.student}</b>
          {paper.group ? `, ${paper.group.toLowerCase()}` : ''}
        </NameMenu>{' '}
        · handed in <When at={paper.handedInAt!} />,{' '}
        {paper.daysLate === 0
          ? 'on time'
          : `${t.count(paper.daysLate, 'day', 'days')} late${paper.graceMinutes ? ` after ${t.count(Math.round(paper.graceMinutes / 60), 'hour', 'hours')} of grace` : ''}`}
        {paper.standing === 'RELEASED' && ' · released'}
      </div>
      {paper.gathered && <OutsideTime postId={paper.postId} />}
      <h1>{paper.title}</h1>
      <Reading html={paper.html} postId={paper.postId} />
      <ExcerptNote excerpt={paper.excerpt} />
    </article>
  );
}
