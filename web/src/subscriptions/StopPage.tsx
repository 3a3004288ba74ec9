import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { postJson } from '../api/client';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Wrong } from '../ui/Wrong';

/** Where the link in a mail leads: all mails stop with one press, and nobody has to sign in. */
export function StopPage() {
  const token = useSearchParams()[0].get('t') ?? '';
  const [done, setDone] = useState(false);
  const stop = useWrite(() => postJson('/api/stop', { token }), { here: true, onDone: () => setDone(true) });
  return (
    <Sheet title="Stop the mails" heading={done ? 'No more mails' : 'Stop all mails?'}>
      {done ? (
        <p>
          You get no more mails about what is new. What you subscribed to still shows under News when you sign in, and
          there you can ask for mails again.
        </p>
      ) : (
        <>
          <p>
            You will get no more mails about posts, comments and answers. Invitations and new pass phrases still come.
          </p>
          <Button go onClick={() => stop.run()}>
            Stop them
          </Button>
          <Wrong says={stop.problem} />
        </>
      )}
    </Sheet>
  );
}
