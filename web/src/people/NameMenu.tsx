import { Menu, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { postJson } from '../api/client';
import { meOptions, peopleOptions } from '../api/queries';
import type { NewPhrase } from '../api/schema';
import { useBorrowEyes, useEyes } from '../app/eyes';
import { isStaff, manages } from '../app/useClass';
import css from './People.module.css';

interface NameMenuProps {
  classId: number;
  /** The number of the person's place in the class; or {@link NameMenuProps.person}. */
  place?: number;
  /** The number of the account, where staff have it. */
  person?: number;
  name: string;
  children: ReactNode;
}

/** A student's name wherever it stands; for staff with what they can do about the account beside it. */
export function NameMenu({ classId: id, place, person: account, name, children }: NameMenuProps) {
  const { data: me } = useQuery(meOptions);
  const eyes = useEyes();
  const of = me?.classes.find((c) => c.id === id);
  const role = eyes || !of ? '' : of.role;
  const [open, setOpen] = useState(false);
  const [phrase, setPhrase] = useState<NewPhrase | null>(null);
  const people = useQuery({ ...peopleOptions(id), enabled: open });
  const borrow = useBorrowEyes();
  const person = people.data?.find((p) => (account ? p.id === account : p.place === place));
  if (!of || !isStaff(role) || (!place && !account)) return <>{children}</>;
  return (
    <span className={css.named}>
      <span>{children}</span>
      <Menu position="bottom-start" width={260} opened={open} onChange={setOpen}>
        <Menu.Target><button className={css.more} aria-label={`What to do about ${name}`}><svg width="10" height="6" aria-hidden="true"><path d="M1 1l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.6" /></svg></button></Menu.Target>
        <Menu.Dropdown>
          {(person || place) && <Menu.Item component={Link} to={`/classes/${id}/persons/${person?.place ?? place}`}>All that {name} wrote</Menu.Item>}
          {person?.role === 'STUDENT' && <Menu.Item onClick={() => borrow({ classId: id, className: of.name, of: person.place, name: person.name, role: 'STUDENT' })}>Look through their eyes</Menu.Item>}
          {manages(role) && person?.role === 'STUDENT' && person.state !== 'left' && (
            <>
              <Menu.Item onClick={async () => setPhrase(await postJson<NewPhrase>(`/api/classes/${id}/people/${person.id}/pass-phrase`))}>Give a new pass phrase</Menu.Item>
              <Menu.Item component="a" href={`/api/classes/${id}/slips.pdf?person=${person.id}`} target="_blank">Print the slip</Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      <PhraseNote phrase={phrase} name={name} onClose={() => setPhrase(null)} />
    </span>
  );
}

/** A new pass phrase, to be read aloud or printed. */
export function PhraseNote({ phrase, name, onClose }: { phrase: NewPhrase | null; name: string; onClose: () => void }) {
  return (
    <Modal opened={phrase !== null} onClose={onClose} title={`A new pass phrase for ${name}`}>
      <p style={{ margin: 0 }} className="muted">Username</p><p style={{ margin: '0 0 12px', fontSize: 20 }}>{phrase?.username}</p>
      <p style={{ margin: 0 }} className="muted">Pass phrase</p><p style={{ margin: '0 0 12px', fontSize: 20 }}>{phrase?.phrase}</p>
      <p className="tiny muted">The old one no longer works. The slip can be printed until the first sign-in.</p>
    </Modal>
  );
}
