import { PasswordInput, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { postJson } from '../api/client';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Logo } from '../ui/Logo';
import { Wrong } from '../ui/Wrong';

/** Username and password, and what went wrong. */
export function SignInForm({ onDone }: { onDone: () => void }) {
  const form = useForm({ initialValues: { username: '', password: '' } });
  const signIn = useWrite((who: typeof form.values) => postJson('/api/session', who), {
    form,
    field: 'password',
    onDone,
  });
  return (
    <form onSubmit={form.onSubmit((who) => signIn.run(who))}>
      <TextInput
        label="Username"
        autoComplete="username"
        autoCapitalize="none"
        autoFocus
        size="md"
        {...form.getInputProps('username')}
      />
      <PasswordInput
        label="Password or pass phrase"
        autoComplete="current-password"
        size="md"
        mt="sm"
        {...form.getInputProps('password')}
      />
      <Button className="full above-5 big" go mid disabled={signIn.busy} type="submit">
        Sign in
      </Button>
    </form>
  );
}

/** The page of somebody who is not signed in; after it comes the page that was asked for. */
export function SignInPage({ onDone }: { onDone: () => void }) {
  return (
    <main className="sheet">
      <title>Sign in · Vast Porch</title>
      <div className="row middle below-5">
        <Logo />
        <h1>{t.name}</h1>
      </div>
      <SignInForm onDone={onDone} />
      <CodeField />
      <p className="muted tiny above-5">
        Your username and pass phrase stand on your sign-in slip. If you lost it, your teacher can print a new one.
      </p>
    </main>
  );
}

/** For those who have no account yet: a class word. */
function CodeField() {
  const [word, setWord] = useState('');
  const navigate = useNavigate();
  return (
    <form
      className="row end above-6 inside-5 ruled-above"
      onSubmit={(e) => {
        e.preventDefault();
        if (word.trim()) navigate(`/join?word=${encodeURIComponent(word.trim())}`);
      }}
    >
      <TextInput
        className="grow"
        label="No account yet? Class word"
        value={word}
        onChange={(e) => setWord(e.target.value)}
        placeholder="two words"
        autoComplete="off"
      />
      <Button type="submit">Come in</Button>
    </form>
  );
}

/** A first password, by a one-time address. */
export function FirstPasswordPage({ onDone }: { onDone: () => void }) {
  const form = useForm({
    initialValues: { password: '', again: '' },
    validate: { again: (v, all) => (v === all.password ? null : 'These two are not the same.') },
  });
  const token = new URLSearchParams(window.location.search).get('t') ?? '';
  const set = useWrite((password: string) => postJson('/api/first-password', { token, password }), { form, onDone });
  return (
    <main className="sheet">
      <title>Your first password · Vast Porch</title>
      <div className="row middle below-3">
        <Logo />
        <h1>Welcome</h1>
      </div>
      <p className="muted above-0 below-4">
        Choose a password of at least eight characters. Three words that only you put together are good.
      </p>
      <form onSubmit={form.onSubmit(({ password }) => set.run(password))}>
        <PasswordInput
          label="Password"
          autoComplete="new-password"
          size="md"
          autoFocus
          {...form.getInputProps('password')}
        />
        <PasswordInput
          label="The same again"
          autoComplete="new-password"
          size="md"
          mt="sm"
          {...form.getInputProps('again')}
        />
        <Wrong says={set.problem} />
        <Button className="full above-5 big" go mid type="submit">
          Set the password
        </Button>
      </form>
    </main>
  );
}
