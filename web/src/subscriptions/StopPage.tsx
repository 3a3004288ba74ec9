import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { ApiProblem, postJson } from '../api/client';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Wrong } from '../ui/Wrong';

/** Where the link in a mail leads: all mails stop with one press, and nobody has to sign in. */
export function StopPage() {
  const token = useSearchParams()[0].get('t') ?? '';
  const [said, setSaid] = useState<'' | 'stopped' | string>('');
  const stop = async () => {
    try {
      await postJson('/api/stop', { token });
      setSaid('stopped');
    } catch (e) {
      setSaid(
        e instanceof ApiProblem && e.status === 404
          ? 'This link is not known here. Sign in and look under My subscriptions.'
          : t.again,
      );
    }
  };
  return (
    <Sheet title="Stop the mails" heading={said === 'stopped' ? 'No more mails' : 'Stop all mails?'}>
      {said === 'stopped' ? (
        <p>
          You get no more mails about what is new. What you subscribed to still shows under News when you sign in, and
          there you can ask for mails again.
        </p>
      ) : (
        <>
          <p>
            You will get no more mails about posts, comments and answers. Invitations and new pass phrases still come.
          </p>
          <Button go onClick={stop}>
            Stop them
          </Button>
          <Wrong says={said} />
        </>
      )}
    </Sheet>
  );
}
