import { Radio, Select, Textarea, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, postJson } from '../api/client';
import { blogsOptions } from '../api/queries';
import type { SightlineView } from '../api/schema';
import { manages, useClass } from '../app/useClass';
import { Sightline } from '../parts/Sightline';
import { Loading, Trouble } from '../parts/Trouble';
import { t } from '../texts/en';

const KINDS = [
  { value: 'SHARED', label: 'Shared', says: 'Everybody in the class writes in one stream.', title: 'Class news' },
  { value: 'ONE_EACH', label: 'One each', says: 'Every student has an own blog. Own does not mean private: see below who reads it.', title: 'Log of {name}' },
  { value: 'GROUP', label: 'Group', says: 'A blog for each group; its members write.', title: 'Notes of {name}' },
  { value: 'TEACHERS', label: "Teacher's", says: 'Only you and your co-teachers write; students may comment.', title: 'From the teacher' },
  { value: 'JOURNAL', label: 'Journal', says: 'For each student, read by nobody but its author and the staff.', title: 'Journal of {name}' },
];
const WIDTHS = ['STAFF_AND_ME', 'MY_GROUP', 'MY_CLASS', 'SCHOOL', 'ANYONE'];
const COMMENTERS = [{ value: 'NOBODY', label: 'nobody' }, { value: 'CLASS', label: 'the class' }, { value: 'GUESTS_TOO', label: 'the class and guests' }];

/** The blogs of a class, each with who can read and write; new ones are made here. */
export function BlogsPage() {
  const { id, name, role } = useClass();
  const blogs = useQuery(blogsOptions(id));
  const [making, setMaking] = useState(false);
  return (
    <div className="page plain">
      <title>{`Blogs · ${name}`}</title>
      <main>
        <div style={{ display: 'flex', alignItems: 'baseline' }}><h1>Blogs</h1>{manages(role) && !making && <button className="word" style={{ marginLeft: 'auto' }} onClick={() => setMaking(true)}>New blog</button>}</div>
        {making && <NewBlog classId={id} onDone={() => setMaking(false)} />}
        {blogs.isPending && <Loading />}
        {blogs.isError && <Trouble error={blogs.error} onRetry={() => blogs.refetch()} />}
        {blogs.data?.length === 0 && <p className="muted">There is no blog yet. Make a shared one, or one for each student.</p>}
        {blogs.data?.map((b) => (
          <section key={`${b.kind}${b.title}`} style={{ padding: '18px 0', borderBottom: '1px solid var(--line)' }}>
            <h2>{b.title.replace('{name}', 'each student')}</h2>
            <p className="muted" style={{ margin: '2px 0 8px', fontSize: 15 }}>{t.kinds[b.kind]}{b.blogs !== 1 ? `, ${b.blogs} blogs so far; who comes later gets one` : ''}</p>
            <Sightline line={b.sightline} withWriters />
          </section>
        ))}
      </main>
    </div>
  );
}

function NewBlog({ classId, onDone }: { classId: number; onDone: () => void }) {
  const client = useQueryClient();
  const [problem, setProblem] = useState('');
  const form = useForm({ initialValues: { kind: 'ONE_EACH', title: KINDS[1].title, about: '', widest: 'MY_CLASS', commenters: 'CLASS' } });
  const wanted = form.values;
  const line = useQuery({
    queryKey: ['blog-sightline', classId, wanted.kind, wanted.widest, wanted.commenters],
    queryFn: () => postJson<SightlineView>(`/api/classes/${classId}/blogs/sightline`, { ...wanted, title: wanted.title || 'x' }),
    placeholderData: (before) => before,
  });
  const submit = form.onSubmit(async (values) => {
    try {
      await postJson(`/api/classes/${classId}/blogs`, values);
      await client.invalidateQueries();
      onDone();
    } catch (e) {
      if (e instanceof ApiProblem && e.field === 'title') form.setFieldError('title', e.message);
      else setProblem(e instanceof ApiProblem ? e.message : t.again);
    }
  });
  const setKind = (kind: string) => form.setValues({ kind, title: KINDS.find((k) => k.value === kind)!.title, widest: kind === 'JOURNAL' ? 'STAFF_AND_ME' : kind === 'GROUP' ? 'MY_GROUP' : 'MY_CLASS' });
  return (
    <form onSubmit={submit} style={{ background: 'var(--paper)', border: '1px solid var(--line)', borderRadius: 6, padding: '22px 26px', margin: '18px 0' }}>
      <Radio.Group label="What kind" value={wanted.kind} onChange={setKind}>
        {KINDS.map((k) => <Radio key={k.value} value={k.value} label={k.label} description={k.says} mt={8} />)}
      </Radio.Group>
      <TextInput label={wanted.kind === 'ONE_EACH' || wanted.kind === 'JOURNAL' || wanted.kind === 'GROUP' ? 'Title; {name} becomes the name' : 'Title'} mt="md" {...form.getInputProps('title')} />
      <Textarea label="What it is for; students see it while they write" mt="md" minRows={2} {...form.getInputProps('about')} />
      <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 16, marginTop: 14 }}>
        <Select label="Its posts reach at most" data={WIDTHS.map((a) => ({ value: a, label: t.audiences[a] }))} allowDeselect={false} disabled={wanted.kind === 'JOURNAL'} {...form.getInputProps('widest')} />
        <Select label="Who comments" data={COMMENTERS} allowDeselect={false} {...form.getInputProps('commenters')} />
      </div>
      <div className="tell" style={{ marginTop: 18 }} aria-live="polite">{line.data && <Sightline line={line.data} withWriters />}</div>
      {problem && <p className="tell wrong" role="alert">{problem}</p>}
      <p style={{ display: 'flex', gap: 10, margin: '18px 0 0' }}><button className="btn go" type="submit">Make it</button><button className="btn" type="button" onClick={onDone}>{t.cancel}</button></p>
    </form>
  );
}
