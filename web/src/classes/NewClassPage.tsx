import { Checkbox, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { getJson, postJson } from '../api/client';
import type { BlogForm, Created } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';

const iso = (d: Date) =>
  `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`;

/** A class in under a minute: one name is enough; everything else has a safe beginning. */
export function NewClassPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
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
  const make = useWrite(
    async (v: typeof form.values) => {
      const { breakFrom, breakTo, shared, each, ...of } = v;
      const breaks = breakFrom ? [{ from: breakFrom, to: breakTo || breakFrom }] : [];
      const { id } = await postJson<Created>('/api/classes', { ...of, breaks });
      for (const blog of await getJson<BlogForm[]>(`/api/classes/${id}/blogs/fresh`))
        if ((shared && blog.kind === 'SHARED') || (each && blog.kind === 'ONE_EACH'))
          await postJson(`/api/classes/${id}/blogs`, blog);
      return id;
    },
    {
      form,
      onDone: async (id) => {
        await client.refetchQueries({ queryKey: ['me'] });
        navigate(`/classes/${id}/people/roster`);
      },
    },
  );
  return (
    <div className="page plain">
      <title>New class · Vast Porch</title>
      <main className="measure">
        <h1>New class</h1>
        <p className="muted above-2 below-5">
          A name is enough. It begins closed: only its members read, and you see every post and comment before it is
          published. All of it can be changed later; nothing is lost.
        </p>
        <form onSubmit={form.onSubmit((v) => make.run(v))}>
          <TextInput label="Name of the class" size="md" autoFocus {...form.getInputProps('name')} />
          <div className="fields two">
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
          <Wrong says={make.problem} />
          <Button className="above-5" go type="submit">
            Make the class
          </Button>
        </form>
      </main>
    </div>
  );
}
