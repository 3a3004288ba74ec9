import { Menu, Modal, Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ApiProblem, deleteJson, postJson } from '../api/client';
import { peopleOptions } from '../api/queries';
import type { MemberLine, NewPhrase, Welcome } from '../api/schema';
import { manages, useClass } from '../app/useClass';
import { Loading, Trouble } from '../parts/Trouble';
import { t } from '../texts/en';

const STATES: Record<string, string> = { slip: 'has not signed in yet', 'signed-in': 'signed in', left: 'left the class' };
const DOES: Record<string, string> = { CO_TEACHER: 'does all that you do', ASSISTANT: 'reads what staff read, and marks', MODERATOR: 'approves posts and comments, and sees nothing else', GUEST: 'reads, and comments where a blog lets guests' };

/** The people of a class; the list narrows as one types. */
export function PeoplePage() {
  const { id, name, role } = useClass();
  const client = useQueryClient();
  const [params, setParams] = useSearchParams();
  const people = useQuery(peopleOptions(id));
  const [phrase, setPhrase] = useState<(NewPhrase & { name: string }) | null>(null);
  const [helper, setHelper] = useState(false);
  const wanted = params.get('find') ?? '';
  const shown = (people.data ?? []).filter((p) => `${p.name} ${p.username} ${p.group ?? ''} ${t.roles[p.role]}`.toLowerCase().includes(wanted.toLowerCase()));
  const renew = async (p: MemberLine) => setPhrase({ ...(await postJson<NewPhrase>(`/api/classes/${id}/people/${p.id}/pass-phrase`)), name: p.name });
  const end = async (p: MemberLine) => {
    await deleteJson(`/api/classes/${id}/people/${p.id}`);
    await client.invalidateQueries({ queryKey: ['people', id] });
  };
  return (
    <div className="page wide">
      <title>{`People · ${name}`}</title>
      <main>
        <div style={{ display: 'flex', alignItems: 'baseline', gap: 16, flexWrap: 'wrap' }}>
          <h1>People</h1>
          {people.data && <span className="muted">{t.count(people.data.filter((p) => p.role === 'STUDENT' && p.state !== 'left').length, 'student', 'students')}</span>}
          {manages(role) && (
            <span style={{ marginLeft: 'auto', display: 'flex', gap: 18 }}>
              <Link className="word" to={`/classes/${id}/people/roster`}>Enrol students</Link>
              <button className="word" onClick={() => setHelper(true)}>Add a helper</button>
              <a className="word" href={`/api/classes/${id}/slips.pdf`} target="_blank" rel="noopener">Print all slips</a>
            </span>
          )}
        </div>
        <TextInput aria-label="Find by name, username or group" placeholder="Find by name, username or group" value={wanted} mt="md" style={{ maxWidth: 360 }} onChange={(e) => setParams(e.target.value ? { find: e.target.value } : {}, { replace: true })} />
        {people.isPending && <Loading lines={8} />}
        {people.isError && <Trouble error={people.error} onRetry={() => people.refetch()} />}
        {people.data && (
          <div style={{ overflowX: 'auto' }}>
            <table className="rows" style={{ marginTop: 14 }}>
              <thead><tr><th>Name</th><th>Username</th><th>Role</th><th>Group</th><th>Account</th><th><span className="away">What to do</span></th></tr></thead>
              <tbody>
                {shown.map((p) => (
                  <tr key={p.id} style={{ color: p.state === 'left' ? 'var(--ink-3)' : undefined }}>
                    <td><Link to={`/classes/${id}/persons/${p.id}`} className={p.role === 'STUDENT' ? 'word' : undefined} style={{ fontWeight: 400, color: 'inherit' }}>{p.sortName}</Link></td>
                    <td>{p.username}</td><td className="muted">{t.roles[p.role]}</td><td>{p.group}</td><td className="muted">{STATES[p.state]}</td>
                    <td style={{ textAlign: 'right', paddingRight: 0 }}>
                      {manages(role) && p.role !== 'LEAD' && p.state !== 'left' && (
                        <Menu position="bottom-end" width={240}>
                          <Menu.Target><button className="word" aria-label={`More for ${p.name}`}>More</button></Menu.Target>
                          <Menu.Dropdown>
                            {p.role === 'STUDENT' && <Menu.Item component="a" href={`/api/classes/${id}/slips.pdf?person=${p.id}`} target="_blank">Print the slip</Menu.Item>}
                            {p.role === 'STUDENT' && <Menu.Item onClick={() => renew(p)}>Give a new pass phrase</Menu.Item>}
                            <Menu.Item onClick={() => end(p)}>End the enrolment; the posts stay</Menu.Item>
                          </Menu.Dropdown>
                        </Menu>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        {people.data && shown.length === 0 && <p className="muted">Nobody here fits “{wanted}”.</p>}
      </main>
      <Modal opened={phrase !== null} onClose={() => setPhrase(null)} title={`A new pass phrase for ${phrase?.name ?? ''}`}>
        <p style={{ margin: 0 }} className="muted">Username</p><p style={{ margin: '0 0 12px', fontSize: 20 }}>{phrase?.username}</p>
        <p style={{ margin: 0 }} className="muted">Pass phrase</p><p style={{ margin: '0 0 12px', fontSize: 20 }}>{phrase?.phrase}</p>
        <p className="tiny muted">The old one no longer works. The slip can be printed until the first sign-in.</p>
      </Modal>
      <Modal opened={helper} onClose={() => setHelper(false)} title="Add a helper"><HelperForm classId={id} onAdded={() => client.invalidateQueries({ queryKey: ['people', id] })} /></Modal>
    </div>
  );
}

function HelperForm({ classId, onAdded }: { classId: number; onAdded: () => void }) {
  const form = useForm({ initialValues: { role: 'CO_TEACHER', title: '', given: '', family: '', email: '' }, validate: { family: (v) => (v.trim() ? null : 'A name is needed.') } });
  const [welcome, setWelcome] = useState<Welcome | null>(null);
  const [problem, setProblem] = useState('');
  const submit = form.onSubmit(async (values) => {
    try {
      setWelcome(await postJson<Welcome>(`/api/classes/${classId}/helpers`, values));
      onAdded();
    } catch (e) {
      setProblem(e instanceof ApiProblem ? e.message : t.again);
    }
  });
  if (welcome) return <WelcomeNote welcome={welcome} />;
  return (
    <form onSubmit={submit}>
      <Select label="What the helper is" data={Object.keys(DOES).map((r) => ({ value: r, label: `${t.roles[r]}: ${DOES[r]}` }))} allowDeselect={false} {...form.getInputProps('role')} />
      <div style={{ display: 'grid', gridTemplateColumns: '80px 1fr 1fr', gap: 12, marginTop: 12 }}>
        <TextInput label="Title" placeholder="Ms" {...form.getInputProps('title')} /><TextInput label="Given name" {...form.getInputProps('given')} /><TextInput label="Family name" {...form.getInputProps('family')} />
      </div>
      {problem && <p className="tell wrong" role="alert">{problem}</p>}
      <button className="btn go" type="submit" style={{ marginTop: 18 }}>Add</button>
    </form>
  );
}

/** What to hand over to somebody who has a new account. */
export function WelcomeNote({ welcome }: { welcome: Welcome }) {
  return (
    <div role="status">
      <p style={{ margin: 0 }}>The username is <b style={{ fontWeight: 600 }}>{welcome.username}</b>. Hand over this address; it sets the first password, works once, and for seven days:</p>
      <p style={{ overflowWrap: 'anywhere', background: 'var(--linen)', padding: '8px 12px', borderRadius: 4 }}>{window.location.origin + welcome.path}</p>
    </div>
  );
}
