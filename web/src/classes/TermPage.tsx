import { Checkbox, Radio, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { classOptions } from '../api/queries';
import type { ClassView } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { Button } from '../ui/Button';
import { Loading } from '../ui/Trouble';
import { Word } from '../ui/Word';

/** What came of the last change; kept outside the form, which begins anew with what is there now. */
type Said = { wrong: boolean; text: string } | null;

export function TermPage() {
  const { id } = useClass();
  const { data } = useQuery(classOptions(id));
  const [said, setSaid] = useState<Said>(null);
  return data ? (
    <TermForm key={data.version} of={data} said={said} onSaid={setSaid} />
  ) : (
    <div className="page plain">
      <Loading />
    </div>
  );
}

/** What is wrong with a list, beside it. */
const Fault = ({ says }: { says?: React.ReactNode }) =>
  says ? (
    <p className="tell wrong" role="alert">
      {says}
    </p>
  ) : null;

/** The days after the last term: a fortnight later, and as long as it was. */
function nextTerm(terms: { firstDay: string; lastDay: string }[]) {
  const latest = terms.reduce((a, b) => (a.lastDay > b.lastDay ? a : b));
  const day = (date: Date) => date.toISOString().slice(0, 10);
  const end = Date.parse(latest.lastDay);
  const first = end + 15 * 86_400_000;
  const length = Number.isNaN(end) ? 0 : end - Date.parse(latest.firstDay);
  if (Number.isNaN(end) || Number.isNaN(length)) return { name: '', firstDay: '', lastDay: '' };
  return { name: '', firstDay: day(new Date(first)), lastDay: day(new Date(first + length)) };
}

/** What the class is called, when it is, and how its people's names are shown. Nothing is lost by a change. */
function TermForm({ of, said, onSaid }: { of: ClassView; said: Said; onSaid: (said: Said) => void }) {
  const form = useForm({
    initialValues: {
      name: of.name,
      subject: of.subject,
      level: of.level,
      zone: of.zone,
      terms: of.terms.map(({ name, firstDay, lastDay }) => ({ name, firstDay, lastDay })),
      breaks: of.breaks,
      ownPasswords: of.ownPasswords,
      byGiven: String(of.byGiven),
    },
  });
  const onWrong = (text: string) => onSaid({ wrong: true, text });
  const change = useWrite(
    ({ byGiven, ...v }: typeof form.values) =>
      putJson(`/api/classes/${of.id}`, {
        ...v,
        breaks: v.breaks.filter((b) => b.from).map((b) => ({ from: b.from, to: b.to || b.from })),
        byGiven: byGiven === 'true',
        version: of.version,
      }),
    { form, stale: [[]], onDone: () => onSaid({ wrong: false, text: 'The class is changed.' }), onWrong },
  );
  const show = useWrite(
    ({ as }: { as: string; label: string }) => putJson(`/api/classes/${of.id}/shown`, { shown: as }),
    {
      stale: [[]],
      onDone: (_answer, { label }) =>
        onSaid({ wrong: false, text: `Readers now see students ${label.toLowerCase()}.` }),
      onWrong,
    },
  );
  return (
    <div className="page plain">
      <title>{`Term and names · ${of.name}`}</title>
      <main className="measure">
        <h1>Term and names</h1>
        <p className="muted above-2 below-4">
          All of it can be changed at any time. Posts keep their dates; the weeks are counted anew.
        </p>
        <form onSubmit={form.onSubmit((v) => change.run(v))}>
          <TextInput label="Name of the class" {...form.getInputProps('name')} />
          <div className="fields two">
            <TextInput label="Subject" {...form.getInputProps('subject')} />
            <TextInput label="Year or level" {...form.getInputProps('level')} />
          </div>
          <h2 className="above-6">Terms</h2>
          <p className="muted above-1 below-0">One after the other; each counts its weeks from 1.</p>
          {form.values.terms.map((_, i) => (
            <div key={i} className="fields three-and">
              <TextInput
                label="Called"
                placeholder="such as Autumn"
                maxLength={60}
                {...form.getInputProps(`terms.${i}.name`)}
              />
              <TextInput label="Term from" type="date" {...form.getInputProps(`terms.${i}.firstDay`)} />
              <TextInput label="until" type="date" {...form.getInputProps(`terms.${i}.lastDay`)} />
              <Button
                onClick={() => form.removeListItem('terms', i)}
                disabled={form.values.terms.length === 1}
                aria-label={`Remove term ${i + 1}`}
              >
                Remove
              </Button>
            </div>
          ))}
          <Fault says={form.errors.terms} />
          <p className="above-3 below-0">
            <Word onClick={() => form.insertListItem('terms', nextTerm(form.values.terms))}>Add a term</Word>
          </p>
          <h2 className="above-6">Breaks</h2>
          {form.values.breaks.map((_, i) => (
            <div key={i} className="fields two-and">
              <TextInput label="Break from" type="date" {...form.getInputProps(`breaks.${i}.from`)} />
              <TextInput label="until" type="date" {...form.getInputProps(`breaks.${i}.to`)} />
              <Button onClick={() => form.removeListItem('breaks', i)} aria-label={`Remove break ${i + 1}`}>
                Remove
              </Button>
            </div>
          ))}
          <Fault says={form.errors.breaks} />
          <p className="above-3 below-0">
            <Word onClick={() => form.insertListItem('breaks', { from: '', to: '' })}>Add a break</Word>
          </p>
          <TextInput label="Time zone" mt="md" {...form.getInputProps('zone')} />
          <h2 className="above-6">Names and passwords</h2>
          <Radio.Group label="Lists of people are sorted by" mt="sm" {...form.getInputProps('byGiven')}>
            <Radio value="false" label="family name" mt={6} />
            <Radio value="true" label="given name" mt={8} />
          </Radio.Group>
          <Checkbox
            mt="md"
            label="Students may change their own password"
            description="If not, you give them new pass phrases."
            {...form.getInputProps('ownPasswords', { type: 'checkbox' })}
          />
          {said && (
            <p className={`tell ${said.wrong ? 'wrong' : ''}`} role={said.wrong ? 'alert' : 'status'}>
              {said.text}
            </p>
          )}
          <Button className="above-4" go type="submit">
            Change the class
          </Button>
        </form>
        <h2 className="above-6">How readers see all students</h2>
        <p className="muted above-1 below-3">
          You and the other staff always see the whole name. Pen names are given one by one, among the people, and stay.
          Blogs that carry a name get a new title and address.
        </p>
        <p className="row">
          {[
            { as: 'OWN_NAME', label: 'By their own names' },
            { as: 'FIRST_AND_INITIAL', label: 'By first name and initial' },
          ].map((way) => (
            <Button key={way.as} aria-pressed={of.shown === way.as} onClick={() => show.run(way)}>
              {way.label}
            </Button>
          ))}
        </p>
      </main>
    </div>
  );
}
