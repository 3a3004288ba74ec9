import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { meOptions } from '../api/queries';
import type { Place } from '../api/schema';
import { type Eyes, useEyes } from './eyes';

/** A place in a class, one's own or as somebody has it whose eyes are borrowed: a stranger has none. */
export type SeenPlace = Omit<Place, 'role'> & { role: Place['role'] | Eyes['role'] };

/** The class whose page is open, by the address, with the viewer's place in it; through borrowed eyes with theirs. */
export function useClass(): SeenPlace {
  const { classId } = useParams();
  const { data } = useQuery(meOptions);
  const eyes = useEyes();
  const place = data?.classes.find((c) => c.id === Number(classId));
  if (!place) throw new Error('useClass stands only under a page of a class');
  return eyes?.classId === place.id ? seenThrough(place, eyes.role) : place;
}

/** The place as a student, a guest or a stranger has it: with their role, and nothing of what staff may. */
export const seenThrough = (place: Place, role: Eyes['role']): SeenPlace => ({
  ...place,
  role,
  staff: false,
  manages: false,
  approves: false,
  waits: 0,
  toMark: 0,
  returned: 0,
});
