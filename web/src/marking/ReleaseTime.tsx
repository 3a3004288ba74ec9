import { Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { releaseTimeOptions } from '../api/queries';
import type { PlannedRelease } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Mark.module.css';

/** When the finished marks of a prompt are shown by themselves. */
export function ReleaseTime({ promptId, marked }: { promptId: number; marked: number }) {
  const { data } = useQuery(releaseTimeOptions(promptId));
  const [open, setOpen] = useState(false);
  if (!data) return null;
  return (
    <>
      <Word tiny className={css.later} onClick={() => setOpen(true)}>
        {data.at ? (
          <>
            go out <When at={data.at} />
          </>
        ) : (
          'Release later'
        )}
      </Word>
      <Modal opened={open} onClose={() => setOpen(false)} title="When the marks are released">
        <ReleaseTimeForm promptId={promptId} marked={marked} planned={data} onClose={() => setOpen(false)} />
      </Modal>
    </>
  );
}

interface ReleaseTimeFormProps {
  promptId: number;
  /** How many papers are marked and not released now. */
  marked: number;
  planned: PlannedRelease;
  onClose: () => void;
}

function ReleaseTimeForm({ promptId, marked, planned, onClose }: ReleaseTimeFormProps) {
  const form = useForm({ initialValues: { at: planned.at?.slice(0, 16) ?? '' } });
  const set = useWrite(
    (at?: string) => putJson<PlannedRelease>(`/api/prompts/${promptId}/marking/release-time`, { at, rev: planned.rev }),
    { form, here: true, fills: releaseTimeOptions(promptId).queryKey, onDone: onClose },
  );
  return (
    <form onSubmit={form.onSubmit(({ at }) => set.run(at))}>
      <TextInput
        label="Release them"
        description={`All papers of this prompt that are marked by then, ${t.count(marked, 'is', 'are')} so far. The others wait until you release them.`}
        type="datetime-local"
        {...form.getInputProps('at')}
      />
      <Wrong says={set.problem} />
      <p className="row above-4 below-0">
        <Button go type="submit" disabled={set.busy || !form.values.at}>
          Keep it
        </Button>
        {planned.at && <Word onClick={() => set.run(undefined)}>Not by itself</Word>}
        <Button onClick={onClose}>{t.cancel}</Button>
      </p>
    </form>
  );
}
