import { Checkbox, NumberInput, Select } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { deleteJson, postJson } from '../api/client';
import { promptOptions, secondReadingsOptions, stripOptions } from '../api/queries';
import type { Colleague, SecondLine, SecondsAsked, WantedReadings } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { againstFirst } from './apart';

/** Who reads which papers of a prompt a second time, and where the two lie apart. */
export function SecondReadingsPage() {
  const { id } = useClass();
  const promptId = Number(useParams().promptId);
  const { data: prompt } = useQuery(promptOptions(promptId));
  const { data, error, refetch } = useQuery(secondReadingsOptions(promptId));
  if (!data || !prompt)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  const back = data.lines.filter((l) => l.comesBack).length;
  return (
    <div className="page plain">
      <title>{`Second readings · ${prompt.title}`}</title>
      <main>
        <p className="muted above-0 below-1">{prompt.title}</p>
        <h1>Second readings</h1>
        {data.lines.length === 0 ? (
          <p className="muted">
            Nobody reads these papers a second time yet. Ask a colleague: both readings are kept, and only the first
            counts until a teacher says otherwise.
          </p>
        ) : (
          <>
            <p className="muted">
              {data.lines.filter((l) => l.finished).length} of {data.lines.length} done
              {back > 0 && (
                <>
                  , <b className="warm">{t.count(back, 'lies', 'lie')} too far apart</b>
                </>
              )}{' '}
              ·{' '}
              <Link className="word" to={`/classes/${id}/agreement?prompt=${promptId}`}>
                Do the two see the same?
              </Link>
            </p>
            <Lines lines={data.lines} promptId={promptId} classId={id} />
          </>
        )}
        <Ask promptId={promptId} colleagues={data.colleagues} />
      </main>
    </div>
  );
}

function Lines({ lines, promptId, classId }: { lines: SecondLine[]; promptId: number; classId: number }) {
  const back = useWrite(
    (l: SecondLine) => deleteJson(`/api/prompts/${promptId}/second-readings/${l.studentId}/by/${l.readerId}`),
    { stale: [['second-readings']] },
  );
  return (
    <table className="rows above-4">
      <thead>
        <tr>
          <th>Student</th>
          <th>Read by</th>
          <th>Against the first marks</th>
          <th>
            <span className="away">Take back</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={`${l.studentId} ${l.readerId}`}>
            <td>
              <Link className="word" to={`/classes/${classId}/mark/${promptId}/${l.studentId}`}>
                {l.student}
              </Link>
            </td>
            <td>
              {l.reader}
              {l.blind && <span className="muted tiny">, blind</span>}
            </td>
            <td>
              {!l.finished ? (
                <span className="muted">{l.begun ? 'being read' : 'not begun'}</span>
              ) : (
                <span className={l.comesBack ? 'warm' : undefined}>{againstFirst(l.apart)}</span>
              )}
              {l.settled && (
                <span className="muted tiny">
                  {' '}
                  settled: the {l.settled.takesSecond ? 'second' : 'first'} counts, “{l.settled.reason}”
                </span>
              )}
            </td>
            <td className="nums">
              {!l.begun && (
                <Word
                  tiny
                  aria-label={`Take back: ${l.student}, ${l.reader}`}
                  disabled={back.busy}
                  onClick={() => back.run(l)}
                >
                  Take back
                </Word>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const WHICH = [
  { value: 'ALL', label: 'All that is handed in' },
  { value: 'EVERY', label: 'Every so many' },
  { value: 'NEAR_EDGE', label: 'Those near the edge of a step' },
  { value: 'ONE', label: 'One paper' },
];

function Ask({ promptId, colleagues }: { promptId: number; colleagues: Colleague[] }) {
  const form = useForm({ initialValues: { reader: '', which: 'ALL', every: 4, student: '', blind: true } });
  const { data: strip } = useQuery({ ...stripOptions(promptId), enabled: form.values.which === 'ONE' });
  const v = form.values;
  const [asked, setAsked] = useState<number | null>(null);
  const ask = useWrite(
    () =>
      postJson<SecondsAsked>(`/api/prompts/${promptId}/second-readings`, {
        reader: Number(v.reader),
        which: v.which === 'ONE' ? undefined : (v.which as WantedReadings['which']),
        student: v.which === 'ONE' ? Number(v.student) : undefined,
        every: v.which === 'EVERY' ? v.every : undefined,
        blind: v.blind,
      }),
    { form, stale: [['second-readings']], onDone: (answer) => setAsked(answer.asked) },
  );
  return (
    <form
      className="above-6 measure-s"
      onSubmit={form.onSubmit(() => {
        if (!v.reader) form.setFieldError('reader', 'Choose who reads them.');
        else if (v.which === 'ONE' && !v.student) form.setFieldError('student', 'Choose a paper.');
        else ask.run();
      })}
    >
      <h2 className="below-3">Ask a colleague</h2>
      <Select
        label="Who reads"
        placeholder="Choose somebody who marks here"
        data={colleagues.map((c) => ({ value: String(c.id), label: c.name }))}
        {...form.getInputProps('reader')}
      />
      <Select
        className="above-3"
        label="Which papers"
        data={WHICH}
        allowDeselect={false}
        {...form.getInputProps('which')}
      />
      {v.which === 'ONE' && (
        <Select
          className="above-3"
          label="Whose paper"
          placeholder="Choose one that is handed in"
          searchable
          data={strip?.students
            .filter((s) => s.seen.posts.length > 0)
            .map((s) => ({ value: String(s.studentId), label: s.name }))}
          {...form.getInputProps('student')}
        />
      )}
      {v.which === 'EVERY' && (
        <NumberInput className="above-3" label="One of how many" min={1} max={100} {...form.getInputProps('every')} />
      )}
      <Checkbox
        className="above-3"
        label="Without seeing the first marks"
        description="They show once the second reading is done, which then stays as it is."
        {...form.getInputProps('blind', { type: 'checkbox' })}
      />
      <Wrong says={ask.problem} />
      <p className="row middle above-4" role="status">
        <Button type="submit" disabled={ask.busy}>
          Ask
        </Button>
        {asked !== null && <span className="muted">{askedInWords(asked)}</span>}
      </p>
    </form>
  );
}

const askedInWords = (n: number) =>
  n === 0 ? 'Nothing more to ask for.' : `Asked for ${t.count(n, 'paper', 'papers')}.`;
