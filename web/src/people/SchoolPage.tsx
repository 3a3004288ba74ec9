import { Checkbox, Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDebouncedValue } from '@mantine/hooks';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { deleteJson, postJson, putJson } from '../api/client';
import { findableOptions, schoolAddressOptions, schoolPeoplePage, staffOptions } from '../api/queries';
import type { AddressView, Findable as FindableView, PersonLine, Welcome } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './People.module.css';
import { WelcomeNote } from './WelcomeNote';

/** The keeper's page: the teachers of the school. */
export function SchoolPage() {
  const { data, error, refetch } = useQuery(staffOptions);
  const form = useForm({
    initialValues: { title: '', given: '', family: '', email: '' },
    validate: { family: (v) => (v.trim() ? null : 'A family name is needed.') },
  });
  const [welcome, setWelcome] = useState<Welcome | null>(null);
  const add = useWrite((values: typeof form.values) => postJson<Welcome>('/api/school/staff', values), {
    form,
    stale: [staffOptions.queryKey],
    onDone: (made) => {
      setWelcome(made);
      form.reset();
    },
  });
  return (
    <div className="page plain">
      <title>The school · Vast Porch</title>
      <main>
        <h1>The school</h1>
        <p className="muted above-2 below-4">
          Teachers make their own classes and enrol their students. You make the teachers.{' '}
          <Link className="word" to="/school/weeks">
            Classes by weeks
          </Link>
        </p>
        <SchoolAddress />
        <Findable />
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading />}
        {data && (
          <table className="rows">
            <thead>
              <tr>
                <th>Name</th>
                <th>Username</th>
                <th>Account</th>
              </tr>
            </thead>
            <tbody>
              {data.map((s) => (
                <tr key={s.id}>
                  <td>{s.name}</td>
                  <td>{s.username}</td>
                  <td className="muted">
                    {s.keeper ? 'school keeper' : 'teacher'}
                    {s.ready ? '' : ', has not set a password yet'}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <h2 className="above-6" id="new-teacher">
          New teacher
        </h2>
        <form className="measure" onSubmit={form.onSubmit((values) => add.run(values))}>
          <div className="fields names">
            <TextInput label="Title" placeholder="Ms" {...form.getInputProps('title')} />
            <TextInput label="Given name" {...form.getInputProps('given')} />
            <TextInput label="Family name" {...form.getInputProps('family')} />
          </div>
          <TextInput label="E-mail, if the way in is to go by mail" mt="sm" {...form.getInputProps('email')} />
          <Wrong says={add.problem} />
          <Button className="above-4" go type="submit">
            Add the teacher
          </Button>
        </form>
        {welcome && (
          <div className="tell above-4">
            <WelcomeNote welcome={welcome} />
          </div>
        )}
        <Everybody onAddress={setWelcome} />
      </main>
    </div>
  );
}

/** By which address people reach the school: links in mails, slips and feeds begin with it. Confirmed once by whoever keeps the school. */
function SchoolAddress() {
  const { data } = useQuery(schoolAddressOptions);
  const [changing, setChanging] = useState(false);
  const form = useForm({ initialValues: { address: window.location.origin } });
  const use = useWrite((values: typeof form.values) => putJson<AddressView>('/api/school/address', values), {
    form,
    field: 'address',
    fills: schoolAddressOptions.queryKey,
    onDone: () => setChanging(false),
  });
  if (!data) return null;
  if (data.sure && !changing)
    return (
      <p className="muted">
        Links in mails, slips and feeds begin with {data.address}.{' '}
        {!data.fixed && <Word onClick={() => setChanging(true)}>Change it</Word>}
      </p>
    );
  return (
    <form className={`tell ${css.address}`} onSubmit={form.onSubmit((values) => use.run(values))}>
      <p>
        <b>Is this how people reach the school?</b> Links in mails, on sign-in slips and in feeds begin with this
        address. Until you have said so, they lead to this computer alone.
      </p>
      <TextInput label="Address of the school" {...form.getInputProps('address')} />
      <p>
        <Button go type="submit">
          Use this address
        </Button>{' '}
        {data.sure && <Button onClick={() => setChanging(false)}>{t.cancel}</Button>}
      </p>
    </form>
  );
}

/** Whether search engines may find the front pages of classes that want it. */
function Findable() {
  const { data } = useQuery(findableOptions);
  const set = useWrite((findable: boolean) => putJson<FindableView>('/api/school/findable', { findable }), {
    fills: findableOptions.queryKey,
  });
  if (!data) return null;
  return (
    <Checkbox
      mt="md"
      label="Search engines may find the front pages of classes that want it"
      description="A class has one if strangers may come in. Its staff say for each class whether they want it found."
      checked={data.findable}
      onChange={(e) => set.run(e.currentTarget.checked)}
    />
  );
}

/** Everybody in the school, found by the beginning of a name; with a new way in for whoever forgot the password, and the erasure of a person. */
function Everybody({ onAddress }: { onAddress: (welcome: Welcome) => void }) {
  const [begins, setBegins] = useState('');
  const [typed] = useDebouncedValue(begins, 150);
  const [erasing, setErasing] = useState<PersonLine | null>(null);
  const people = useInfiniteQuery({
    queryKey: ['school-people', typed],
    queryFn: ({ pageParam, signal }) => schoolPeoplePage(typed, pageParam, signal),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  });
  const lines = people.data?.pages.flatMap((p) => p.people) ?? [];
  const newWay = useWrite((p: PersonLine) => postJson<Welcome>(`/api/school/people/${p.id}/one-time`), {
    onDone: (welcome) => {
      onAddress(welcome);
      document.getElementById('new-teacher')?.scrollIntoView();
    },
  });
  const lift = useWrite((p: PersonLine) => deleteJson(`/api/school/people/${p.id}/tries`), {
    stale: [['school-people']],
  });
  return (
    <>
      <h2 className="above-6">Everybody in the school</h2>
      <TextInput
        className="measure-s"
        aria-label="Find by the beginning of a name or username"
        placeholder="Find by the beginning of a name or username"
        value={begins}
        mt="sm"
        onChange={(e) => setBegins(e.target.value)}
      />
      {people.isError && <Trouble error={people.error} onRetry={() => people.refetch()} />}
      <table className="rows above-3">
        <thead>
          <tr>
            <th>Name</th>
            <th>Username</th>
            <th>Classes</th>
            <th>
              <span className="away">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((p) => (
            <tr key={p.id}>
              <td>{p.name}</td>
              <td>{p.username}</td>
              <td className="muted">
                {p.places
                  .map((c) => `${c.className} (${t.roles[c.role]}${c.until ? ', until then' : ''})`)
                  .join(' · ') || 'none'}
              </td>
              <td className="right flush one-line">
                <Word onClick={() => newWay.run(p)} aria-label={`New way in for ${p.name}`}>
                  New way in
                </Word>
                {p.tries && (
                  <>
                    {' · '}
                    <Word
                      onClick={() => lift.run(p)}
                      aria-label={`${p.tries.count} wrong tries, forget them: ${p.name} signs in at once again`}
                    >
                      {p.tries.count} wrong tries, forget them
                    </Word>
                  </>
                )}
                {!p.keeper && !p.teacher && p.places.every((c) => c.role === 'STUDENT' || c.role === 'GUEST') && (
                  <>
                    {' · '}
                    <Word onClick={() => setErasing(p)} aria-label={`Erase ${p.name}`}>
                      Erase
                    </Word>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {people.hasNextPage && (
        <p>
          <Button onClick={() => people.fetchNextPage()}>More people</Button>
        </p>
      )}
      {people.data && lines.length === 0 && <p className="muted">Nobody's name begins with “{typed}”.</p>}
      {erasing && <EraseDialog person={erasing} onClose={() => setErasing(null)} onDone={() => people.refetch()} />}
    </>
  );
}

function EraseDialog({ person, onClose, onDone }: { person: PersonLine; onClose: () => void; onDone: () => void }) {
  const [typed, setTyped] = useState('');
  const erase = useWrite(() => postJson(`/api/people/${person.id}/erasure`, { typed }), {
    here: true,
    onDone: () => {
      onDone();
      onClose();
    },
  });
  return (
    <Modal opened onClose={onClose} title={`Erase ${person.name}`}>
      <p className="above-0">
        The account, all posts and comments in all classes, marks and every other trace are gone for ever, with the
        comments of others on those posts. Nobody can undo this.
      </p>
      <TextInput
        label={`Type the username ${person.username} to erase for ever`}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        autoComplete="off"
        autoCapitalize="none"
        error={erase.problem || undefined}
      />
      <p className="row above-4 below-0">
        <Button go disabled={typed.trim().toLowerCase() !== person.username} onClick={() => erase.run()}>
          Erase for ever
        </Button>
        <Button onClick={onClose}>{t.cancel}</Button>
      </p>
    </Modal>
  );
}
