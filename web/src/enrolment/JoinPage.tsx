import { PasswordInput, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { postJson, sentenceOf } from '../api/client';
import type { ClassOfWord, Invited, Joined } from '../api/schema';
import { useWrite } from '../api/write';
import { SignInForm } from '../session/SignIn';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Loading } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

interface WayInProps {
  /** The name of whoever is signed in; undefined for nobody. */
  me?: string;
  onDone: () => Promise<void>;
}

/** Coming into a class by its class word. */
export function JoinPage(props: WayInProps) {
  const word = new URLSearchParams(window.location.search).get('word') ?? '';
  const look = useQuery({
    queryKey: ['join', word],
    queryFn: () => postJson<ClassOfWord>('/api/join/class', { word }),
    retry: false,
    refetchOnWindowFocus: false,
  });
  return (
    <Sheet title="Come into a class">
      {look.isPending && <Loading />}
      <Refused error={look.error} />
      {look.data && (
        <Newcomer
          {...props}
          className={look.data.className}
          as="STUDENT"
          send={(newcomer) => postJson<Joined>('/api/join', { word, newcomer })}
        />
      )}
    </Sheet>
  );
}

/** Coming into a class by an invitation. */
export function InvitationPage(props: WayInProps) {
  const token = new URLSearchParams(window.location.search).get('t') ?? '';
  const look = useQuery({
    queryKey: ['invitation', token],
    queryFn: () => postJson<Invited>('/api/invitation', { token }),
    retry: false,
    refetchOnWindowFocus: false,
  });
  return (
    <Sheet title="An invitation">
      {look.isPending && <Loading />}
      <Refused error={look.error} />
      {look.data && (
        <Newcomer
          {...props}
          className={look.data.className}
          as={look.data.role}
          invitedBy={look.data.invitedBy}
          name={look.data.name}
          send={(newcomer) => postJson<Joined>('/api/invitation/accept', { token, newcomer })}
        />
      )}
    </Sheet>
  );
}

/** Why one cannot come in by this way, and the way on. */
function Refused({ error }: { error: unknown }) {
  if (!error) return null;
  return (
    <>
      <p className="tell wrong" role="alert">
        {sentenceOf(error)}
      </p>
      <p>
        <Link className="word" to="/">
          To the sign-in page
        </Link>
      </p>
    </>
  );
}

interface NewcomerProps extends WayInProps {
  className: string;
  as: string;
  invitedBy?: string;
  name?: string;
  send: (newcomer: Record<string, string>) => Promise<Joined>;
}

function Newcomer({ me, onDone, className, as, invitedBy, name = '', send }: NewcomerProps) {
  const [given, ...family] = name.split(' ');
  const form = useForm({ initialValues: { title: '', given: given ?? '', family: family.join(' '), password: '' } });
  const [joined, setJoined] = useState<Joined | null>(null);
  const [has, setHas] = useState(false);
  const join = useWrite(send, { form, onDone: setJoined });
  const enter = async () => {
    await onDone();
    window.location.assign('/');
  };
  if (joined)
    return (
      <div role="status">
        <p>
          You are in <b>{className}</b>.
        </p>
        <p className="muted above-0 below-0">Your username is</p>
        <p className="said-large above-0 below-3">{joined.username}</p>
        <p className="muted">Write it down: you need it, and your password, to sign in.</p>
        <Button className="full big" go mid onClick={enter}>
          Go in
        </Button>
      </div>
    );
  return (
    <>
      <p className="above-0 below-4">
        {invitedBy ? `${invitedBy} invites you to` : 'This is the class word of'} <b>{className}</b>
        {invitedBy ? `, as ${t.roles[as]}: ${t.roleDoes[as]}.` : '.'}
      </p>
      {me && (
        <>
          <p className="muted">You are signed in as {me.replace(/\.$/, '')}.</p>
          <Button className="full big" go mid onClick={() => join.run({})}>
            Come in with this account
          </Button>
        </>
      )}
      {!me && !has && (
        <>
          <form onSubmit={form.onSubmit((v) => join.run(v))}>
            {as !== 'STUDENT' && (
              <TextInput label="Title, if you use one" placeholder="Ms" size="md" {...form.getInputProps('title')} />
            )}
            <TextInput
              label="Given name"
              autoComplete="given-name"
              size="md"
              mt="sm"
              {...form.getInputProps('given')}
            />
            <TextInput
              label="Family name"
              autoComplete="family-name"
              size="md"
              mt="sm"
              {...form.getInputProps('family')}
            />
            <PasswordInput
              label="Choose a password, at least eight characters"
              autoComplete="new-password"
              size="md"
              mt="sm"
              {...form.getInputProps('password')}
            />
            <Button className="full above-5 big" go mid type="submit">
              Come in
            </Button>
          </form>
          <p className="tiny muted above-4">
            You have an account here already?{' '}
            <Word tiny onClick={() => setHas(true)}>
              Sign in with it
            </Word>
          </p>
        </>
      )}
      {!me && has && <SignInForm onDone={onDone} />}
      <Wrong says={join.problem} />
    </>
  );
}
