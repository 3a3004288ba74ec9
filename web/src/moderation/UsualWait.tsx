import { useQuery } from '@tanstack/react-query';
import { usualWaitOptions } from '../api/queries';
import { hoursInWords } from '../texts/en';

/** Within how long texts are usually decided on in a class; nothing while nobody can say. */
export function UsualWait({ classId }: { classId: number }) {
  const { data } = useQuery(usualWaitOptions(classId));
  return data?.hours ? <>Here that usually takes less than {hoursInWords(data.hours)}.</> : null;
}
