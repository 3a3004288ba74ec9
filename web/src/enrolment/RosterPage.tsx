import { Textarea } from '@mantine/core';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { deleteJson, getJson, postFile, postJson, withParams } from '../api/client';
import type { Import, Imported, Preview, RowView } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Meter } from '../ui/Meter';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Enrolment.module.css';
import { type Column, RosterColumns } from './RosterColumns';
import { SlipLinks } from './SlipLinks';

const OUTCOMES: Record<string, string> = {
  NEW: 'new account',
  JOINS: 'joins with own account',
  ALREADY: 'already here',
  CHANGES: 'is changed',
  DOUBLE: 'double',
  QUESTION: 'question',
  BAD: 'to be mended',
};
const CELLS = ['given', 'family', 'email', 'schoolNo', 'group'] as const;
const comes = (r: RowView) =>
  r.outcome === 'NEW' || r.outcome === 'JOINS' || r.outcome === 'CHANGES' || (r.outcome === 'QUESTION' && r.asNew);

/** Many students at once: paste or upload, look at every row, import the good ones, mend the others. */
export function RosterPage() {
  const { id, name } = useClass();
  const [text, setText] = useState('');
  const [rows, setRows] = useState<RowView[] | null>(null);
  // What was found out about the list, and where it came from, to read it again with other columns.
  const [list, setList] = useState<{ of: string | File; columns: Preview['columns']; notes: string[] } | null>(null);
  const [done, setDone] = useState<Imported | null>(null);
  // Why an import that was begun enrolled nobody.
  const [stopped, setStopped] = useState('');
  const [importing, setImporting] = useState<Import | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const at = `/api/classes/${id}/roster`;
  const preview = useWrite(
    ({ of, columns }: { of: string | File; columns?: Column[] }) =>
      typeof of === 'string'
        ? postJson<Preview>(`${at}/preview`, { text: of, columns })
        : postFile<Preview>(withParams(`${at}/preview-file`, { columns: columns?.join(',') }), of),
    {
      here: true,
      onDone: ({ columns, notes, rows }, { of }) => {
        setList({ of, columns, notes });
        setRows(rows);
      },
    },
  );
  const take = useWrite(
    async () => {
      let job = await postJson<Import>(at, { rows });
      while (job.state === 'running') {
        setImporting(job);
        await new Promise((later) => setTimeout(later, 250));
        job = await getJson<Import>(`/api/imports/${job.id}`);
      }
      return job;
    },
    {
      here: true,
      stale: [[]],
      onDone: ({ result, ...job }) => {
        setImporting(null);
        if (!result) setStopped(job.state === 'stopped' ? 'Stopped. Nobody was enrolled.' : (job.problem ?? t.again));
        else {
          setDone(result);
          setList(null);
          setRows(result.left.filter((r) => r.outcome === 'BAD' || r.outcome === 'QUESTION'));
        }
      },
    },
  );
  const busy = preview.busy || take.busy;
  const problem = preview.problem || take.problem || stopped;
  const look = (of: string | File, columns?: Column[]) => {
    setDone(null);
    setStopped('');
    take.forget();
    preview.run({ of, columns });
  };
  const enrol = () => {
    setStopped('');
    preview.forget();
    take.run();
  };
  const change = (line: number, part: Partial<RowView>) =>
    setRows((before) => before!.map((r) => (r.line === line ? { ...r, ...part } : r)));
  const checkAgain = () => look(asCsv(rows!));
  const good = rows?.filter(comes).length ?? 0;
  const changed = rows?.filter((r) => r.outcome === 'CHANGES').length ?? 0;

  return (
    <div className="page wide">
      <title>{`Enrol students · ${name}`}</title>
      <main>
        <h1>Enrol students</h1>
        {done && done.changed > 0 && (
          <p className="tell" role="status">
            {t.count(done.changed, 'student who was here already is', 'students who were here already are')} changed as
            the list says.
          </p>
        )}
        {done && done.enrolled.length > 0 && (
          <div className="tell above-4 below-4 measure-l" role="status">
            <b>{t.count(done.enrolled.length, 'student is', 'students are')} enrolled</b>, with the blogs of this class.
            New ones have a username and a pass phrase; who has an account already keeps it as it is.{' '}
            <SlipLinks classId={id} says="Print the sign-in slips" /> ·{' '}
            <Link className="word" to={`/classes/${id}/people`}>
              See them all
            </Link>
          </div>
        )}
        {!rows && (
          <div className="measure-l">
            <p className="muted above-2 below-4">
              Paste the names, one to a line, or rows from a spreadsheet, or upload the list of the school office as it
              is. You see every row before anything is saved.
            </p>
            <Textarea
              label="Names or rows"
              minRows={7}
              maxRows={18}
              value={text}
              onChange={(e) => setText(e.target.value)}
              placeholder={'Castellane, Wren\nAurelio, Pia'}
              error={problem || undefined}
            />
            <p className="row above-4">
              <Button go disabled={busy || !text.trim()} onClick={() => look(text)}>
                Look at the rows
              </Button>
              <Button disabled={busy} onClick={() => file.current?.click()}>
                Upload a file
              </Button>
              <input
                ref={file}
                type="file"
                hidden
                accept=".csv,.txt,.tsv,text/*"
                aria-label="Roster file"
                onChange={(e) => {
                  if (e.target.files?.[0]) void look(e.target.files[0]);
                  e.target.value = '';
                }}
              />
            </p>
          </div>
        )}
        {rows && rows.length > 0 && (
          <>
            <p className="muted above-2 below-4">
              {done
                ? 'These rows were left. Mend them and look again.'
                : `${t.count(rows.length, 'row', 'rows')} read; ${good - changed} can come in${changed ? `, ${changed} would be changed` : ''}. Nothing is saved yet.`}
            </p>
            {list?.notes.map((note) => (
              <p key={note} className="tell" role="status">
                {note}
              </p>
            ))}
            {list && <RosterColumns columns={list.columns} onChange={(columns) => look(list.of, columns)} />}
            <Wrong says={problem} />
            <div className="scrolls">
              <table className="rows">
                <thead>
                  <tr>
                    <th className="nums">Line</th>
                    <th>Given name</th>
                    <th>Family name</th>
                    <th>E-mail</th>
                    <th>School number</th>
                    <th>Group</th>
                    <th>Username</th>
                    <th>What happens</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((r) => (
                    <RosterRow key={r.line} row={r} onChange={(part) => change(r.line, part)} />
                  ))}
                </tbody>
              </table>
            </div>
            <p className={`row middle ${css.foot}`}>
              {good > 0 && !importing && (
                <Button go disabled={busy} onClick={enrol}>
                  {good > changed
                    ? `Enrol ${t.count(good - changed, 'student', 'students')}${changed ? ` and change ${changed}` : ''}`
                    : `Change ${t.count(changed, 'student', 'students')}`}
                </Button>
              )}
              {importing && <Importing job={importing} onStop={() => deleteJson(`/api/imports/${importing.id}`)} />}
              {rows.some((r) => r.outcome === 'BAD') && (
                <Button disabled={busy} onClick={checkAgain}>
                  Look at the rows again
                </Button>
              )}
              <Button
                disabled={busy}
                onClick={() => {
                  setRows(null);
                  setStopped('');
                  preview.forget();
                  take.forget();
                }}
              >
                Another list
              </Button>
            </p>
          </>
        )}
        {rows && rows.length === 0 && (
          <p>
            <Button
              onClick={() => {
                setRows(null);
                setText('');
              }}
            >
              Enrol more
            </Button>
          </p>
        )}
      </main>
    </div>
  );
}

