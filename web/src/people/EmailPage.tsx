import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { ApiProblem, postJson } from '../api/client';
import { Logo } from '../parts/Logo';
import { t } from '../texts/en';

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
    <div className="page plain" style={{ maxWidth: 460 }}>
      <title>Your address · Vast Porch</title>
      <main>
        <p style={{ display: 'flex', alignItems: 'center', gap: 12, margin: '30px 0 10px' }}><Logo /><span className="muted">Vast Porch</span></p>
        <h1>{done ? 'Your address is confirmed' : 'Is this your address?'}</h1>
        {done ? <p>From now on mail goes there. How often, you choose under <Link className="word" to="/subscriptions">My subscriptions</Link>.</p> : (
          <>
            <p>You gave this address in your account. Say that it is yours, and mail can go there.</p>
            <button className="btn go" onClick={confirm}>It is mine</button>
            {problem && <p className="tell wrong" role="alert">{problem}</p>}
          </>
        )}
      </main>
    </div>
  );
}
