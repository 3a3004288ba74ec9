import { deleteJson } from '../api/client';
import type { Me } from '../api/schema';
import { useWrite } from '../api/write';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import css from './Band.module.css';

/** Tells somebody that the own password was tried, until they say that they know. */
export function TriesNote({ me }: { me: Me }) {
  const known = useWrite(() => deleteJson('/api/account/tries'), { stale: [['me']] });
  if (!me.tries) return null;
  return (
    <div className={css.tries} role="status">
      <span>
        A wrong password was typed {me.tries.count} times with your username, last <When at={me.tries.last} />. If that
        was not you, tell your teacher.
      </span>
      <Word onClick={() => known.run()}>I know</Word>
    </div>
  );
}
