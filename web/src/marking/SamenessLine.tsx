import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { samenessOfOptions } from '../api/queries';
import { t } from '../texts/en';

interface SamenessLineProps {
  promptId: number;
  studentId: number;
  classId: number;
}

/** That a paper shares words with others; nothing where it does not. */
export function SamenessLine({ promptId, studentId, classId }: SamenessLineProps) {
  const { data } = useQuery(samenessOfOptions(promptId, studentId));
  if (!data || data.pairs === 0) return null;
  return (
    <p className="tiny muted above-4">
      Shares {t.count(data.words, 'word', 'words')}{' '}
      {data.pairs === 1 ? 'with another paper' : `or fewer with ${data.pairs} other papers`} ·{' '}
      <Link className="word tiny" to={`/classes/${classId}/sameness/${promptId}?student=${studentId}`}>
        See both
      </Link>
    </p>
  );
}
