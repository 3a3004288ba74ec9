import { NumberInput, Select, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import { invitationsOptions, wordOptions } from '../api/queries';
import type { InvitationLine, Sent, Welcome, WordView } from '../api/schema';
import { useWrite } from '../api/write';
import { WelcomeNote } from '../people/WelcomeNote';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Enrolment.module.css';

const ROLES = ['CO_TEACHER', 'ASSISTANT', 'MODERATOR', 'GUEST', 'STUDENT'];
const roleChoices = (roles: string[]) => roles.map((r) => ({ value: r, label: `${t.roles[r]}: ${t.roleDoes[r]}` }));

/** How people come in by themselves: the class word, invitations by mail, and one-time addresses that are handed over. */
export function WaysPage() {
  const { id, name } = useClass();
  return (
    <div className="page wide">
      <title>{`Class word and invitations · ${name}`}</title>
      <main>
        <h1>Class word and invitations</h1>
        <div className={`${css.ways} above-5`}>
          <WordPart classId={id} />
          <Helper classId={id} />
        </div>
        <Invitations classId={id} />
      </main>
    </div>
  );
}

function WordPart({ classId }: { classId: number }) {
  const { data, error, refetch } = useQuery(wordOptions(classId));
  const word = data?.word;
  const act = useWrite((call: () => Promise<unknown>) => call(), { stale: [['word', classId]], here: true });
  const put = (keep: boolean, until?: string, left?: number) =>
    act.run(() => putJson(`/api/classes/${classId}/word`, { keep, until, left }));
  if (error) return <Trouble error={error} onRetry={() => refetch()} />;
  if (!data) return <Loading />;
  return (
    <section>
      <h2>Class word</h2>
      {!word && (
        <>
          <p className="muted above-1 below-4">
            With a class word, two short words that can be said aloud, students come in by themselves: they type it on
            the sign-in page, give their name, and choose a password. It is switched off now.
          </p>
          <Button go onClick={() => put(false)}>
            Switch it on
          </Button>
        </>
      )}
      {word && (
        <>
          <p className={css.classWord}>{word.word}</p>
          <p className="muted tiny above-0 below-0">{wordSays(word)}</p>
          <WordLimits key={`${word.until}${word.left}`} word={word} onSet={(until, left) => put(true, until, left)} />
          <p className="row wide above-4">
            <Word onClick={() => put(false, word.until, word.left)}>Make a new one</Word>
            <Word onClick={() => act.run(() => deleteJson(`/api/classes/${classId}/word`))}>Switch it off</Word>
          </p>
        </>
      )}
      <Wrong says={act.problem} />
    </section>
  );
}

function wordSays(word: WordView): string {
  if (!word.open)
    return word.left === 0
      ? 'Everybody it was meant for has come: it no longer works.'
      : 'Its time is over: it no longer works.';
  const limits = [
    word.left !== undefined
      ? `${t.count(word.left, 'more person', 'more people')} can come`
      : 'Anybody who has it can come',
  ];
  if (word.until)
    limits.push(
      `until ${new Date(`${word.until}T12:00`).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })}`,
    );
  return `${limits.join(', ')}. Who comes is a student here and gets the blogs of the class.`;
}

function WordLimits({ word, onSet }: { word: WordView; onSet: (until?: string, left?: number) => void }) {
  const [until, setUntil] = useState(word.until ?? '');
  const [left, setLeft] = useState<number | string>(word.left ?? '');
  return (
    <form
      className="row end above-4"
      onSubmit={(e) => {
        e.preventDefault();
        onSet(until || undefined, left === '' ? undefined : Number(left));
      }}
    >
      <TextInput type="date" label="Works until" value={until} onChange={(e) => setUntil(e.target.value)} />
      <NumberInput className="w-number" label="for so many" value={left} min={0} max={200} onChange={setLeft} />
      <Button type="submit">Set</Button>
    </form>
  );
}

/** A helper who gets a one-time address by hand, where no mail is wanted. */
function Helper({ classId }: { classId: number }) {
  const form = useForm({
    initialValues: { role: 'CO_TEACHER', title: '', given: '', family: '', email: '' },
    validate: { family: (v) => (v.trim() ? null : 'A name is needed.') },
  });
  const [welcome, setWelcome] = useState<Welcome | null>(null);
  const add = useWrite((values: typeof form.values) => postJson<Welcome>(`/api/classes/${classId}/helpers`, values), {
    form,
    stale: [['people', classId]],
    onDone: (made) => {
      setWelcome(made);
      form.reset();
    },
  });
  return (
    <section>
      <h2>Add a helper</h2>
      <p className="muted above-1 below-3">Makes an account, with a one-time address that you hand over yourself.</p>
      <form onSubmit={form.onSubmit((values) => add.run(values))}>
        <Select
          label="What the helper is"
          data={roleChoices(ROLES.filter((r) => r !== 'STUDENT'))}
          allowDeselect={false}
          {...form.getInputProps('role')}
        />
        <div className="fields names">
          <TextInput label="Title" placeholder="Ms" {...form.getInputProps('title')} />
          <TextInput label="Given name" {...form.getInputProps('given')} />
          <TextInput label="Family name" {...form.getInputProps('family')} />
        </div>
        <TextInput label="E-mail, if the way in is to go by mail too" mt="sm" {...form.getInputProps('email')} />
        <Wrong says={add.problem} />
        <Button className="above-4" go type="submit">
          Add
        </Button>
      </form>
      {welcome && (
        <div className="tell above-4">
          <WelcomeNote welcome={welcome} />
        </div>
      )}
    </section>
  );
}

function Invitations({ classId }: { classId: number }) {
  const { data } = useQuery(invitationsOptions(classId));
  const form = useForm({ initialValues: { role: 'GUEST', name: '', email: '' } });
  const [sent, setSent] = useState<{ path: string; email: string } | null>(null);
  const invite = useWrite(
    (values: typeof form.values) => postJson<Sent>(`/api/classes/${classId}/invitations`, values),
    {
      form,
      field: 'email',
      stale: [['invitations', classId]],
      onDone: ({ path }, { email }) => {
        setSent({ path, email });
        form.setValues({ name: '', email: '' });
      },
    },
  );
  const resend = useWrite((i: InvitationLine) => postJson<Sent>(`/api/invitations/${i.id}/resend`), {
    stale: [['invitations', classId]],
    onDone: ({ path }, i) => setSent({ path, email: i.email }),
  });
  const withdraw = useWrite((i: InvitationLine) => deleteJson(`/api/invitations/${i.id}`), {
    stale: [['invitations', classId]],
  });
  return (
    <section className="above-6 ruled-above inside-5">
      <h2>Invite by e-mail</h2>
      <p className="muted above-1 below-3">
        The person gets a mail with an address that works once, for 14 days. Who accepts appears among the people by
        itself.
      </p>
      <form className={css.invite} onSubmit={form.onSubmit((values) => invite.run(values))}>
        <Select
          label="As"
          data={ROLES.map((r) => ({ value: r, label: t.roles[r] }))}
          description={t.roleDoes[form.values.role]}
          inputWrapperOrder={['label', 'input', 'description']}
          allowDeselect={false}
          {...form.getInputProps('role')}
        />
        <TextInput label="Name, for the list below" {...form.getInputProps('name')} />
        <TextInput label="E-mail" {...form.getInputProps('email')} />
        <Button className="above-5" go type="submit">
          Invite
        </Button>
      </form>
      {sent && (
        <div className="tell above-4" role="status">
          The invitation for {sent.email} is on its way. Where no mail arrives, hand over this address:
          <span className="block breaks above-1">{window.location.origin + sent.path}</span>
        </div>
      )}
      {data && data.length > 0 && (
        <table className="rows above-4">
          <thead>
            <tr>
              <th>E-mail</th>
              <th>Name</th>
              <th>As</th>
              <th>Sent</th>
              <th>Mail</th>
              <th>
                <span className="away">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.map((i) => (
              <tr key={i.id}>
                <td>{i.email}</td>
                <td>{i.name}</td>
                <td className="muted">{t.roles[i.role]}</td>
                <td className="muted">
                  <When at={i.sentAt} />
                  {i.sentTimes > 1 ? `, ${i.sentTimes} times` : ''}
                  {i.state === 'expired' ? ', too old now' : ''}
                </td>
                <td className="muted">{MAIL[i.mail] ?? i.mail}</td>
                <td className="right flush one-line">
                  <Word onClick={() => resend.run(i)} aria-label={`Send once more to ${i.email}`}>
                    Send once more
                  </Word>
                  {' · '}
                  <Word onClick={() => withdraw.run(i)} aria-label={`Withdraw the invitation of ${i.email}`}>
                    Withdraw
                  </Word>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {data?.length === 0 && <p className="muted above-4">No invitation waits for an answer.</p>}
    </section>
  );
}

const MAIL: Record<string, string> = {
  sent: 'sent',
  waits: 'on its way',
  'no-post-office': 'no post office is set up; hand the address over',
};
