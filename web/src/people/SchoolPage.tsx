import { TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, postJson } from '../api/client';
import { staffOptions } from '../api/queries';
import type { Welcome } from '../api/schema';
import { Loading, Trouble } from '../parts/Trouble';
import { t } from '../texts/en';
import { WelcomeNote } from './PeoplePage';

/** The keeper's page: the teachers of the school. */
export function SchoolPage() {
  const { data, error, refetch } = useQuery(staffOptions);
  const form = useForm({ initialValues: { title: '', given: '', family: '', email: '' }, validate: { family: (v) => (v.trim() ? null : 'A family name is needed.') } });
  const [welcome, setWelcome] = useState<Welcome | null>(null);
  const [problem, setProblem] = useState('');
  const submit = form.onSubmit(async (values) => {
    setProblem('');
    try {
      setWelcome(await postJson<Welcome>('/api/school/staff', values));
      form.reset();
      await refetch();
    } catch (e) {
      setProblem(e instanceof ApiProblem ? e.message : t.again);
    }
  });
  return (
    <div className="page plain">
      <title>The school · Vast Porch</title>
      <main>
        <h1>The school</h1>
        <p className="muted" style={{ margin: '6px 0 18px' }}>Teachers make their own classes and enrol their students. You make the teachers.</p>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading />}
        {data && <table className="rows"><thead><tr><th>Name</th><th>Username</th><th>Account</th></tr></thead>
          <tbody>{data.map((s) => <tr key={s.id}><td>{s.name}</td><td>{s.username}</td><td className="muted">{s.keeper ? 'school keeper' : 'teacher'}{s.ready ? '' : ', has not set a password yet'}</td></tr>)}</tbody></table>}
        <h2 style={{ marginTop: 34 }}>New teacher</h2>
        <form onSubmit={submit} style={{ maxWidth: 560 }}>
          <div style={{ display: 'grid', gridTemplateColumns: '80px 1fr 1fr', gap: 12, marginTop: 12 }}>
            <TextInput label="Title" placeholder="Ms" {...form.getInputProps('title')} /><TextInput label="Given name" {...form.getInputProps('given')} /><TextInput label="Family name" {...form.getInputProps('family')} />
          </div>
          {problem && <p className="tell wrong" role="alert">{problem}</p>}
          <button className="btn go" type="submit" style={{ marginTop: 16 }}>Add the teacher</button>
        </form>
        {welcome && <div className="tell" style={{ marginTop: 18 }}><WelcomeNote welcome={welcome} /></div>}
      </main>
    </div>
  );
}
