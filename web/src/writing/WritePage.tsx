import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { draftOptions } from '../api/queries';
import { Loading, Trouble } from '../ui/Trouble';
import { Writing } from './Writing';

/** The page on which one writes. */
export function WritePage() {
  return <Desk id={Number(useParams().postId)} />;
}

/** A post to write on, as soon as it is there. */
export function Desk({ id, onDone }: { id: number; onDone?: () => void }) {
  const { data: draft, error, refetch, isFetching } = useQuery(draftOptions(id));
  if (error && !draft)
    return (
      <div className="page plain">
        <Trouble error={error} onRetry={() => refetch()} />
      </div>
    );
  if (!draft || (isFetching && draft.id !== id))
    return (
      <div className="page plain">
        <Loading lines={9} />
      </div>
    );
  if (draft.beside.state === 'HIDDEN' || draft.beside.state === 'BINNED')
    return (
      <div className="page plain">
        <p className="tell">
          {draft.beside.state === 'HIDDEN'
            ? 'A teacher has hidden this post. Talk to your teacher about it.'
            : 'This post lies in the bin. Take it out on My writing to change it.'}
        </p>
      </div>
    );
  return <Writing key={draft.id} draft={draft} onDone={onDone} />;
}
