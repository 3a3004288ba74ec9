import { TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Reference, WorkUsed } from '../api/schema';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';

const EMPTY: WorkUsed = { title: '', author: '', date: '', publisher: '', address: '' };

interface WorksUsedProps {
  works: WorkUsed[];
  /** The list as readers get it. */
  references: Reference[];
  onChange: (works: WorkUsed[]) => void;
}

/** The works that a text rests on, kept beside it; the program makes the list of them. */
export function WorksUsed({ works, references, onChange }: WorksUsedProps) {
  const [work, setWork] = useState<WorkUsed | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const [problem, setProblem] = useState('');
  const close = () => {
    setWork(null);
    setAt(null);
    setProblem('');
  };
  const keep = () => {
    if (!work) return;
    if (!work.title.trim()) return setProblem('A source needs a title.');
    if (work.address && !/^https?:\/\/\S+$/i.test(work.address.trim()))
      return setProblem('The address begins with http:// or https://.');
    onChange(at === null ? [...works, work] : works.map((w, i) => (i === at ? work : w)));
    close();
  };
  const field = (key: keyof WorkUsed, label: string, description?: string) => (
    <TextInput
      size="sm"
      mt={8}
      label={label}
      description={description}
      value={work?.[key] ?? ''}
      autoFocus={key === 'title'}
      error={
        key === 'title' && problem.includes('title')
          ? problem
          : key === 'address' && problem.includes('address')
            ? problem
            : undefined
      }
      onChange={(e) => setWork({ ...work!, [key]: e.target.value })}
      onKeyDown={(e) => {
        if (e.key === 'Enter') {
          e.preventDefault();
          keep();
        }
        if (e.key === 'Escape') close();
      }}
    />
  );
  return (
    <>
      <h2>Sources{references.length > 0 ? ` (${works.length})` : ''}</h2>
      {works.map((w, i) => (
        <p key={i} className="tiny above-0 below-2">
          {w.title}
          {w.author ? <span className="muted"> · {w.author}</span> : null}
          <br />
          <Word
            tiny
            onClick={() => {
              setWork(w);
              setAt(i);
            }}
            aria-label={`Change the source ${w.title}`}
          >
            Change
          </Word>
          {' · '}
          <Word
            tiny
            onClick={() => onChange(works.filter((_, j) => j !== i))}
            aria-label={`Take out the source ${w.title}`}
          >
            Take out
          </Word>
        </p>
      ))}
      {work ? (
        <div role="group" aria-label="A source">
          {field('title', 'Title')}
          {field('author', 'Who wrote it', 'Family name, given name; more with ; between')}
          {field('date', 'Year or day')}
          {field('publisher', 'Published by')}
          {field('address', 'Address on the web')}
          <p className="row above-3 below-0">
            <Button onClick={keep}>{at === null ? 'Add it' : 'Change it'}</Button>
            <Word onClick={close}>Cancel</Word>
          </p>
        </div>
      ) : (
        <Word tiny onClick={() => setWork(EMPTY)}>
          Add a source
        </Word>
      )}
    </>
  );
}
