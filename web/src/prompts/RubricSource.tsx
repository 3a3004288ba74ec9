import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import { rubricsOptions } from '../api/queries';
import type { Criterion, Rubric } from '../api/schema';
import { useWrite } from '../api/write';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './RubricBuilder.module.css';
import { RubricLibrary } from './RubricLibrary';

interface RubricSourceProps {
  classId: number;
  /** The prompt whose steps can be taken along, if it is set already. */
  promptId?: number;
  /** The steps as they stand on the page. */
  criteria: Criterion[];
  onTake: (criteria: Criterion[]) => void;
}

/** Steps from elsewhere in place of those that stand here: of another prompt, kept by a name, or from a file. */
export function RubricSource({ classId, promptId, criteria, onTake }: RubricSourceProps) {
  const { data } = useQuery(rubricsOptions);
  const [open, setOpen] = useState(false);
  const read = useWrite(
    async (file: File) => postJson<Rubric>(`/api/classes/${classId}/rubric-table`, { table: await file.text() }),
    { here: true, onDone: (rubric) => onTake(rubric.criteria) },
  );
  return (
    <>
      <p className={css.source}>
        {data && data.used.length > 0 && (
          <select
            className="pick"
            aria-label="Take the steps of another prompt"
            value=""
            onChange={(e) => onTake(data.used[Number(e.target.value)].rubric.criteria)}
          >
            <option value="">Take the steps of another prompt…</option>
            {data.used.map((k, i) => (
              <option key={`${k.className} ${k.prompt}`} value={i}>
                {k.prompt}, {k.className}: {k.rubric.criteria.map((c) => c.name).join(', ')}
              </option>
            ))}
          </select>
        )}
        <Word onClick={() => setOpen(true)}>
          My rubrics{data && data.kept.length > 0 ? ` (${data.kept.length})` : ''}
        </Word>
        <label className="word">
          Bring in a file (CSV, JSON)
          <input
            type="file"
            className="away"
            accept=".csv,.txt,.tsv,.json,text/*,application/json"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) read.run(file);
              e.target.value = '';
            }}
          />
        </label>
        {promptId && (
          <span>
            Take these along:{' '}
            <a className="word" href={`/api/prompts/${promptId}/rubric.csv`}>
              CSV
            </a>
            {', '}
            <a className="word" href={`/api/prompts/${promptId}/rubric.json`}>
              JSON
            </a>
          </span>
        )}
      </p>
      <Wrong says={read.problem} />
      {open && data && (
        <RubricLibrary kept={data.kept} criteria={criteria} onTake={onTake} onClose={() => setOpen(false)} />
      )}
    </>
  );
}
