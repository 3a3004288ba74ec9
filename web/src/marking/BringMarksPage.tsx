import { Textarea } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { postFile, postJson } from '../api/client';
import { promptsOptions } from '../api/queries';
import type { Criterion, MarksPreview, MarksRow, MarksTaken, PromptView, TableMark } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './BringMarks.module.css';

/** Marks that were given elsewhere: choose the prompt, paste or upload the table, look at every row, take the good ones. */
export function BringMarksPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const { data } = useQuery(promptsOptions(id));
  const prompts = (data ?? []).filter((p) => p.rubric);
  const prompt = prompts.find((p) => String(p.id) === params.get('prompt'));
  return (
    <div className="page wide">
      <title>{`Bring marks in · ${name}`}</title>
      <main>
        <p className="tiny">
          <Link className="word" to={`/classes/${id}/scores`}>
            Scores
          </Link>
        </p>
        <h1>Bring marks in</h1>
        <p className="muted above-2 below-4 measure-l">
          For marks that were given outside, on paper or in a spreadsheet. You see every row before anything is saved.
        </p>
        {!data && <Loading />}
        {data && prompts.length === 0 && <p className="muted">No prompt of this class has a rubric yet.</p>}
        {prompts.length > 0 && (
          <label className="block below-4">
            For the prompt{' '}
            <select
              className="pick"
              value={prompt?.id ?? ''}
              onChange={(e) => setParams({ prompt: e.target.value }, { replace: true })}
            >
              <option value="" disabled>
                choose one…
              </option>
              {prompts.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.title}
                </option>
              ))}
            </select>
          </label>
        )}
        {prompt && <MarksIn key={prompt.id} prompt={prompt} />}
      </main>
    </div>
  );
}

const comes = (row: MarksRow) => row.outcome === 'NEW' || row.outcome === 'CHANGES';

function MarksIn({ prompt }: { prompt: PromptView }) {
  const { id } = useClass();
  const [text, setText] = useState('');
  const [preview, setPreview] = useState<MarksPreview | null>(null);
  const [reason, setReason] = useState('');
  const [done, setDone] = useState<MarksTaken | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const at = `/api/prompts/${prompt.id}/marks-table`;
  const look = useWrite(
    (of: string | File) =>
      typeof of === 'string'
        ? postJson<MarksPreview>(`${at}/preview`, { text: of })
        : postFile<MarksPreview>(`${at}/preview-file`, of),
    { here: true, onDone: setPreview },
  );
  const take = useWrite(
    (rows: MarksRow[]) =>
      postJson<MarksTaken>(at, {
        rows: rows.map(({ student, seen, marks, word }) => ({ student, seen, marks, word })),
        reason,
      }),
    {
      here: true,
      stale: [['strip', prompt.id], ['score-sheet', id], ['paper', prompt.id], ['me']],
      onDone: (taken) => {
        setDone(taken);
        setText('');
        setPreview(null);
      },
    },
  );
  const criteria = prompt.rubric!.criteria;
  const rows = preview?.rows ?? [];
  const good = rows.filter(comes);
  const seen = good.some((r) => r.needsReason);
  return (
    <>
      {done && (
        <div className="tell above-2 below-4 measure-l" role="status">
          <b>Marks of {t.count(done.taken, 'student are', 'students are')} taken.</b>{' '}
          {done.taken > 0 && (
            <Link className="word" to={`/classes/${id}/mark/${prompt.id}`}>
              See them where you mark
            </Link>
          )}
          {done.left.map((l) => (
            <span key={l.name} className="block">
              {l.name} was left: {l.why}
            </span>
          ))}
        </div>
      )}
      {!preview && (
        <div className="measure-l">
          <p className="muted below-4">
            A row for each student, with a column for each of {criteria.map((c) => c.name).join(', ')}; points or names
            of steps.{' '}
            <a className="word" href={`/api/prompts/${prompt.id}/marks.csv`}>
              Take such a table along to fill in (CSV)
            </a>
          </p>
          <Textarea
            label="Rows"
            minRows={6}
            maxRows={16}
            value={text}
            onChange={(e) => setText(e.target.value)}
            placeholder={`Student, ${criteria.map((c) => c.name).join(', ')}, Comment`}
            error={look.problem || undefined}
          />
          <p className="row above-4">
            <Button go disabled={look.busy || !text.trim()} onClick={() => look.run(text)}>
              Look at the rows
            </Button>
            <Button disabled={look.busy} onClick={() => file.current?.click()}>
              Upload a file
            </Button>
            <input
              ref={file}
              type="file"
              hidden
              accept=".csv,.txt,.tsv,text/*"
              aria-label="Table of marks"
              onChange={(e) => {
                if (e.target.files?.[0]) look.run(e.target.files[0]);
                e.target.value = '';
              }}
            />
          </p>
        </div>
      )}
      {preview && (
        <>
          <p className="muted below-2">
            {t.count(rows.length, 'row', 'rows')} read; {good.length} can be taken. Nothing is saved yet.
          </p>
          {preview.notes.map((note) => (
            <p key={note} className="tell" role="status">
              {note}
            </p>
          ))}
          <div className="scrolls">
            <table className="rows">
              <thead>
                <tr>
                  <th className="nums">Line</th>
                  <th>Student</th>
                  {criteria.map((c) => (
                    <th key={c.id} className="nums">
                      {c.name}
                    </th>
                  ))}
                  <th>Comments</th>
                  <th>What happens</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <Row key={r.line} row={r} criteria={criteria} />
                ))}
              </tbody>
            </table>
          </div>
          {seen && (
            <Textarea
              className="measure-l above-4"
              label="Some of these scores were released. Why do they change? The students read it."
              autosize
              minRows={2}
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
          )}
          <Wrong says={take.problem} />
          <p className="row middle above-4">
            {good.length > 0 && (
              <Button go disabled={take.busy || (seen && !reason.trim())} onClick={() => take.run(good)}>
                Take the marks of {t.count(good.length, 'student', 'students')}
              </Button>
            )}
            <Word onClick={() => setPreview(null)}>Another table</Word>
          </p>
        </>
      )}
    </>
  );
}

const said = (mark?: TableMark) => (!mark ? '' : mark.notCounted ? 'not counted' : (mark.points ?? ''));

function Row({ row, criteria }: { row: MarksRow; criteria: Criterion[] }) {
  const of = (list: TableMark[], c: Criterion) => list.find((m) => m.criterion === c.id);
  const words = [row.word, ...row.marks.map((m) => m.remark)].filter(Boolean).length;
  return (
    <tr className={row.outcome === 'LEFT' ? css.left : comes(row) ? undefined : css.same}>
      <td className="nums">{row.line}</td>
      <td>{row.name ?? row.called}</td>
      {criteria.map((c) => {
        const now = said(of(row.marks, c));
        const was = said(of(row.before, c));
        return (
          <td key={c.id} className="nums">
            {was !== '' && was !== now && now !== '' && (
              <>
                <s className="muted">{was}</s>{' '}
              </>
            )}
            {now}
          </td>
        );
      })}
      <td>{words > 0 && t.count(words, 'comment', 'comments')}</td>
      <td>{row.problem || (row.marks.length === 0 && !row.word ? 'nothing given here' : HAPPENS[row.outcome])}</td>
    </tr>
  );
}

const HAPPENS: Record<MarksRow['outcome'], string> = {
  NEW: 'is marked',
  CHANGES: 'is changed',
  SAME: 'stands so already',
  LEFT: '',
};
