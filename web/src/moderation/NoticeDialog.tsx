import { Modal, Radio, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { meOptions, noticeOptions } from '../api/queries';
import type { Notice } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Chip } from '../ui/Chip';
import { Loading } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';

/** How one is told that something waits: class by class, by mail or by the count alone. */
export function NoticeDialog({ onClose }: { onClose: () => void }) {
  const { id } = useClass();
  const { data: me } = useQuery(meOptions);
  const [classId, setClassId] = useState(id);
  const { data } = useQuery(noticeOptions(classId));
  const mine = me?.classes.filter((c) => c.approves) ?? [];
  return (
    <Modal opened onClose={onClose} title="Being told that something waits">
      {mine.length > 1 && (
        <p className="above-0 below-4">
          {mine.map((c) => (
            <Chip key={c.id} aria-pressed={c.id === classId} onClick={() => setClassId(c.id)}>
              {c.name}
            </Chip>
          ))}
        </p>
      )}
      {data ? <NoticeForm key={classId} classId={classId} now={data} onClose={onClose} /> : <Loading />}
    </Modal>
  );
}

function NoticeForm({ classId, now, onClose }: { classId: number; now: Notice; onClose: () => void }) {
  const [wish, setWish] = useState({
    ...now,
    quietFrom: now.quietFrom.slice(0, 5),
    quietUntil: now.quietUntil.slice(0, 5),
  });
  const save = useWrite(
    () =>
      putJson<Notice>(`/api/classes/${classId}/notice`, {
        cadence: wish.cadence,
        address: wish.address,
        quietFrom: wish.quietFrom,
        quietUntil: wish.quietUntil,
      }),
    {
      here: true,
      fills: noticeOptions(classId).queryKey,
      onDone: (set) => {
        if (!set.waits) onClose();
      },
    },
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.run();
      }}
    >
      <Radio.Group value={wish.cadence} onChange={(cadence) => setWish({ ...wish, cadence })} aria-label="How often">
        <Radio value="NEVER" label="By the count on this page alone" mt={4} />
        <Radio value="AT_ONCE" label="By mail, ten minutes after the first that comes" mt={10} />
        <Radio value="DAILY" label="By one mail a day, at 16:00" mt={10} />
      </Radio.Group>
      {wish.cadence !== 'NEVER' && (
        <>
          <TextInput
            label="To this address"
            mt="md"
            value={wish.address}
            error={save.problem}
            placeholder={now.own || 'name@school.example'}
            description={now.own ? `Left empty, it goes to ${now.own}.` : undefined}
            onChange={(e) => {
              setWish({ ...wish, address: e.target.value });
              save.forget();
            }}
          />
          {now.waits && wish.address === now.address && (
            <p className="tell above-3 below-0" role="status">
              {t.confirmFirst(now.address, now.own)}
            </p>
          )}
          <p className="above-4 below-1">Never between</p>
          <div className="row middle wrap">
            <TextInput
              type="time"
              aria-label="Quiet from"
              value={wish.quietFrom}
              onChange={(e) => setWish({ ...wish, quietFrom: e.target.value })}
            />
            and
            <TextInput
              type="time"
              aria-label="Quiet until"
              value={wish.quietUntil}
              onChange={(e) => setWish({ ...wish, quietUntil: e.target.value })}
            />
          </div>
          <p className="tiny muted above-4 below-0">
            A mail names what waits and leads to it; it never carries the text itself.
          </p>
        </>
      )}
      <Wrong says={wish.cadence === 'NEVER' && save.problem} />
      <Button className="above-4" go type="submit">
        Use this
      </Button>
    </form>
  );
}
