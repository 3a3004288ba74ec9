import type { NamesKept } from '../api/schema';
import { When } from './When';

/** Says that names are kept from classmates here, and until when; nothing if they are not. */
export function NamesKeptNote({ of }: { of?: NamesKept }) {
  if (!of) return null;
  return (
    <p className="tell above-3 below-0">
      Names are kept back here
      {of.until && (
        <>
          {' '}
          until <When at={of.until} />
        </>
      )}
      : classmates read what is written, and not who wrote it. Teachers read all names.
    </p>
  );
}
