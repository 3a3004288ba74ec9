import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { ApiProblem, postJson, putJson } from '../api/client';
import { paperOptions, stripOptions } from '../api/queries';
import type { Paper, Released, Strip } from '../api/schema';
import { useKeys } from '../app/keys';
import { manages, useClass } from '../app/useClass';
import { Asides } from '../asides/Asides';
import { StateBoard } from '../parts/StateBoard';
import { Loading, Trouble } from '../parts/Trouble';
import { When } from '../parts/When';
import { Reading } from '../posts/Reading';
import { NameMenu } from '../people/NameMenu';
import { t } from '../texts/en';
import { Dock } from './Dock';
import css from './Mark.module.css';

const TO_MARK = ['HANDED_IN', 'BEING_MARKED'];

/** Marking one prompt: the class along the top, the post to read, the steps at the foot. */
export function MarkPage() {
  const { id } = useClass();
  const { promptId, studentId } = useParams();
  const strip = useQuery(stripOptions(Number(promptId)));
  if (strip.isError) return <div className="page plain"><Trouble error={strip.error} onRetry={() => strip.refetch()} /></div>;
  if (!strip.data) return <div className="page plain"><Loading /></div>;
  if (strip.data.students.length === 0) return <div className="page plain"><p className="muted">There is nobody in this class yet. <Link className="word" to={`/classes/${id}/people/roster`}>Enrol students</Link></p></div>;
  if (!studentId) {
    const first = strip.data.students.find((s) => TO_MARK.includes(s.standing)) ?? strip.data.students[0];
    return <Navigate to={`/classes/${id}/mark/${promptId}/${first.studentId}`} replace />;
  }
  return <Marking strip={strip.data} studentId={Number(studentId)} />;
}

