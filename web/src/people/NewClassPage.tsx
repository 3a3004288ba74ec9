import { Checkbox, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiProblem, postJson, sentenceOf } from '../api/client';
import type { Created } from '../api/schema';
import { FRESH } from '../blogs/fresh';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

const iso = (d: Date) =>
  `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`;

/** A class in under a minute: one name is enough; everything else has a safe beginning. */
export function NewClassPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [problem, setProblem] = useState('');
  const form = useForm({
    initialValues: {
      name: '',
      subject: '',
      level: '',
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'Europe/London',
      firstDay: iso(new Date()),
      lastDay: iso(new Date(Date.now() + 13 * 7 * 86_400_000)),
      breakFrom: '',
      breakTo: '',
      shared: true,
      each: true,
    },
  });
  const submit = form.onSubmit(async (v) => {
    setProblem('');
    try {
      const breaks = v.breakFrom ? [{ from: v.breakFrom, to: v.breakTo || v.breakFrom }] : [];
      const { id } = await postJson<Created>('/api/classes', {
        name: v.name,
        subject: v.subject,
        level: v.level,
        zone: v.zone,
        firstDay: v.firstDay,
        lastDay: v.lastDay,
        breaks,
      });
      if (v.shared) await postJson(`/api/classes/${id}/blogs`, { ...FRESH, kind: 'SHARED', title: 'Class news' });
      if (v.each) await postJson(`/api/classes/${id}/blogs`, { ...FRESH, kind: 'ONE_EACH', title: 'Log of {name}' });
      await client.refetchQueries({ queryKey: ['me'] });
      navigate(`/classes/${id}/people/roster`);
    } catch (e) {
      if (e instanceof ApiProblem && e.field && e.field in form.values) form.setFieldError(e.field, e.message);
      else setProblem(sentenceOf(e));
    }
  });
  return (
    <div className="page plain">
      <title>New class · Vast Porch</title>
      <main style={{ maxWidth: 560 }}>
        <h1>New class</h1>
        <p className="muted" style={{ margin: '6px 0 20px' }}>
          A name is enough. It begins closed: only its members read, and you see every post and comment before it is
          published. All of it can be changed later; nothing is lost.
        </p>
        <form onSubmit={submit}>
          <TextInput label="Name of the class" size="md" autoFocus {...form.getInputProps('name')} />
          <div className="fields" style={{ gridTemplateColumns: '1fr 1fr' }}>
            <TextInput label="Subject" {...form.getInputProps('subject')} />
            <TextInput label="Year or level" {...form.getInputProps('level')} />
            <TextInput label="Term from" type="date" {...form.getInputProps('firstDay')} />
            <TextInput label="until" type="date" {...form.getInputProps('lastDay')} />
            <TextInput label="A break from" type="date" {...form.getInputProps('breakFrom')} />
            <TextInput label="until" type="date" {...form.getInputProps('breakTo')} />
            <TextInput label="Time zone" {...form.getInputProps('zone')} />
          </div>
          <Checkbox
            mt="lg"
            label="A shared blog, in which everybody writes"
            {...form.getInputProps('shared', { type: 'checkbox' })}
          />
          <Checkbox
            mt="sm"
            label="A blog for each student, read by the class"
            {...form.getInputProps('each', { type: 'checkbox' })}
          />
          <Wrong says={problem} />
          <Button go type="submit" style={{ marginTop: 22 }}>
            Make the class
          </Button>
        </form>
      </main>
    </div>
  );
}
