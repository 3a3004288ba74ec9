import { NumberInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery } from '@tanstack/react-query';
import { putJson } from '../api/client';
import { roomOptions } from '../api/queries';
import type { RoomView } from '../api/schema';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';
import css from './RoomForm.module.css';

const MEGABYTE = 1024 * 1024;

const megabytes = (bytes: number) =>
  bytes < 10 * MEGABYTE ? (bytes / MEGABYTE).toFixed(1) : Math.round(bytes / MEGABYTE).toLocaleString('en-GB');

/** How much room pictures and files may take in a class, and who takes it. */
export function RoomForm({ classId }: { classId: number }) {
  const room = useQuery(roomOptions(classId));
  if (room.isError) return <Trouble error={room.error} onRetry={() => room.refetch()} />;
  if (!room.data) return <Loading />;
  return <Form key={room.data.rev} classId={classId} room={room.data} />;
}

function Form({ classId, room }: { classId: number; room: RoomView }) {
  const form = useForm({ initialValues: { student: room.student, inAll: room.inAll } });
  const many = room.most.filter((m) => m.bytes * 10 > room.student * MEGABYTE);
  const set = useWrite(
    (values: typeof form.values) => putJson<RoomView>(`/api/classes/${classId}/room`, { ...values, rev: room.rev }),
    { form, fills: roomOptions(classId).queryKey },
  );
  return (
    <section className={css.room}>
      <h2>Room for pictures and files</h2>
      <p className="muted">
        {megabytes(room.used)} of {room.inAll.toLocaleString('en-GB')} megabytes are taken.
        {many.length > 0 && ` Much of it by ${many.map((m) => `${m.name} (${megabytes(m.bytes)})`).join(', ')}.`}
      </p>
      <form className={css.roomForm} onSubmit={form.onSubmit((values) => set.run(values))}>
        <NumberInput label="Megabytes for each student" min={1} {...form.getInputProps('student')} />
        <NumberInput label="Megabytes for the class" min={1} {...form.getInputProps('inAll')} />
        <Button type="submit">Set the room</Button>
      </form>
      <Wrong says={set.problem} />
    </section>
  );
}
