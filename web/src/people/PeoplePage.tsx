import { Menu, Modal, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { deleteJson, postJson, putJson } from '../api/client';
import { peopleOptions } from '../api/queries';
import type { MemberLine, NewPhrase } from '../api/schema';
import { useWrite } from '../api/write';
import { SlipLinks } from '../enrolment/SlipLinks';
import { ApprovalDialog } from '../moderation/ApprovalDialog';
import { useBorrowEyes } from '../session/eyes';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Chip } from '../ui/Chip';
import { Loading, Trouble } from '../ui/Trouble';
import { useOnPaper } from '../ui/useOnPaper';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { LeaveDialog } from './LeaveDialog';
import { NameDialog } from './NameDialog';
import { PhraseNote } from './NameMenu';
import css from './People.module.css';
import { ShownDialog } from './ShownDialog';

const ROW = 37;
const HELPERS = ['CO_TEACHER', 'ASSISTANT', 'MODERATOR', 'GUEST'];
const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** The people of a class; the list narrows as one types, and stays quick however long it is. */
export function PeoplePage() {
  const { id, name, manages } = useClass();
  const [params, setParams] = useSearchParams();
  const people = useQuery(peopleOptions(id));
  const wanted = params.get('find') ?? '';
  const words = plain(wanted).split(' ').filter(Boolean);
  const left = people.data?.filter((p) => p.state === 'left').length ?? 0;
  const withLeft = params.has('left');
  const shown = (people.data ?? []).filter(
    (p) =>
      (withLeft || p.state !== 'left') &&
      words.every((w) =>
        plain(`${p.name} ${p.penName ?? ''} ${p.username} ${p.group ?? ''} ${t.roles[p.role]}`).includes(w),
      ),
  );
  const set = (key: string, value?: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(key, value);
        else next.delete(key);
        return next;
      },
      { replace: true },
    );
  return (
    <div className="page wide">
      <title>{`People · ${name}`}</title>
      <main>
        <div className="row wide wrap">
          <h1>People</h1>
          {people.data && (
            <span className="muted">
              {wanted ? `${shown.length} shown, ` : ''}
              {t.count(
                people.data.filter((p) => p.role === 'STUDENT' && p.state !== 'left').length,
                'student',
                'students',
              )}
            </span>
          )}
          {manages && (
            <span className="off-paper row wrap wide push">
              <Link className="word" to={`/classes/${id}/people/roster`}>
                Enrol students
              </Link>
              <Link className="word" to={`/classes/${id}/people/ways`}>
                Class word and invitations
              </Link>
              <SlipLinks classId={id} says="Print all slips" />
            </span>
          )}
        </div>
        <div className="row middle wrap wide above-4">
          <TextInput
            className="w-line"
            aria-label="Find by name, username or group"
            placeholder="Find by name, username or group"
            value={wanted}
            onChange={(e) => set('find', e.target.value)}
          />
          {left > 0 && (
            <Chip
              aria-pressed={withLeft}
              onClick={() => set('left', withLeft ? undefined : 'yes')}
            >{`who left ${left}`}</Chip>
          )}
        </div>
        {people.isPending && <Loading lines={8} />}
        {people.isError && <Trouble error={people.error} onRetry={() => people.refetch()} />}
        {people.data && <Rows people={shown} />}
        {people.data && shown.length === 0 && <p className="muted">Nobody here fits “{wanted}”.</p>}
      </main>
    </div>
  );
}

