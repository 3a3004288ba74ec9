import { Modal, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import { leavingOptions } from '../api/queries';
import type { BeforeLeaving, MemberLine } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';
import css from './People.module.css';

type Way = 'KEEP' | 'HAND_OVER' | 'ERASE';

const counted = (n: Record<string, number>) => {
  const parts = [t.count(n.posts ?? 0, 'post', 'posts'), t.count(n.comments ?? 0, 'comment', 'comments')];
  if (n.marks) parts.push(t.count(n.marks, 'marked post', 'marked posts'));
  if (n['outside-blogs']) parts.push(t.count(n['outside-blogs'], 'outside blog', 'outside blogs'));
  return parts.join(', ');
};

/** Three ways to leave, each with what stays readable and by whom, said before it happens. */
export function LeaveDialog({ person, onClose }: { person: MemberLine; onClose: () => void }) {
  const { id } = useClass();
  const before = useQuery(leavingOptions(id, person.id));
  const student = person.role === 'STUDENT';
  const [way, setWay] = useState<Way>('KEEP');
  const [typed, setTyped] = useState('');
  const leave = useWrite(
    () =>
      way === 'ERASE'
        ? postJson(`/api/people/${person.id}/erasure`, { typed })
        : postJson(`/api/classes/${id}/people/${person.id}/leaving`, { leaving: way }),
    { stale: [[]], here: true, onDone: onClose },
  );
  const choice = (value: Way, title: string, says: React.ReactNode) => (
    <label className={css.way}>
      <input type="radio" name="way" checked={way === value} onChange={() => setWay(value)} /> <b>{title}</b>
      <span className="tiny muted block above-1 before-5">{says}</span>
    </label>
  );
  return (
    <Modal opened onClose={onClose} size="lg" title={`${person.name} leaves the class`}>
      {before.isError && <Trouble error={before.error} />}
      {before.isPending && <Loading />}
      {before.data && (
        <>
          <p className="above-0 below-1">
            From that moment {person.name} reads nothing here any more, nor by a secret feed address.
          </p>
          {choice(
            'KEEP',
            student ? 'End the enrolment, keep the posts' : 'End the place',
            <>
              {counted(before.data.here)} stay for the readers they have, under the name “{before.data.shownAs}”. Can be
              undone for {before.data.undoDays} days.
            </>,
          )}
          {student &&
            choice(
              'HAND_OVER',
              'Let the writing go along',
              <>
                {t.count(before.data.here.posts ?? 0, 'post disappears', 'posts disappear')} from the Porch: only{' '}
                {person.name.split(' ')[0]}, in the own account, and the staff of this class still read them. Comments
                for others stay. Can be undone for {before.data.undoDays} days.
              </>,
            )}
          {before.data.eraser === 'YOU' && choice('ERASE', 'Erase the person', <Erasing before={before.data} />)}
          {before.data.eraser === 'KEEPER' && student && (
            <p className="tiny muted above-3 below-0">
              To erase this person altogether, ask the school keeper: the account is also used in classes that you do
              not lead.
            </p>
          )}
          {way === 'ERASE' && (
            <TextInput
              mt="md"
              label={`Type the username ${before.data.username} to erase for ever`}
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
              autoComplete="off"
              autoCapitalize="none"
            />
          )}
          <Wrong says={leave.problem} />
          <p className="row above-4 below-0">
            <Button
              go
              disabled={leave.busy || (way === 'ERASE' && typed.trim().toLowerCase() !== before.data.username)}
              onClick={() => leave.run()}
            >
              {way === 'ERASE' ? 'Erase for ever' : way === 'KEEP' ? 'End it' : 'Let it go along'}
            </Button>
            <Button onClick={onClose}>{t.cancel}</Button>
          </p>
        </>
      )}
    </Modal>
  );
}

function Erasing({ before }: { before: BeforeLeaving }) {
  const mentions = before.all.mentions ?? 0;
  return (
    <>
      The account and {counted(before.all)} in all classes are gone for ever, with the comments of others on those
      posts. This cannot be undone, not from any place in the school.
      {mentions > 0 && (
        <>
          {' '}
          {t.count(mentions, 'text', 'texts')} of other people in which the full name stands{' '}
          {mentions === 1 ? 'stays' : 'stay'}; search for the name to change them.
        </>
      )}
    </>
  );
}
