import { useQueryClient } from '@tanstack/react-query';
import { deleteJson } from '../api/client';
import type { Me } from '../api/schema';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './Band.module.css';

/** Tells somebody that the own password was tried, until they say that they know. */
export function TriesNote({ me }: { me: Me }) {
  const client = useQueryClient();
  if (!me.tries) return null;
  const known = async () => {
    await deleteJson('/api/account/tries');
    await client.invalidateQueries({ queryKey: ['me'] });
  };
  return (
    <div className={css.tries} role="status">
      <span>
        A wrong password was typed {me.tries.count} times with your username, last <When at={me.tries.last} />. If that
        was not you, tell your teacher.
      </span>
      <Word onClick={known}>I know</Word>
    </div>
  );
}
