import { Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQueryClient } from '@tanstack/react-query';
import { putJson, sentenceOf } from '../api/client';
import type { MemberLine } from '../api/schema';
import { useClass } from '../app/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';

/** The name of somebody who came in by themselves, to be let through or mended before the class sees it. */
export function NameDialog({ person, onClose }: { person: MemberLine; onClose: () => void }) {
  const { id } = useClass();
  const client = useQueryClient();
  const [family, given = ''] = person.sortName.includes(', ') ? person.sortName.split(', ') : [person.sortName];
  const form = useForm({ initialValues: { given, family } });
  const submit = form.onSubmit(async (values) => {
    try {
      await putJson(`/api/classes/${id}/people/${person.id}/name`, values);
      await client.invalidateQueries();
      onClose();
    } catch (e) {
      form.setFieldError('given', sentenceOf(e));
    }
  });
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
