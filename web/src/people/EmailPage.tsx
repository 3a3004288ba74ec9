import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ApiProblem, postJson } from '../api/client';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';

/** Where the link in a mail leads that asks whether an address is one's own; nobody has to sign in. */
export function EmailPage() {
  const token = useSearchParams()[0].get('t') ?? '';
  const [done, setDone] = useState(false);
  const [problem, setProblem] = useState('');
  const confirm = async () => {
    try {
      await postJson('/api/email-confirmation', { token });
      setDone(true);
    } catch (e) {
      setProblem(e instanceof ApiProblem ? e.message : t.again);
    }
  };
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
          <Button go onClick={confirm}>
            It is mine
          </Button>
          {problem && (
            <p className="tell wrong" role="alert">
              {problem}
            </p>
          )}
        </>
      )}
    </Sheet>
  );
}
