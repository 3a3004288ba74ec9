import { Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { putJson } from '../api/client';
import type { MemberLine } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';

/** The name of somebody who came in by themselves, to be let through or mended before the class sees it. */
export function NameDialog({ person, onClose }: { person: MemberLine; onClose: () => void }) {
  const { id } = useClass();
  const [family, given = ''] = person.sortName.includes(', ') ? person.sortName.split(', ') : [person.sortName];
  const form = useForm({ initialValues: { given, family } });
  const name = useWrite(
    (values: { given: string; family: string }) => putJson(`/api/classes/${id}/people/${person.id}/name`, values),
    { stale: [[]], onDone: onClose, onWrong: (says) => form.setFieldError('given', says) },
  );
  const submit = form.onSubmit((values) => name.run(values));
  return (
    <Modal opened onClose={onClose} title={`Is ${person.name} who they say?`}>
      <form onSubmit={submit}>
        <p className="muted">
          They came in by themselves and typed this name. It could be taken for somebody else’s, so the class sees “A
          new student” until you let it through.
        </p>
        <TextInput label="Given name" mt="sm" {...form.getInputProps('given')} />
        <TextInput label="Family name" mt="sm" {...form.getInputProps('family')} />
        <p>
          <Button go type="submit">
            Let the name show
          </Button>{' '}
          <Button onClick={onClose}>{t.cancel}</Button>
        </p>
      </form>
    </Modal>
  );
}
