import { Checkbox, Modal, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { peopleOptions } from '../api/queries';
import type { Paper, WantedMembers } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';
import css from './Mark.module.css';

/** Who handed in one paper together, and who of them is marked apart. */
export function MembersDialog({ classId, paper, onClose }: { classId: number; paper: Paper; onClose: () => void }) {
  const { data: people } = useQuery(peopleOptions(classId));
  const of = paper.together;
  const form = useForm({
    initialValues: {
      students: of?.members.map((m) => m.studentId) ?? [],
      apart: of?.members.map((m) => m.studentId).filter((id) => !of.alike.includes(id)) ?? [],
      reason: '',
    },
  });
  const set = useWrite(
    (wanted: WantedMembers) =>
      putJson<Paper>(`/api/prompts/${paper.promptId}/marking/${paper.studentId}/members`, wanted),
    { form, stale: [['paper', paper.promptId], ['strip', paper.promptId], ['me']], onDone: onClose },
  );
  const { students, apart } = form.values;
  const turn = (list: 'students' | 'apart', id: number, on: boolean) =>
    form.setFieldValue(list, on ? [...form.values[list], id] : form.values[list].filter((s) => s !== id));
  const here = people?.filter((p) => p.role === 'STUDENT') ?? [];
  const sorted = [...here].sort((a, b) => Number(students.includes(b.id)) - Number(students.includes(a.id)));
  return (
    <Modal opened onClose={onClose} title="Who handed this in">
      {!people && <Loading />}
      <form
        onSubmit={form.onSubmit(({ reason, ...wanted }) =>
          set.run({ ...wanted, reason: reason || undefined, seen: paper.given.seen }),
        )}
      >
        <p className="muted less above-0">
          Everybody ticked has this paper and its marks. Whoever is marked apart keeps marks of their own.
        </p>
        <ul className={css.members}>
          {sorted.map((p) => (
            <li key={p.id}>
              <Checkbox
                label={p.name}
                checked={students.includes(p.id)}
                disabled={p.id === paper.studentId}
                onChange={(e) => turn('students', p.id, e.currentTarget.checked)}
              />
              {students.includes(p.id) && students.length > 1 && (
                <Checkbox
                  label="marked apart"
                  aria-label={`marked apart: ${p.name}`}
                  checked={apart.includes(p.id)}
                  onChange={(e) => turn('apart', p.id, e.currentTarget.checked)}
                />
              )}
            </li>
          ))}
        </ul>
        {paper.given.releasedAt && (
          <TextInput
            className="above-3"
            label="Why does it change? The students read this beside a score that changes."
            maxLength={1000}
            {...form.getInputProps('reason')}
          />
        )}
        <Wrong says={set.problem} />
        <p className="row above-4 below-0">
          <Button go type="submit" disabled={set.busy}>
            Keep it
          </Button>
          <Button onClick={onClose}>{t.cancel}</Button>
        </p>
      </form>
    </Modal>
  );
}
