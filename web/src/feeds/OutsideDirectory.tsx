import { useQuery } from '@tanstack/react-query';
import { deleteJson } from '../api/client';
import { outsideDirectoryOptions } from '../api/queries';
import type { OutsideLine } from '../api/schema';
import { useWrite } from '../api/write';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

const COMES: Record<OutsideLine['gathering'], string> = {
  GATHERED: 'gathered here',
  RESTING: 'gathered here, resting for now',
  FALTERING: 'gathered here, but it could not be read the last time',
  PRIVATE: 'private: one has to sign in there, so it cannot be gathered',
};

/** Who blogs where outside, and whether that comes in here. */
export function OutsideDirectory({ classId, wanted, manages }: { classId: number; wanted: string; manages: boolean }) {
  const query = outsideDirectoryOptions(classId);
  const { data } = useQuery(query);
  const remove = useWrite((note: number) => deleteJson(`/api/private-blogs/${note}`), {
    here: true,
    stale: [query.queryKey],
  });
  const shown = (data ?? []).filter((b) => `${b.title} ${b.person ?? ''}`.toLowerCase().includes(wanted.toLowerCase()));
  if (shown.length === 0) return null;
  return (
    <section className="above-6">
      <h2 className="below-2">Kept elsewhere</h2>
      {shown.map((b) => (
        <p key={`${b.address}${b.note ?? ''}`} className="ruled-above inside-2 foot-2 above-0 below-0">
          <a href={b.address} target="_blank" rel="noopener noreferrer">
            {b.title}
          </a>{' '}
          <span className="muted tiny">
            · {b.person ?? 'news for the class'} · {COMES[b.gathering]}
          </span>{' '}
          {manages && b.note !== undefined && (
            <Word tiny onClick={() => remove.run(b.note!)} aria-label={`Strike out: ${b.title}`}>
              Strike out
            </Word>
          )}
        </p>
      ))}
      <Wrong says={remove.problem} />
    </section>
  );
}
