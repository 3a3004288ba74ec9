import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { meOptions } from '../api/queries';
import type { Place } from '../api/schema';

/** The class whose page is open, by the address, with the viewer's place in it. */
export function useClass(): Place {
  const { classId } = useParams();
  const { data } = useQuery(meOptions);
  const place = data?.classes.find((c) => c.id === Number(classId));
  if (!place) throw new Error('useClass stands only under a page of a class');
  return place;
}

export const isStaff = (role: string) => role === 'LEAD' || role === 'CO_TEACHER' || role === 'ASSISTANT';
export const manages = (role: string) => role === 'LEAD' || role === 'CO_TEACHER';
