import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { postJson } from '../api/client';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Wrong } from '../ui/Wrong';

/** Where the link in a mail leads that asks whether an address is one's own; nobody has to sign in. */
export function EmailPage() {
  const token = useSearchParams()[0].get('t') ?? '';
  const [done, setDone] = useState(false);
  const confirm = useWrite(() => postJson('/api/email-confirmation', { token }), {
    here: true,
    onDone: () => setDone(true),
  });
  return (
    <Sheet title="Your address" heading={done ? 'Your address is confirmed' : 'Is this your address?'}>
      {done ? (
        <>
          <p>From now on mail can go there.</p>
          <p>
            <Link className="word" to="/">
              To Vast Porch
            </Link>
          </p>
        </>
      ) : (
        <>
          <p>Somebody gave this address on Vast Porch. Say that it is yours, and mail can go there.</p>
          <Button go onClick={() => confirm.run()}>
            It is mine
          </Button>
          <Wrong says={confirm.problem} />
        </>
      )}
    </Sheet>
  );
}
