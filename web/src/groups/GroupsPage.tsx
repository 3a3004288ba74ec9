import { NumberInput, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type DragEvent, useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import { classOptions, peopleOptions } from '../api/queries';
import type { MemberLine, Move, Moves } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Groups.module.css';

const NONE = 0;

/** Something that is done to the groups; with what it says, it can be undone. */
interface Act {
  says?: string;
  call: () => Promise<Moves | undefined>;
}

/** Who is in which group: pick students and move them, drag them, or split the class. Every change can be undone. */
export function GroupsPage() {
  const { id, name } = useClass();
  const people = useQuery(peopleOptions(id));
  const of = useQuery(classOptions(id));
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [undo, setUndo] = useState<{ says: string; moves: Move[] } | null>(null);
  const students = (people.data ?? []).filter((p) => p.role === 'STUDENT' && p.state !== 'left');
  const act = useWrite(({ call }: Act) => call(), {
    here: true,
    stale: [[]],
    onDone: (back, { says }) => {
      setUndo(back && says ? { says, moves: back.moves } : null);
      setPicked(new Set());
    },
  });
  const moveTo = (people: number[], groupId: number, to: string) =>
    act.run({
      says: `${t.count(people.length, 'student', 'students')} moved to ${to}.`,
      call: () =>
        postJson<Moves>(`/api/classes/${id}/groups/moves`, { moves: [{ people, groupId: groupId || undefined }] }),
    });
  const pick = (person: number) =>
    setPicked((before) => {
      const next = new Set(before);
      if (!next.delete(person)) next.add(person);
      return next;
    });
  if (people.isError)
    return (
      <div className="page wide">
        <Trouble error={people.error} onRetry={() => people.refetch()} />
      </div>
    );
  if (!people.data || !of.data)
    return (
      <div className="page wide">
        <Loading lines={8} />
      </div>
    );
  const groups = [...of.data.groups, { id: NONE, name: 'In no group' }];
  return (
    <div className="page wide">
      <title>{`Groups · ${name}`}</title>
      <main>
        <h1>Groups</h1>
        <p className="muted above-1 below-0">
          Pick students and choose where they go, or drag them. A group can have its own blog.
        </p>
        <div className={css.bar} role="region" aria-label="What to do with the groups">
          {picked.size > 0 ? (
            <>
              <b>{t.count(picked.size, 'student', 'students')} picked, move to</b>
              {groups.map((g) => (
                <Button className="slim" key={g.id} onClick={() => moveTo([...picked], g.id, g.name.toLowerCase())}>
                  {g.name}
                </Button>
              ))}
              <Word onClick={() => setPicked(new Set())}>Put back</Word>
            </>
          ) : (
            <>
              <NewGroup
                onAdd={(wanted) => act.run({ call: () => postJson(`/api/classes/${id}/groups`, { name: wanted }) })}
              />
              <Split
                students={students.length}
                onSplit={(n, atRandom) =>
                  act.run({
                    says: `The class is split into ${t.count(n, 'group', 'groups')}.`,
                    call: () => postJson<Moves>(`/api/classes/${id}/groups/split`, { people: [], groups: n, atRandom }),
                  })
                }
              />
            </>
          )}
        </div>
        <Wrong says={act.problem} />
        {undo && (
          <p className="tell above-4 below-0" role="status">
            {undo.says}{' '}
            <Word
              onClick={() =>
                act.run({ call: () => postJson(`/api/classes/${id}/groups/moves`, { moves: undo.moves }) })
              }
            >
              Undo
            </Word>
          </p>
        )}
        <div className={css.groups}>
          {groups.map((g) => (
            <Group
              key={g.id}
              id={g.id}
              name={g.name}
              members={students.filter((p) => (p.groupId ?? NONE) === g.id)}
              picked={picked}
              onPick={pick}
              onDrop={(person) => moveTo(picked.has(person) ? [...picked] : [person], g.id, g.name.toLowerCase())}
              onRename={(wanted) => act.run({ call: () => putJson(`/api/groups/${g.id}`, { name: wanted }) })}
              onRemove={() => act.run({ call: () => deleteJson(`/api/groups/${g.id}`) })}
            />
          ))}
        </div>
      </main>
    </div>
  );
}

interface GroupProps {
  id: number;
  name: string;
  members: MemberLine[];
  picked: ReadonlySet<number>;
  onPick: (person: number) => void;
  onDrop: (person: number) => void;
  onRename: (name: string) => void;
  onRemove: () => void;
}

function Group({ id, name, members, picked, onPick, onDrop, onRename, onRemove }: GroupProps) {
  const [over, setOver] = useState(false);
  const [renaming, setRenaming] = useState<string | null>(null);
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    const person = Number(e.dataTransfer.getData('text/x-person'));
    if (person) onDrop(person);
  };
  return (
    <section
      className={css.group}
      data-over={over || undefined}
      aria-label={name}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <header>
        {renaming === null ? (
          <h2>{name}</h2>
        ) : (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              onRename(renaming);
              setRenaming(null);
            }}
          >
            <TextInput
              size="xs"
              aria-label="Name of the group"
              value={renaming}
              autoFocus
              onChange={(e) => setRenaming(e.target.value)}
              onBlur={() => setRenaming(null)}
            />
          </form>
        )}
        <span className="muted tiny">{members.length}</span>
        {id !== NONE && renaming === null && (
          <span className="tiny push">
            <Word tiny onClick={() => setRenaming(name)} aria-label={`Rename ${name}`}>
              Rename
            </Word>
            {members.length === 0 && (
              <>
                {' '}
                ·{' '}
                <Word tiny onClick={onRemove} aria-label={`Remove ${name}`}>
                  Remove
                </Word>
              </>
            )}
          </span>
        )}
      </header>
      {members.map((p) => (
        <button
          type="button"
          key={p.id}
          className={css.member}
          aria-pressed={picked.has(p.id)}
          draggable
          onDragStart={(e) => {
            e.dataTransfer.setData('text/x-person', String(p.id));
            e.dataTransfer.effectAllowed = 'move';
          }}
          onClick={() => onPick(p.id)}
        >
          {p.sortName}
        </button>
      ))}
      {members.length === 0 && <p className="muted tiny above-2 below-2">Nobody</p>}
    </section>
  );
}

function NewGroup({ onAdd }: { onAdd: (name: string) => void }) {
  const [name, setName] = useState('');
  return (
    <form
      className="row"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim()) {
          onAdd(name);
          setName('');
        }
      }}
    >
      <TextInput
        className="w-word"
        aria-label="Name of a new group"
        placeholder="New group"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit" disabled={!name.trim()}>
        Add
      </Button>
    </form>
  );
}

function Split({ students, onSplit }: { students: number; onSplit: (groups: number, atRandom: boolean) => void }) {
  const [groups, setGroups] = useState<number | string>(Math.max(2, Math.round(students / 4)));
  const n = Number(groups) || 1;
  return (
    <div className="row middle wrap push">
      <span className="muted">Split the class into</span>
      <NumberInput
        className="w-number"
        aria-label="Number of groups"
        value={groups}
        min={1}
        max={60}
        onChange={setGroups}
      />
      <Button onClick={() => onSplit(n, true)}>At random</Button>
      <Button onClick={() => onSplit(n, false)}>In order of the list</Button>
    </div>
  );
}