/** How far an import is. It goes on when the page is left, and can be stopped until the rows are written. */
function Importing({ job, onStop }: { job: Import; onStop: () => void }) {
  return (
    <span className="grow">
      <span className="tiny muted block below-1" role="status">
        Pass phrases are made: {job.done} of {job.total}. You can leave this page; it goes on.{' '}
        <Word tiny onClick={onStop}>
          Stop
        </Word>
      </span>
      <Meter done={job.done} total={job.total} label="Rows done" />
    </span>
  );
}

function RosterRow({ row, onChange }: { row: RowView; onChange: (part: Partial<RowView>) => void }) {
  const bad = row.outcome === 'BAD';
  return (
    <tr className={bad ? css.bad : row.outcome === 'QUESTION' ? css.asked : comes(row) ? undefined : css.stays}>
      <td className="nums">{row.line}</td>
      {CELLS.map((c) => (
        <td key={c}>
          {bad ? (
            <input
              className={`slip ${css.cell}`}
              value={row[c]}
              aria-label={`${c}, line ${row.line}`}
              onChange={(e) => onChange({ [c]: e.target.value })}
            />
          ) : (
            row[c]
          )}
        </td>
      ))}
      <td>{row.username}</td>
      <td>
        {row.message || OUTCOMES[row.outcome]}
        {row.outcome === 'QUESTION' && (
          <label className="tiny block">
            <input type="checkbox" checked={row.asNew} onChange={(e) => onChange({ asNew: e.target.checked })} /> Yes,
            another person
          </label>
        )}
      </td>
    </tr>
  );
}

const quoted = (cell: string) => `"${cell.replace(/"/g, '""')}"`;
const asCsv = (rows: RowView[]) =>
  ['Forename,Surname,E-mail,Student no.,Group', ...rows.map((r) => CELLS.map((c) => quoted(r[c])).join(','))].join(
    '\n',
  );