/** Only the rows that are in sight are drawn; on paper that is all of them. */
function Rows({ people }: { people: MemberLine[] }) {
  const top = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: people.length,
    estimateSize: () => ROW,
    overscan: 12,
    getScrollElement: () => top.current,
    getItemKey: (i) => people[i].id,
  });
  const onPaper = useOnPaper();
  const items = onPaper
    ? people.map((p, i) => ({ key: p.id, index: i, start: i * ROW, end: (i + 1) * ROW }))
    : rows.getVirtualItems();
  const [acting, setActing] = useState<Acting>(null);
  return (
    <>
      <div
        className={`${onPaper ? '' : css.list} above-3`}
        ref={top}
        tabIndex={0}
        role="region"
        aria-label="List of people"
      >
        <table className={`rows ${css.people}`} aria-rowcount={people.length + 1}>
          <thead>
            <tr>
              <th>Name</th>
              <th className={css.wide}>Username</th>
              <th className={css.wide}>Role</th>
              <th className={css.wide}>Group</th>
              <th className={css.wide}>Readers see</th>
              <th>Account</th>
              <th>
                <span className="away">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {items.length > 0 && items[0].start > 0 && (
              // biome-ignore lint/a11y/noAriaHiddenOnFocusable: it holds room and nothing else
              <tr aria-hidden="true" style={{ height: items[0].start }}>
                <td className={css.gap} colSpan={7} />
              </tr>
            )}
            {items.map((v) => (
              <Member key={v.key} p={people[v.index]} onAct={setActing} />
            ))}
            {items.length > 0 && (
              // biome-ignore lint/a11y/noAriaHiddenOnFocusable: it holds room and nothing else
              <tr aria-hidden="true" style={{ height: Math.max(0, rows.getTotalSize() - items[items.length - 1].end) }}>
                <td className={css.gap} colSpan={7} />
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <Dialogs acting={acting} onClose={() => setActing(null)} />
    </>
  );
}

/** What is being done about somebody, in a dialog. */
type Acting =
  | { type: 'phrase'; name: string; phrase: NewPhrase }
  | { type: 'shown' | 'name' | 'approval' | 'leave' | 'role'; person: MemberLine }
  | null;

function Member({ p, onAct }: { p: MemberLine; onAct: (acting: Acting) => void }) {
  const { id, name: className, manages } = useClass();
  const borrow = useBorrowEyes();
  const student = p.role === 'STUDENT';
  const isLeft = p.state === 'left';
  const takeBack = useWrite(() => deleteJson(`/api/classes/${id}/people/${p.id}/leaving`), { stale: [[]] });
  const renew = useWrite(() => postJson<NewPhrase>(`/api/classes/${id}/people/${p.id}/pass-phrase`), {
    onDone: (phrase) => onAct({ type: 'phrase', name: p.name, phrase }),
  });
  const shownAs = !student ? '' : p.nameAsked ? 'A new student' : p.shown === 'OWN_NAME' ? 'own name' : p.shownAs;
  return (
    <tr className={isLeft ? css.left : undefined}>
      <td>
        {student ? (
          <Link to={`/classes/${id}/persons/${p.place}`} className="word plain-weight">
            {p.sortName}
          </Link>
        ) : (
          p.sortName
        )}
        <span className={css.narrow}>{[t.roles[p.role], p.group, p.username].filter(Boolean).join(' · ')}</span>
      </td>
      <td className={css.wide}>{p.username}</td>
      <td className={`muted ${css.wide}`}>{t.roles[p.role]}</td>
      <td className={css.wide}>{p.group}</td>
      <td className={`${css.wide} ${p.shown === 'PEN_NAME' ? '' : 'muted'}`}>
        {shownAs}
        {p.shown === 'PEN_NAME' && student ? <span className="muted"> (pen name)</span> : ''}
        {p.nameAsked && (
          <span className={css.asked}>
            {manages ? (
              <Word onClick={() => onAct({ type: 'name', person: p })}>look at the name</Word>
            ) : (
              'the name waits'
            )}
          </span>
        )}
      </td>
      <td className="muted">
        {isLeft && p.leftAt ? (
          <>
            left <When at={p.leftAt} />
            {p.leaving === 'HAND_OVER' ? ' with the writing' : ''}
          </>
        ) : p.state === 'slip' ? (
          'has not signed in yet'
        ) : (
          'signed in'
        )}
      </td>
      <td className="right flush">
        {isLeft && manages && p.mayReturn && (
          <Word onClick={() => takeBack.run()} aria-label={`Take back ${p.name}`}>
            Take back
          </Word>
        )}
        {!isLeft && p.role !== 'LEAD' && (
          <Menu position="bottom-end" width={270}>
            <Menu.Target>
              <Word aria-label={`More for ${p.name}`}>More</Word>
            </Menu.Target>
            <Menu.Dropdown>
              {(student || p.role === 'GUEST') && (
                <Menu.Item
                  onClick={() =>
                    borrow({ classId: id, className, of: p.place, name: p.name, role: p.role as 'STUDENT' | 'GUEST' })
                  }
                >
                  Look through their eyes
                </Menu.Item>
              )}
              {manages && p.nameAsked && (
                <Menu.Item onClick={() => onAct({ type: 'name', person: p })}>Let the name show</Menu.Item>
              )}
              {manages && student && p.care && (
                <Menu.Item onClick={() => renew.run()}>Give a new pass phrase</Menu.Item>
              )}
              {manages && student && !p.care && <Menu.Label>{t.keeperCares}</Menu.Label>}
              {manages && student && (
                <Menu.Item component="a" href={`/api/classes/${id}/slips.pdf?person=${p.id}`} target="_blank">
                  Print the slip
                </Menu.Item>
              )}
              {manages && student && (
                <Menu.Item onClick={() => onAct({ type: 'approval', person: p })}>
                  How their texts are approved
                </Menu.Item>
              )}
              {manages && student && (
                <Menu.Item onClick={() => onAct({ type: 'shown', person: p })}>The name that readers see</Menu.Item>
              )}
              {manages && !student && (
                <Menu.Item onClick={() => onAct({ type: 'role', person: p })}>Change the role</Menu.Item>
              )}
              {manages && (
                <Menu.Item onClick={() => onAct({ type: 'leave', person: p })}>
                  {student ? 'End the enrolment' : 'Take out of the class'}
                </Menu.Item>
              )}
            </Menu.Dropdown>
          </Menu>
        )}
      </td>
    </tr>
  );
}

function Dialogs({ acting, onClose }: { acting: Acting; onClose: () => void }) {
  if (acting?.type === 'phrase') return <PhraseNote phrase={acting.phrase} name={acting.name} onClose={onClose} />;
  if (acting?.type === 'name') return <NameDialog person={acting.person} onClose={onClose} />;
  if (acting?.type === 'approval') return <ApprovalDialog person={acting.person} onClose={onClose} />;
  if (acting?.type === 'shown') return <ShownDialog person={acting.person} onClose={onClose} />;
  if (acting?.type === 'leave') return <LeaveDialog person={acting.person} onClose={onClose} />;
  if (acting?.type === 'role') return <RoleDialog person={acting.person} onClose={onClose} />;
  return null;
}

function RoleDialog({ person, onClose }: { person: MemberLine; onClose: () => void }) {
  const { id } = useClass();
  const choose = useWrite((role: string) => putJson(`/api/classes/${id}/people/${person.id}/role`, { role }), {
    stale: [[]],
    onDone: onClose,
  });
  return (
    <Modal opened onClose={onClose} title={`What ${person.name} is here`}>
      {HELPERS.map((r) => (
        <Button
          className={`${css.role} below-2`}
          key={r}
          aria-pressed={person.role === r}
          onClick={() => choose.run(r)}
        >
          <span className={css.roleName}>{t.roles[r]}</span>
          <span className="tiny muted plain-weight">{t.roleDoes[r]}</span>
        </Button>
      ))}
    </Modal>
  );
}
