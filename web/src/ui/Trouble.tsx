import { Link } from 'react-router';
import { ApiProblem } from '../api/client';
import { useEyes } from '../session/eyes';
import { t } from '../texts/en';
import css from './Trouble.module.css';
import { Word } from './Word';

/** What went wrong, in a sentence, with a way on. */
export function Trouble({ error, onRetry }: { error: unknown; onRetry?: () => void }) {
  const eyes = useEyes();
  const asStranger = eyes?.of === 'stranger' && error instanceof ApiProblem && error.code === 'sign-in-first';
  const sentence = asStranger
    ? 'A stranger cannot open this page: they are led to the sign-in page.'
    : error instanceof ApiProblem
      ? error.message
      : 'Something went wrong on this page.';
  return (
    <div className="tell wrong above-4 below-4" role="alert">
      {sentence} {onRetry && !asStranger && <Word onClick={onRetry}>{t.again}</Word>}
    </div>
  );
}

/** In place of a page that does not exist, or that is for others. */
export function NotThere() {
  return (
    <div className="page plain">
      <main>
        <h1>This page is not there, or it is not for you</h1>
        <p className="muted">
          Check the address, or go back to{' '}
          <Link className="word" to="/">
            your first page
          </Link>
          .
        </p>
      </main>
    </div>
  );
}

/** Quiet lines while something loads. */
export function Loading({ lines = 4 }: { lines?: number }) {
  return (
    <div className="inside-4 foot-4" role="status" aria-busy="true" aria-label={t.loading}>
      {Array.from({ length: lines }, (_, i) => (
        <div key={i} className={css.line} />
      ))}
    </div>
  );
}
