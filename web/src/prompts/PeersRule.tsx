import { Checkbox, MultiSelect, NumberInput, Select, Textarea, TextInput } from '@mantine/core';
import type { UseFormReturnType } from '@mantine/form';
import { t } from '../texts/en';
import { say } from '../ui/When';
import { Rule } from './Rule';
import type { PromptForm } from './wanted';

const WHEN = [
  { value: 'BY_HAND', label: 'by hand' },
  { value: 'AT', label: 'at a time' },
  { value: 'ALL_IN', label: 'once all are in, at the latest when it is due' },
];

const FIELDS = ['each', 'givenAt', 'peersDue', 'peersShare', 'peersQuestions'] as const;

/** Whether and how classmates read each other's papers. */
export function PeersRule({ form }: { form: UseFormReturnType<PromptForm> }) {
  const v = form.values;
  const wrong = FIELDS.some((f) => form.errors[f]) || !!form.errors.peers;
  const hidden =
    v.authorsKept && v.reviewersKept
      ? 'neither reads the other’s name'
      : v.authorsKept
        ? 'without the author’s name'
        : v.reviewersKept
          ? 'without the reviewer’s name'
          : 'both read the other’s name';
  return (
    <Rule
      label="How classmates review"
      wrong={wrong}
      says={
        v.each === 0 ? (
          <>
            Classmates do <b>not review</b> it.
          </>
        ) : (
          <>
            Each student reviews <b>{t.count(v.each, 'paper', 'papers')}</b> of classmates, given out{' '}
            {v.givenWhen === 'BY_HAND' ? 'by hand' : v.givenWhen === 'AT' ? say(v.givenAt) : 'once all are in'}
            {v.peersDue && (
              <>
                {' '}
                and due <b>{say(v.peersDue)}</b>
              </>
            )}
            ; {hidden}
            {v.peersShare > 0 && `; that is ${v.peersShare} % of the score`}.
          </>
        )
      }
    >
      <NumberInput label="Papers that each student reviews" min={0} max={6} {...form.getInputProps('each')} />
      {v.each > 0 && (
        <>
          <Select label="Given out" data={WHEN} allowDeselect={false} {...form.getInputProps('givenWhen')} />
          {v.givenWhen === 'AT' && (
            <TextInput label="At" type="datetime-local" name="givenAt" {...form.getInputProps('givenAt')} />
          )}
          <TextInput
            label="Reviews are due"
            type="datetime-local"
            name="peersDue"
            {...form.getInputProps('peersDue')}
          />
          <Checkbox
            label="Reviewers do not read whose paper it is"
            {...form.getInputProps('authorsKept', { type: 'checkbox' })}
          />
          <Checkbox
            label="Authors do not read who reviewed"
            description="Teachers read all names."
            {...form.getInputProps('reviewersKept', { type: 'checkbox' })}
          />
          <MultiSelect
            label="They judge"
            placeholder={v.peersCriteria.length === 0 ? 'all criteria' : undefined}
            data={v.criteria.map((c) => ({ value: c.id, label: c.name }))}
            {...form.getInputProps('peersCriteria')}
          />
          <Textarea
            label="And answer, one question a line"
            autosize
            minRows={2}
            {...form.getInputProps('peersQuestions')}
          />
          <NumberInput label="Their share of the score in %" min={0} max={100} {...form.getInputProps('peersShare')} />
          <Checkbox
            label="Authors can say what helped them"
            {...form.getInputProps('peersAnswered', { type: 'checkbox' })}
          />
          {form.errors.peers && <p className="tiny warm above-2 below-0">{form.errors.peers}</p>}
        </>
      )}
    </Rule>
  );
}
