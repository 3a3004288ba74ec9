import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { filedReportsOptions } from '../api/queries';
import { When } from '../ui/When';

/** A report that was sent anew was not seen yet. */
export const seenName = (report: { id: number; at: string }) => `report-seen-${report.id}-${report.at}`;

/** That a report came which was not looked at on this computer. */
export function ReportWaits({ classId }: { classId: number }) {
  const newest = useQuery(filedReportsOptions(classId)).data?.[0];
  if (!newest || localStorage.getItem(seenName(newest))) return null;
  return (
    <p className="tell above-4 below-0">
      Your report of {newest.week} came <When at={newest.at} />.{' '}
      <Link className="word" to={`/classes/${classId}/reports/${newest.id}`}>
        Read the report
      </Link>
    </p>
  );
}

interface OtherWeeksProps {
  classId: number;
  /** Whose; without, the reader's own. */
  student?: number;
  /** The one that is read now. */
  now?: number;
}

/** The reports of other weeks; nothing at all where there are none. */
export function OtherWeeks({ classId, student, now }: OtherWeeksProps) {
  const { data } = useQuery(filedReportsOptions(classId, student));
  const others = data?.filter((r) => r.id !== now) ?? [];
  if (others.length === 0) return null;
  return (
    <p className="above-3 row wrap less">
      <span className="muted">{now ? 'Reports of other weeks:' : 'Reports of your weeks:'}</span>
      {others.map((r) => (
        <Link key={r.id} className="word" to={`/classes/${classId}/reports/${r.id}`}>
          {r.week}
        </Link>
      ))}
    </p>
  );
}
