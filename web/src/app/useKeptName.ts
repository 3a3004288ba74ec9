import { useQuery } from '@tanstack/react-query';
import { meOptions } from '../api/queries';

/** The name under which this browser keeps what somebody has typed and not sent: another one for each person, for a class shares its computers. */
export function useKeptName(what: string): string {
  const { data: me } = useQuery(meOptions);
  return `porch-${me?.id ?? 'visitor'}-${what}`;
}
