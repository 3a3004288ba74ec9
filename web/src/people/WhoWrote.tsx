import { Link } from 'react-router';
import { NameMenu } from './NameMenu';

interface WhoWroteProps {
  /** The class whose pages it leads to; undefined for readers from outside it. */
  classId?: number;
  /** The number of the author's place in the class; 0 where that is not told. */
  place: number;
  name: string;
  group?: string;
}

/** Who wrote something, with the way to what else they wrote where that may be known. */
export function WhoWrote({ classId, place, name, group }: WhoWroteProps) {
  if (!classId || !place) return <b>{name}</b>;
  return (
    <NameMenu classId={classId} place={place} name={name}>
      <Link to={`/classes/${classId}/persons/${place}`}>
        <b>{name}</b>
      </Link>
      {group ? `, ${group.toLowerCase()}` : ''}
    </NameMenu>
  );
}
