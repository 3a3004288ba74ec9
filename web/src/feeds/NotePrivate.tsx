import { Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { postJson } from '../api/client';
import { outsideDirectoryOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { useOwners } from './CandidateCard';
import css from './Sources.module.css';

/** A blog that asks one to sign in cannot be gathered; it can be noted, so that the directory knows of it. */
export function NotePrivate({ classId, address, onNoted }: { classId: number; address: string; onNoted: () => void }) {
  const owners = useOwners(classId);
  const form = useForm({ initialValues: { title: '', personId: null as string | null } });
  const note = useWrite(
    (v: typeof form.values) =>
      postJson(`/api/classes/${classId}/private-blogs`, {
        address,
        title: v.title,
        personId: v.personId && v.personId !== 'news' ? Number(v.personId) : undefined,
      }),
    { form, field: 'title', stale: [outsideDirectoryOptions(classId).queryKey], onDone: onNoted },
  );
  return (
    <form className={css.candidate} onSubmit={form.onSubmit((v) => note.run(v))}>
      <p className="muted above-0 below-2">
        You can note it, so that the list of blogs says whose it is and that it is private.
      </p>
      <div className="row end wrap">
        <TextInput className={css.whose} label="Its name here" {...form.getInputProps('title')} />
        <Select
          className={css.whose}
          label="Whose it is"
          placeholder="Choose"
          searchable
          data={owners}
          {...form.getInputProps('personId')}
        />
        <Button type="submit" disabled={note.busy || !form.values.title.trim() || !form.values.personId}>
          Note it
        </Button>
      </div>
    </form>
  );
}
