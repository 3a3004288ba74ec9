import type { ReactNode } from 'react';

/** What went wrong with what was just asked for; nothing while nothing did. */
export function Wrong({ says }: { says: ReactNode }) {
  return says ? (
    <p className="tell wrong" role="alert">
      {says}
    </p>
  ) : null;
}
