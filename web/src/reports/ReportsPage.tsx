import { Checkbox } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { deleteJson, postJson } from '../api/client';
import { reportOptions, reportPath, reportsOfWeekOptions, reportTemplatesOptions } from '../api/queries';
import type { RunView, WeekLine, WeekReports } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { useKeptName } from '../session/useKeptName';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { groupsOf } from '../ui/CellTable';
import { CleanHtml } from '../ui/CleanHtml';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Report.module.css';
import { ReportRun } from './ReportRun';
import { WhatWasTold } from './WhatWasTold';

/** A day as an address says it. */
const today = () => new Date().toLocaleDateString('en-CA');

/** The reports of a week: for whom, what each will say, and sending them. */
export function ReportsPage() {
  const { id, name } = useClass();
  const [params, setParams] = useSearchParams();
  const { data, error, refetch } = useQuery({
    ...reportsOfWeekOptions(id, params.get('week') ?? today()),
    placeholderData: (before) => before,
  });
  const { data: templates } = useQuery(reportTemplatesOptions(id));
  const template = params.get('template') ?? data?.run?.template ?? templates?.[0]?.key ?? 'letter';
  const ask = (field: string, value: string) =>
    setParams(
      (p) => {
        p.set(field, value);
        return p;
      },
      { replace: true },
    );
  return (
    <div className="page wide">
      <title>{`Reports · ${name}`}</title>
      <main>
        <div className="row wrap off-paper">
          <h1>Reports{data && `, ${data.week}`}</h1>
          {data && (
            <span className="push less row wrap">
              <label>
                Of{' '}
                <select
                  className="pick"
                  aria-label="Week"
                  value={data.monday}
                  onChange={(e) => ask('week', e.target.value)}
                >
                  {data.weeks.map((w) => (
                    <option key={w.monday} value={w.monday}>
                      {w.name}
                    </option>
                  ))}
                </select>
              </label>
              <label>
                as{' '}
                <select
                  className="pick"
                  aria-label="Template"
                  value={template}
                  onChange={(e) => ask('template', e.target.value)}
                >
                  {templates?.map((of) => (
                    <option key={of.key} value={of.key}>
                      {of.name}
                    </option>
                  ))}
                </select>
              </label>
            </span>
          )}
        </div>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading lines={9} />}
        {data && templates && (
          <Week
            key={data.monday}
            data={data}
            classId={id}
            template={template}
            only={Number(params.get('only')) || undefined}
          />
        )}
      </main>
    </div>
  );
}

interface WeekProps {
  data: WeekReports;
  classId: number;
  template: string;
  /** For this student alone, unless others are chosen too. */
  only?: number;
}

