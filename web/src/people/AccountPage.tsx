import { PasswordInput, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { putJson } from '../api/client';
import { accountOptions, ownPostsOptions } from '../api/queries';
import type { Account, PasswordChanged } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** One account over years and classes: the name, the password, and every class one is or was in. */
export function AccountPage() {
  const { data, error, refetch } = useQuery(accountOptions);
  return (
    <div className="page plain">
      <title>My account · Vast Porch</title>
      <main className="measure">
        <h1>My account</h1>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading />}
        {data && (
          <>
            <p className="above-3 below-0">
              {data.name}, username <b>{data.username}</b>
            </p>
            <h2 className="above-6">My classes</h2>
            {data.places.length === 0 && <p className="muted">You are in no class yet.</p>}
            {data.places.map((p) => (
              <p className="above-0 below-0 inside-2 foot-2 ruled" key={`${p.classId}${p.since}`}>
                {p.until ? (
                  p.className
                ) : (
                  <Link className="word" to={`/classes/${p.classId}/${p.role === 'MODERATOR' ? 'approve' : 'porch'}`}>
                    {p.className}
                  </Link>
                )}
                <span className="muted tiny block">
                  {p.level ? `${p.level}, ` : ''}
                  {t.roles[p.role]} since {day.format(new Date(p.since))}
                  {p.until ? `, until ${day.format(new Date(p.until))}` : ''}
                  {p.until && p.role === 'STUDENT' && (
                    <>
                      {' '}
                      ·{' '}
                      <Link className="word tiny" to={`/account/writing/${p.classId}`}>
                        What I wrote there
                      </Link>
                    </>
                  )}
                </span>
              </p>
            ))}
            <h2 className="above-6">E-mail</h2>
            {data.mayChangeEmail ? (
              <EmailForm account={data} />
            ) : (
              <p className="muted">
                {data.email ? `Your school writes to ${data.email}.` : 'Your school has no e-mail address of yours.'}{' '}
                Ask your teacher if that should be another.
              </p>
            )}
            <h2 className="above-6">Password</h2>
            {data.mayChangePassword ? (
              <PasswordForm />
            ) : (
              <p className="muted">
                Your teacher gives out the pass phrases of your class. If you forget yours, ask there for a new one.
              </p>
            )}
          </>
        )}
      </main>
    </div>
  );
}

/** The own address; another one counts once its mail was answered. */
function EmailForm({ account }: { account: Account }) {
  const form = useForm({ initialValues: { email: account.email } });
  const use = useWrite((email: string) => putJson<Account>('/api/account/email', { email }), {
    form,
    field: 'email',
    fills: accountOptions.queryKey,
    stale: [['me']],
  });
  return (
    <form className="measure-s" onSubmit={form.onSubmit(({ email }) => use.run(email))}>
      <TextInput
        label="Mail about what is new goes to"
        type="email"
        autoComplete="email"
        mt="xs"
        {...form.getInputProps('email')}
      />
      {account.emailWaits && (
        <p className="tell above-3 below-0" role="status">
          {t.confirmFirst(account.emailWaits, account.email)}
        </p>
      )}
      <Button className="above-3" type="submit" disabled={form.values.email.trim() === account.email}>
        {account.email && !form.values.email.trim() ? 'Take it out' : 'Use this address'}
      </Button>
    </form>
  );
}

function PasswordForm() {
  const form = useForm({ initialValues: { before: '', password: '' } });
  const [done, setDone] = useState<number | null>(null);
  const change = useWrite((values: typeof form.values) => putJson<PasswordChanged>('/api/account/password', values), {
    form,
    field: 'password',
    onDone: ({ signedOut }) => {
      form.reset();
      setDone(signedOut);
    },
  });
  const submit = form.onSubmit((values) => {
    setDone(null);
    change.run(values);
  });
  return (
    <form className="measure-s" onSubmit={submit}>
      <PasswordInput
        label="Your password until now"
        autoComplete="current-password"
        mt="xs"
        {...form.getInputProps('before')}
      />
      <PasswordInput
        label="The new one, at least eight characters"
        autoComplete="new-password"
        mt="sm"
        {...form.getInputProps('password')}
      />
      <p className="tiny muted above-3 below-0">Everywhere else you are signed out with it.</p>
      {done !== null && (
        <p className="tell" role="status">
          Your password is changed.
          {done > 0 ? ` You were signed out in ${t.count(done, 'other place', 'other places')}.` : ''}
        </p>
      )}
      <Button className="above-4" go type="submit">
        Change it
      </Button>
    </form>
  );
}

/** What one wrote in a class that one has left: it stays one's own. */
export function WritingPage() {
  const classId = Number(useParams().classId);
  const { data: account } = useQuery(accountOptions);
  const own = useQuery(ownPostsOptions(classId));
  const of = account?.places.find((p) => p.classId === classId);
  return (
    <div className="page plain">
      <title>What I wrote · Vast Porch</title>
      <main>
        <h1>What I wrote in {of?.className ?? 'this class'}</h1>
        {own.isPending && <Loading />}
        {own.isError && <Trouble error={own.error} onRetry={() => own.refetch()} />}
        {own.data?.length === 0 && <p className="muted">You wrote nothing there.</p>}
        {own.data?.map((p) => (
          <p className="above-0 below-0 inside-3 foot-3 ruled" key={p.id}>
            <Link className="word" to={`/posts/${p.id}`}>
              {p.title || 'Without a title'}
            </Link>
            <span className="muted tiny block">
              {p.prompt ?? p.blog} · <When at={p.at} />
            </span>
          </p>
        ))}
        <p>
          <Link className="word" to="/account">
            Back to my account
          </Link>
        </p>
      </main>
    </div>
  );
}
