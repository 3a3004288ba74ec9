import { useQuery } from '@tanstack/react-query';
import { postJson } from '../api/client';
import { knownRubricsOptions } from '../api/queries';
import type { Criterion, Rubric } from '../api/schema';
import { useWrite } from '../api/write';
import { Wrong } from '../ui/Wrong';
import css from './RubricBuilder.module.css';

interface RubricSourceProps {
  classId: number;
  /** The prompt whose steps can be taken along, if it is set already. */
  promptId?: number;
  onTake: (criteria: Criterion[]) => void;
}

/** Steps from elsewhere in place of those that stand here: of another prompt, or from a table. */
export function RubricSource({ classId, promptId, onTake }: RubricSourceProps) {
  const { data } = useQuery(knownRubricsOptions);
  const read = useWrite(
    async (file: File) => postJson<Rubric>(`/api/classes/${classId}/rubric-table`, { table: await file.text() }),
    { here: true, onDone: (rubric) => onTake(rubric.criteria) },
  );
  return (
    <>
      <p className={css.source}>
        {data && data.length > 0 && (
          <select
            className="pick"
            aria-label="Take the steps of another prompt"
            value=""
            onChange={(e) => onTake(data[Number(e.target.value)].rubric.criteria)}
          >
            <option value="">Take the steps of another prompt…</option>
            {data.map((k, i) => (
              <option key={`${k.className} ${k.prompt}`} value={i}>
                {k.prompt}, {k.className}: {k.rubric.criteria.map((c) => c.name).join(', ')}
              </option>
            ))}
          </select>
        )}
        <label className="word">
          Bring in a table (CSV)
          <input
            type="file"
            className="away"
            accept=".csv,.txt,.tsv,text/*"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) read.run(file);
              e.target.value = '';
            }}
          />
        </label>
        {promptId && (
          <a className="word" href={`/api/prompts/${promptId}/rubric.csv`}>
            Take these along (CSV)
          </a>
        )}
      </p>
      <Wrong says={read.problem} />
    </>
  );
}