function Week({ data, classId, template, only }: WeekProps) {
  const [chosen, setChosen] = useState(
    () => new Set(data.lines.map((l) => l.studentId).filter((s) => !only || s === only)),
  );
  // What was typed and not sent is kept by this browser, so that going elsewhere meanwhile loses none of it.
  const kept = useKeptName(`notes-${classId}-${data.monday}`);
  const [typed, setTyped] = useState<Record<number, string>>(() => JSON.parse(localStorage.getItem(kept) ?? '{}'));
  const noteOf = (l: WeekLine) => typed[l.studentId] ?? l.told?.note ?? '';
  const type = (student: number, note: string) => {
    const now = { ...typed, [student]: note };
    setTyped(now);
    localStorage.setItem(kept, JSON.stringify(now));
  };
  const [looked, setLooked] = useState(only ?? data.lines[0]?.studentId);
  const stale = [['reports', classId]];
  const begin = useWrite(
    () =>
      postJson<RunView>(`/api/classes/${classId}/weeks/${data.monday}/reports`, {
        template,
        reports: data.lines
          .filter((l) => chosen.has(l.studentId))
          .map((l) => ({ student: l.studentId, note: noteOf(l) })),
      }),
    {
      stale,
      here: true,
      // Notes to those who are not told now stay typed.
      onDone: (run) => {
        const sent = new Set(run.lines.map((l) => l.studentId));
        const left = Object.entries(typed).filter(([student]) => !sent.has(Number(student)));
        if (left.length === 0) localStorage.removeItem(kept);
        else localStorage.setItem(kept, JSON.stringify(Object.fromEntries(left)));
      },
    },
  );
  const stop = useWrite((run: number) => deleteJson(`/api/classes/${classId}/report-runs/${run}`), {
    stale,
    here: true,
  });
  const line = data.lines.find((l) => l.studentId === looked);
  const groups = groupsOf(data.lines);
  const choose = (lines: WeekLine[]) => setChosen(new Set(lines.map((l) => l.studentId)));
  const toggle = (student: number) =>
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(student)) next.add(student);
      return next;
    });
  const isUnderWay = data.run !== undefined && data.run.ended === undefined;
  return (
    <div className={css.beside}>
      <section className="off-paper" aria-label="For whom">
        {data.run && <ReportRun run={data.run} onStop={() => stop.run(data.run?.id ?? 0)} />}
        <Wrong says={begin.problem ?? stop.problem} />
        <div className="row wrap above-3">
          <Button go disabled={begin.busy || isUnderWay || chosen.size === 0} onClick={() => begin.run()}>
            Make and send {t.count(chosen.size, 'report', 'reports')}
          </Button>
          {data.lines.some((l) => l.told) && (
            <a
              className="word"
              href={`/api/classes/${classId}/weeks/${data.monday}/reports.pdf`}
              target="_blank"
              rel="noopener"
            >
              All that were made, to print
            </a>
          )}
        </div>
        <p className="tiny muted above-2 below-2">
          Each gets theirs alone, on the Porch and by mail. Who was told the same before is not told again.
        </p>
        <p className="above-2 below-2 row wrap less">
          <Word onClick={() => choose(data.lines)}>All</Word>
          <Word onClick={() => choose([])}>Nobody</Word>
          {groups.map((g) => (
            <Word key={g} onClick={() => choose(data.lines.filter((l) => l.group === g))}>
              {g}
            </Word>
          ))}
        </p>
        <ul className={css.people}>
          {data.lines.map((l) => (
            <li key={l.studentId} data-looked={l.studentId === looked || undefined}>
              <Checkbox
                aria-label={`A report for ${l.student}`}
                checked={chosen.has(l.studentId)}
                onChange={() => toggle(l.studentId)}
              />
              <button
                type="button"
                className={css.who}
                aria-pressed={l.studentId === looked}
                onClick={() => setLooked(l.studentId)}
              >
                <span>
                  {l.student} {l.group && <span className={css.told}>{l.group}</span>}
                </span>
                <WhatWasTold line={l} note={noteOf(l)} />
              </button>
            </li>
          ))}
        </ul>
      </section>
      {line && (
        <Look
          line={line}
          classId={classId}
          monday={data.monday}
          template={template}
          note={noteOf(line)}
          onNote={(note) => type(line.studentId, note)}
        />
      )}
    </div>
  );
}

interface LookProps {
  line: WeekLine;
  classId: number;
  monday: string;
  template: string;
  note: string;
  onNote: (note: string) => void;
}

/** What one of them will read. */
function Look({ line, classId, monday, template, note, onNote }: LookProps) {
  const { data, error, refetch } = useQuery({
    ...reportOptions(classId, monday, line.studentId, template),
    placeholderData: (before) => before,
  });
  const student = data?.student ?? line.student;
  return (
    <section aria-label={`The report of ${student}`}>
      <label className="off-paper block">
        <span className="muted">A note to {student} alone; it stands in the report</span>
        <textarea className="slip" rows={2} maxLength={2000} value={note} onChange={(e) => onNote(e.target.value)} />
      </label>
      {error && <Trouble error={error} onRetry={() => refetch()} />}
      {!data && !error && <Loading lines={9} />}
      {data && (
        <>
          <article className={css.sheet} aria-label={data.title}>
            <CleanHtml html={data.html} />
          </article>
          <p className="tiny muted above-2 off-paper">
            It says only what {data.student} may read too: marks that are shown, posts that are up.{' '}
            <a
              className="word"
              href={reportPath(classId, monday, line.studentId, template, '.pdf')}
              target="_blank"
              rel="noopener"
            >
              As PDF
            </a>
          </p>
        </>
      )}
    </section>
  );
}
