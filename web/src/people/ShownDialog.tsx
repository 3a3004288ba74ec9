import { Modal, Radio, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { putJson } from '../api/client';
import type { MemberLine } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { Button } from '../ui/Button';

/** The name under which readers see a student; staff always see who it is. */
export function ShownDialog({ person, onClose }: { person: MemberLine; onClose: () => void }) {
  const { id } = useClass();
  const form = useForm({ initialValues: { shown: person.shown, penName: person.penName ?? '' } });
  const show = useWrite(
    (as: { shown: string; penName?: string }) => putJson(`/api/classes/${id}/people/${person.id}/shown`, as),
    { stale: [[]], onDone: onClose, onWrong: (says) => form.setFieldError('penName', says) },
  );
  const submit = form.onSubmit((v) => show.run({ shown: v.shown, penName: v.penName || undefined }));
  const [given, ...rest] = person.name.split(' ');
  return (
    <Modal opened onClose={onClose} title={`How readers see ${person.name}`}>
      <form onSubmit={submit}>
        <Radio.Group {...form.getInputProps('shown')} aria-label="The name that readers see">
          <Radio value="OWN_NAME" label={`Own name: ${person.name}`} mt={6} />
          <Radio
            value="FIRST_AND_INITIAL"
            label={`First name and initial: ${given}${rest.length ? ` ${rest[rest.length - 1][0]}.` : ''}`}
            mt={10}
          />
          <Radio value="PEN_NAME" label="A pen name" mt={10} />
        </Radio.Group>
        <TextInput
          label="Pen name"
          mt="md"
          disabled={form.values.shown !== 'PEN_NAME'}
          {...form.getInputProps('penName')}
        />
        <p className="tiny muted above-4 below-4">
          Classmates, guests, feeds and addresses get this name only; the blog of {given} gets a new title and address.
          You and the other staff still see who it is. Posts and comments keep the words that stand in them.
        </p>
        <Button go type="submit">
          Use this name
        </Button>
      </form>
    </Modal>
  );
}