function Marking({ strip, studentId }: { strip: Strip; studentId: number }) {
  const { id, role } = useClass();
  const navigate = useNavigate();
  const client = useQueryClient();
  const paper = useQuery({ ...paperOptions(strip.promptId, studentId), placeholderData: undefined });
  const [stair, setStair] = useState(0);
  const [folded, setFolded] = useState(false);
  const [open, setOpen] = useState<'remark' | 'word' | null>(null);
  const [said, setSaid] = useState('');
  const at = strip.students.findIndex((s) => s.studentId === studentId);
  const go = (to?: { studentId: number }) => {
    if (!to) return;
    setStair(0);
    setOpen(null);
    setSaid('');
    navigate(`/classes/${id}/mark/${strip.promptId}/${to.studentId}`);
  };
  const next = () => go([...strip.students.slice(at + 1), ...strip.students.slice(0, at)].find((s) => TO_MARK.includes(s.standing)) ?? strip.students[at + 1]);
  // One after the other, in the order of the keys; only the last answer is shown, so that no earlier one takes a newer step back.
  const line = useRef<{ last: Promise<unknown>; waiting: number }>({ last: Promise.resolve(), waiting: 0 });
  const put = (path: string, body: unknown) => {
    line.current.waiting++;
    line.current.last = line.current.last.then(() => keep(path, body));
  };
  const keep = async (path: string, body: unknown) => {
    try {
      const answer = await putJson<Paper>(`/api/prompts/${strip.promptId}/marking/${studentId}/${path}`, body);
      if (--line.current.waiting === 0) client.setQueryData(paperOptions(strip.promptId, studentId).queryKey, answer);
      setSaid('');
      void client.invalidateQueries({ queryKey: ['strip', strip.promptId] });
      void client.invalidateQueries({ queryKey: ['me'] });
    } catch (e) {
      line.current.waiting--;
      setSaid(e instanceof ApiProblem ? e.message : 'This was not kept. Please try again.');
      void client.invalidateQueries({ queryKey: ['paper', strip.promptId, studentId] });
    }
  };
  const p = paper.data;
  const criteria = p?.rubric?.criteria ?? [];
  const choose = (index: number, points: number) => {
    if (!p?.postId) return;
    const before = p.marks.find((m) => m.criterion === index);
    // Shown at once; the sum follows from the server, which is the one that computes it.
    client.setQueryData(paperOptions(strip.promptId, studentId).queryKey, { ...p, marks: [...p.marks.filter((m) => m.criterion !== index), { criterion: index, points, remark: before?.remark ?? '' }] });
    put(`criteria/${index}`, { points, remark: before?.remark ?? '' });
  };
  const release = async () => {
    const { released } = await postJson<Released>(`/api/prompts/${strip.promptId}/marking/release`);
    await client.invalidateQueries();
    setSaid(`${t.count(released, 'score is', 'scores are')} released. The students see them under Feedback.`);
  };
  useKeys([
    ...(criteria[stair]?.levels ?? []).map((l, i) => ({ key: String(i + 1), says: `${criteria[stair].name}: ${l.name} (${l.points})`, run: () => choose(stair, l.points) })),
    { key: 'Enter', says: 'Next stair', run: () => setStair((stair + 1) % Math.max(1, criteria.length)) },
    { key: 'Backspace', says: 'The stair before', run: () => setStair((stair + criteria.length - 1) % Math.max(1, criteria.length)) },
    { key: 'c', says: 'A comment on this stair', run: () => setOpen('remark') },
    { key: 'w', says: 'A word on the whole', run: () => setOpen('word') },
    { key: 'n', says: 'Next to mark', run: next },
    { key: 'ArrowRight', says: 'Next student', run: () => go(strip.students[at + 1]) },
    { key: 'ArrowLeft', says: 'The student before', run: () => go(strip.students[at - 1]) },
    { key: 's', says: folded ? 'Show the steps' : 'Fold the steps away', run: () => setFolded(!folded) },
  ]);
  return (
    <div className={css.frame}>
      <title>{`${strip.title} · Mark`}</title>
      <div className={css.strip}>
        <div className={css.title}><b>{strip.title}</b><br /><span className="tiny muted">{strip.marked} of {strip.handedIn} marked</span></div>
        <div className={css.people} role="group" aria-label="Students">
          {strip.students.map((s) => (
            <button key={s.studentId} className={`${css.student} ${s.late ? css.late : ''}`} aria-current={s.studentId === studentId} title={`${s.name}: ${t.states[s.standing]}${s.late ? ', late' : ''}`}
              aria-label={`${s.name}: ${t.states[s.standing]}${s.late ? ', late' : ''}`} onClick={() => go(s)}><StateBoard state={s.standing} big />{s.initials}</button>
          ))}
        </div>
        {strip.toRelease > 0 && manages(role) && <button className="btn" style={{ marginLeft: 16, whiteSpace: 'nowrap' }} onClick={release}>Release {strip.toRelease}</button>}
      </div>
      <main className={css.read} tabIndex={0} aria-label="The post">
        <div className={css.text}>
          {said && <p className="tell" role="status">{said}</p>}
          {paper.isError && <Trouble error={paper.error} onRetry={() => paper.refetch()} />}
          {!p && !paper.isError && <Loading />}
          {p && <PaperText paper={p} classId={id} student={studentId} />}
          {p && <div style={{ marginTop: 34, maxWidth: 520 }}><Asides at={`/api/prompts/${strip.promptId}/marking/${studentId}/staff-thread`} heading="Among the staff, about this marking" label="No student ever reads this" verb="Add it" /></div>}
        </div>
      </main>
      {p?.postId && p.rubric && !folded && <Dock paper={p} rubric={p.rubric} stair={stair} open={open} onStair={setStair} onOpen={setOpen} onChoose={choose} onNext={next}
        onRemark={(index, remark) => put(`criteria/${index}`, { points: p.marks.find((m) => m.criterion === index)?.points, remark })} onWord={(word) => put('word', { word })} />}
      {p?.postId && !p.rubric && <div className={css.dock}><p className="muted" style={{ margin: 0 }}>This prompt has no rubric, so there is nothing to mark by.</p></div>}
    </div>
  );
}

function PaperText({ paper, classId, student }: { paper: Paper; classId: number; student: number }) {
  if (!paper.postId) return <p className="muted" style={{ paddingTop: 20 }}><StateBoard state={paper.standing} withWord /> · {paper.student} has handed in nothing for this prompt.</p>;
  return (
    <article>
      <div className={css.who}>
        <NameMenu classId={classId} person={student} name={paper.student}><b>{paper.student}</b>{paper.group ? `, ${paper.group.toLowerCase()}` : ''}</NameMenu> · handed in <When at={paper.handedInAt!} />, {paper.daysLate === 0 ? 'on time' : `${t.count(paper.daysLate, 'day', 'days')} late${paper.graceMinutes ? ` after ${t.count(Math.round(paper.graceMinutes / 60), 'hour', 'hours')} of grace` : ''}`}
        {paper.standing === 'RELEASED' && ' · released'}
      </div>
      <h1>{paper.title}</h1>
      <Reading html={paper.html} postId={paper.postId} />
    </article>
  );
}
