import { Modal } from '@mantine/core';
import { useState } from 'react';
import { deleteJson, postJson, putJson, withParams } from '../api/client';
import type { Criterion, KeptRubric } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './RubricBuilder.module.css';

interface RubricLibraryProps {
  kept: KeptRubric[];
  /** The steps as they stand on the page. */
  criteria: Criterion[];
  onTake: (criteria: Criterion[]) => void;
  onClose: () => void;
}

const stale = [['rubrics']];

/** The steps that a teacher keeps by a name, with those of co-teachers. */
export function RubricLibrary({ kept, criteria, onTake, onClose }: RubricLibraryProps) {
  const [name, setName] = useState('');
  const [gone, setGone] = useState<KeptRubric | null>(null);
  const keep = useWrite(
    (wanted: { name: string; criteria: Criterion[] }) =>
      postJson('/api/rubrics', { name: wanted.name, rubric: { criteria: wanted.criteria }, rev: 0 }),
    {
      here: true,
      stale,
      onDone: () => {
        setName('');
        setGone(null);
      },
    },
  );
  const change = useWrite(
    ({ of, ...wanted }: { of: KeptRubric; name?: string; criteria?: Criterion[] }) =>
      putJson(`/api/rubrics/${of.id}`, {
        name: wanted.name ?? of.name,
        rubric: { criteria: wanted.criteria ?? of.rubric.criteria },
        rev: of.rev,
      }),
    { here: true, stale },
  );
  const remove = useWrite((of: KeptRubric) => deleteJson(withParams(`/api/rubrics/${of.id}`, { rev: of.rev })), {
    here: true,
    stale,
    onDone: (_, of) => setGone(of),
  });
  const busy = keep.busy || change.busy || remove.busy;
  return (
    <Modal opened onClose={onClose} title="My rubrics">
      {kept.length === 0 && <p className="muted above-0">Nothing is kept yet.</p>}
      <ul className={css.kept}>
        {kept.map((k) => (
          <li key={k.id}>
            {k.by ? (
              <b>{k.name}</b>
            ) : (
              <input
                aria-label={`Name of ${k.name}`}
                key={`${k.id} ${k.rev}`}
                defaultValue={k.name}
                maxLength={80}
                onBlur={(e) => {
                  const named = e.target.value.trim();
                  if (named && named !== k.name) change.run({ of: k, name: named });
                }}
              />
            )}
            <span className="tiny muted block">
              {k.rubric.criteria.map((c) => c.name).join(', ')}
              {k.by && ` · ${k.by}`}
            </span>
            <span className="tiny">
              <Word
                tiny
                onClick={() => {
                  onTake(k.rubric.criteria);
                  onClose();
                }}
              >
                Take these steps
              </Word>
              {!k.by && (
                <>
                  {criteria.length > 0 && (
                    <>
                      {' · '}
                      <Word tiny disabled={busy} onClick={() => change.run({ of: k, criteria })}>
                        Put the steps of this page in their place
                      </Word>
                    </>
                  )}
                  {' · '}
                  <Word tiny disabled={busy} onClick={() => remove.run(k)}>
                    Take it away
                  </Word>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
      {gone && (
        <p className="tell" role="status">
          {gone.name} is taken away.{' '}
          <Word onClick={() => keep.run({ name: gone.name, criteria: gone.rubric.criteria })}>Keep it after all</Word>
        </p>
      )}
      {criteria.length > 0 && (
        <form
          className="row middle above-4"
          onSubmit={(e) => {
            e.preventDefault();
            // The page around it is a form as well.
            e.stopPropagation();
            if (name.trim()) keep.run({ name, criteria });
          }}
        >
          <input
            className={`slip grow ${css.keepName}`}
            aria-label="A name for the steps of this page"
            placeholder="A name for the steps of this page"
            maxLength={80}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button go type="submit" disabled={busy || !name.trim()}>
            Keep them
          </Button>
        </form>
      )}
      <Wrong says={keep.problem || change.problem || remove.problem} />
    </Modal>
  );
}
