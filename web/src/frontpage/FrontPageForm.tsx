import { Checkbox, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { frontPageOptions } from '../api/queries';
import type { FrontPage } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';
import css from './FrontPageForm.module.css';

/** Where strangers find what the class shows to anyone, and what else stands there. */
export function FrontPageForm({ classId }: { classId: number }) {
  const page = useQuery(frontPageOptions(classId));
  if (page.isError) return <Trouble error={page.error} onRetry={() => page.refetch()} />;
  if (!page.data) return <Loading />;
  return <Form key={page.data.version} classId={classId} page={page.data} />;
}

function Form({ classId, page }: { classId: number; page: FrontPage }) {
  const form = useForm({
    initialValues: { address: page.address, findable: page.findable, peoplePages: page.peoplePages },
  });
  const set = useWrite(
    (values: typeof form.values) =>
      putJson<FrontPage>(`/api/classes/${classId}/front-page`, { ...values, version: page.version }),
    { form, fills: frontPageOptions(classId).queryKey, stale: [['class', classId]] },
  );
  return (
    <section className={css.part} aria-labelledby="front-page">
      <h2 id="front-page">The front page</h2>
      {page.open ? (
        <p className="muted">
          Whoever has this address reads what is for anyone, and nothing of who else is in the class:{' '}
          <a className="word" href={`/${page.address}`} target="_blank" rel="noopener">
            {page.whole}
          </a>
        </p>
      ) : (
        <p className="muted">
          Nobody finds anything at {page.whole} as long as strangers may not come in. That is one of the rules above.
        </p>
      )}
      <form onSubmit={form.onSubmit((values) => set.run(values))}>
        <TextInput
          label="Its address"
          description="Small letters, digits and dashes. The one before leads here too."
          maxLength={60}
          {...form.getInputProps('address')}
        />
        <Checkbox
          mt="md"
          label="All that one person wrote for anyone has a page of its own"
          {...form.getInputProps('peoplePages', { type: 'checkbox' })}
        />
        <Checkbox
          mt="sm"
          label="Search engines may find it"
          description={
            page.schoolFindable ? undefined : 'The keeper of the school does not let them find any class yet.'
          }
          {...form.getInputProps('findable', { type: 'checkbox' })}
        />
        <Button className="above-4" type="submit">
          Change the front page
        </Button>
      </form>
      <Wrong says={set.problem} />
    </section>
  );
}
