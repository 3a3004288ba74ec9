import type { InRound } from '../api/schema';
import css from './Peers.module.css';

export interface Cell {
  reviewer: number;
  author: number;
  /** How it is drawn. */
  kind: 'planned' | 'kept' | 'begun' | 'sent';
  late?: boolean;
  /** The same in words. */
  says: string;
}

const KEY: Record<Cell['kind'], string> = {
  planned: 'reads the paper',
  kept: 'chosen by hand',
  begun: 'begun',
  sent: 'sent',
};

/** So that a column stays narrow; two of the same initials are told apart by the full name. */
const short = (name: string) =>
  name
    .split(/\s+/)
    .map((part) => [...part][0])
    .join('')
    .slice(0, 3);

/** Who reads whom: a row for each reader, a column for each paper; papers of the own group lie in a shade. */
export function Picture({ people, cells }: { people: InRound[]; cells: Cell[] }) {
  const at = new Map(cells.map((c) => [`${c.reviewer} ${c.author}`, c]));
  const kinds = (Object.keys(KEY) as Cell['kind'][]).filter((k) => cells.some((c) => c.kind === k));
  return (
    <>
      <div className="scrolls" tabIndex={0} role="region" aria-label="Who reads whom">
        <table className={css.picture}>
          <thead>
            <tr>
              <th scope="col">
                <span className="away">Reads the paper of</span>
              </th>
              {people.map((p) => (
                <th key={p.id} scope="col">
                  <abbr title={p.name} aria-label={p.name}>
                    {short(p.name)}
                  </abbr>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {people.map((reader) => (
              <tr key={reader.id}>
                <th scope="row">{reader.name}</th>
                {people.map((author) => {
                  const cell = at.get(`${reader.id} ${author.id}`);
                  const mate = reader.group !== undefined && reader.group === author.group;
                  return (
                    <td
                      key={author.id}
                      className={reader.id === author.id ? css.own : mate ? css.mate : undefined}
                      title={cell ? `${reader.name}, ${author.name}: ${cell.says}` : undefined}
                    >
                      {cell && (
                        <>
                          <span className={`${css.mark} ${css[cell.kind] ?? ''} ${cell.late ? css.late : ''}`} />
                          <span className="away">{cell.says}</span>
                        </>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className={css.key} aria-hidden="true">
        {kinds.map((k) => (
          <span key={k}>
            <span className={`${css.mark} ${css[k] ?? ''}`} /> {KEY[k]}
          </span>
        ))}
        {cells.some((c) => c.late) && (
          <span>
            <span className={`${css.mark} ${css.late}`} /> late
          </span>
        )}
      </p>
    </>
  );
}
