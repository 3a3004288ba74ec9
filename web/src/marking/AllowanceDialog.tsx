import { Checkbox, Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { allowanceOptions } from '../api/queries';
import type { AllowanceView } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';

interface AllowanceDialogProps {
  prompt: number;
  student: number;
  name: string;
  /** What it is called in a sentence. */
  called: string;
  onClose: () => void;
}

/** A date of one student's own, or that nothing is asked of them. */
export function AllowanceDialog(props: AllowanceDialogProps) {
  const { data, error } = useQuery(allowanceOptions(props.prompt, props.student));
  return (
    <Modal opened onClose={props.onClose} title={`What is asked of ${props.name}`}>
      {error && <Trouble error={error} />}
      {!data && !error && <Loading />}
      {data && <AllowanceForm {...props} allowance={data} />}
    </Modal>
  );
}

function AllowanceForm({
  prompt,
  student,
  called,
  allowance,
  onClose,
}: AllowanceDialogProps & { allowance: AllowanceView }) {
  const form = useForm({
    initialValues: {
      due: (allowance.due ?? allowance.everybody).slice(0, 16),
      letOff: allowance.letOff,
      again: allowance.again,
    },
  });
  const set = useWrite(
    (wanted: { due?: string; letOff: boolean; again: boolean }) =>
      putJson(`/api/prompts/${prompt}/allowances/${student}`, wanted),
    { form, stale: [['paper', prompt], ['strip', prompt], ['allowance', prompt], ['me']], onDone: onClose },
  );
  const everybody = allowance.everybody.slice(0, 16);
  return (
    <form
      onSubmit={form.onSubmit(({ due, letOff, again }) =>
        set.run({ due: due && due !== everybody ? due : undefined, letOff, again }),
      )}
    >
      <TextInput
        label={`Due for ${called}`}
        description="Grace and what a late day takes stay as they are for everybody."
        type="datetime-local"
        disabled={form.values.letOff}
        {...form.getInputProps('due')}
      />
      <Checkbox
        mt="md"
        label={`Let ${called} off`}
        description="Nothing is asked, and nothing of it is in any sum."
        {...form.getInputProps('letOff', { type: 'checkbox' })}
      />
      <Checkbox
        mt="md"
        label={`${called} may hand in again`}
        description="After the time too. It counts in place of what was there, and is not late by it; marks stay until you go through them again."
        disabled={form.values.letOff}
        {...form.getInputProps('again', { type: 'checkbox' })}
      />
      <p className="tiny muted above-3 below-0">{called} is told under Write, and beside a score that changes by it.</p>
      <Wrong says={set.problem} />
      <p className="row above-4 below-0">
        <Button go type="submit" disabled={set.busy}>
          Keep it
        </Button>
        {(allowance.due || allowance.letOff || allowance.again) && (
          <Word onClick={() => set.run({ letOff: false, again: false })}>As for everybody</Word>
        )}
        <Button onClick={onClose}>{t.cancel}</Button>
      </p>
    </form>
  );
}
