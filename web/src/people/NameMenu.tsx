import { Menu, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactElement, type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { postJson } from '../api/client';
import { meOptions, peopleOptions } from '../api/queries';
import type { NewPhrase } from '../api/schema';
import { useWrite } from '../api/write';
import { useBorrowEyes, useEyes } from '../session/eyes';

import { t } from '../texts/en';
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
export function NameMenu(props: NameMenuProps) {
  const { classId: id, place, person, name, children } = props;
  const { data: me } = useQuery(meOptions);
  const eyes = useEyes();
  const of = me?.classes.find((c) => c.id === id);
  const [open, setOpen] = useState(false);
  if (eyes || !of || !of.staff || (!place && !person)) return <>{children}</>;
  const opener = (
    <button
      type="button"
      className={css.more}
      aria-label={`What to do about ${name}`}
      aria-haspopup="menu"
      onClick={() => setOpen(true)}
    >
      <svg width="10" height="6" aria-hidden="true">
        <path d="M1 1l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.6" />
      </svg>
    </button>
  );
  // The menu itself is made only when it is asked for: long lists hold many names.
  return (
    <span className={css.named}>
      <span>{children}</span>
      {open ? (
        <Acts {...props} className={of.name} manages={of.manages} opener={opener} onClosed={() => setOpen(false)} />
      ) : (
        opener
      )}
    </span>
  );
}

interface ActsProps extends NameMenuProps {
  className: string;
  manages: boolean;
  opener: ReactNode;
  onClosed: () => void;
}

function Acts({ classId: id, className, manages, place, person: account, name, opener, onClosed }: ActsProps) {
  const [phrase, setPhrase] = useState<NewPhrase | null>(null);
  const [open, setOpen] = useState(true);
  const people = useQuery(peopleOptions(id));
  const borrow = useBorrowEyes();
  const renew = useWrite((of: number) => postJson<NewPhrase>(`/api/classes/${id}/people/${of}/pass-phrase`), {
    onDone: setPhrase,
  });
  const person = people.data?.find((p) => (account ? p.id === account : p.place === place));
  return (
    <>
      <Menu position="bottom-start" width={260} opened={open} onChange={setOpen} onClose={() => setOpen(false)}>
        <Menu.Target>{opener as ReactElement}</Menu.Target>
        <Menu.Dropdown>
          {(person || place) && (
            <Menu.Item component={Link} to={`/classes/${id}/persons/${person?.place ?? place}`} onClick={onClosed}>
              All that {name} wrote
            </Menu.Item>
          )}
          {person?.role === 'STUDENT' && (
            <Menu.Item
              onClick={() => borrow({ classId: id, className, of: person.place, name: person.name, role: 'STUDENT' })}
            >
              Look through their eyes
            </Menu.Item>
          )}
          {manages && person?.role === 'STUDENT' && person.state !== 'left' && (
            <>
              {person.care ? (
                <Menu.Item onClick={() => renew.run(person.id)}>Give a new pass phrase</Menu.Item>
              ) : (
                <Menu.Label>{t.keeperCares}</Menu.Label>
              )}
              <Menu.Item component="a" href={`/api/classes/${id}/slips.pdf?person=${person.id}`} target="_blank">
                Print the slip
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      <PhraseNote phrase={phrase} name={name} onClose={() => setPhrase(null)} />
    </>
  );
}

/** A new pass phrase, to be read aloud or printed. */
export function PhraseNote({ phrase, name, onClose }: { phrase: NewPhrase | null; name: string; onClose: () => void }) {
  return (
    <Modal opened={phrase !== null} onClose={onClose} title={`A new pass phrase for ${name}`}>
      <p className="muted above-0 below-0">Username</p>
      <p className="said-large above-0 below-3">{phrase?.username}</p>
      <p className="muted above-0 below-0">Pass phrase</p>
      <p className="said-large above-0 below-3">{phrase?.phrase}</p>
      <p className="tiny muted">The old one no longer works. The slip can be printed until the first sign-in.</p>
    </Modal>
  );
}
