import { useQuery } from '@tanstack/react-query';
import { meOptions } from '../api/queries';
import { keptFiles } from './keptFiles';

/** The name under which this browser keeps what somebody has typed and not sent: another one for each person, for a class shares its computers. */
export function useKeptName(what: string): string {
  const { data: me } = useQuery(meOptions);
  return `porch-${me?.id ?? 'visitor'}-${what}`;
}

const mine = (id: number) => Object.keys(localStorage).filter((name) => name.startsWith(`porch-${id}-`));

/** How many things somebody typed on this computer and did not send. */
export const keptWords = (id: number) => mine(id).length;

/** Takes away what somebody typed here and did not send. */
export function takeKeptWords(id: number) {
  mine(id).forEach((name) => localStorage.removeItem(name));
  // Files whose marks are gone now go with them.
  void keptFiles('').catch(() => {});
}
