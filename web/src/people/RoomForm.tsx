import { NumberInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiProblem, putJson } from '../api/client';
import { roomOptions } from '../api/queries';
import type { RoomView } from '../api/schema';
import { Loading, Trouble } from '../parts/Trouble';
import { t } from '../texts/en';
import css from './People.module.css';

const MEGABYTE = 1024 * 1024;

/** A number of bytes as people say it. */
function said(bytes: number): string {
  const megabytes = bytes / MEGABYTE;
  return megabytes >= 1_000 ? `${(megabytes / 1_024).toFixed(1)} GB` : megabytes >= 10 ? `${Math.round(megabytes)} MB` : `${megabytes.toFixed(1)} MB`;
}

/** How much room pictures and files may take in a class, and who takes it. */
export function RoomForm({ classId }: { classId: number }) {
  const room = useQuery(roomOptions(classId));
  if (room.isError) return <Trouble error={room.error} onRetry={() => room.refetch()} />;
  if (!room.data) return <Loading />;
  return <Form key={room.data.rev} classId={classId} room={room.data} />;
}

function Form({ classId, room }: { classId: number; room: RoomView }) {
  const client = useQueryClient();
  const form = useForm({ initialValues: { student: room.student, inAll: room.inAll } });
  const [problem, setProblem] = useState('');
  const submit = form.onSubmit(async (values) => {
    setProblem('');
    try {
      client.setQueryData(roomOptions(classId).queryKey, await putJson<RoomView>(`/api/classes/${classId}/room`, { ...values, rev: room.rev }));
    } catch (e) {
      if (e instanceof ApiProblem && e.field) form.setFieldError(e.field, e.message);
      else setProblem(e instanceof ApiProblem ? e.message : t.again);
    }
  });
  return (
    <section className={css.room}>
      <h2>Room for pictures and files</h2>
      <p className="muted">
        {said(room.used)} of {said(room.inAll * MEGABYTE)} are taken.
        {room.most.length > 0 && ` Most of it by ${room.most.map((m) => `${m.name} (${said(m.bytes)})`).join(', ')}.`}
      </p>
      <form className={css.roomForm} onSubmit={submit}>
        <NumberInput label="Megabytes for each student" min={1} {...form.getInputProps('student')} />
        <NumberInput label="Megabytes for the class" min={1} {...form.getInputProps('inAll')} />
        <button className="btn" type="submit">Set the room</button>
      </form>
      {problem && <p className="tell wrong" role="alert">{problem}</p>}
    </section>
  );
}
