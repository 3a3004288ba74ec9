import { Modal } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { searchPage } from '../api/queries';
import { When } from '../ui/When';
import { Incomplete, Snippet } from './Hits';
import css from './Search.module.css';

export interface PlaceToGo {
  to: string;
  word: string;
}

interface Row {
  to: string;
  /** What is done instead of going there. */
  act?: () => void;
  key: string;
  show: React.ReactNode;
}

/** So many places stand there before anything is typed. */
const SHOWN = 7;

const BRING_IN = 'Bring in writing from elsewhere';
/** What somebody pastes who means a place outside. */
const isAddress = (text: string) => /^(https?:|feed:)\S+$|^[^\s@]+\.[a-z]{2,}(\/\S*)?$/i.test(text);

const NAMED: Record<string, string> = { person: 'person', blog: 'blog', prompt: 'prompt' };

interface SearchDialogProps {
  classId?: number;
  /** The places of the class, which can be gone to by their names. */
  places: PlaceToGo[];
  /** Opens the box that takes an address from outside; left out where nothing can be brought in. */
  onBringIn?: (pasted: string) => void;
  onClose: () => void;
}

/** Go to anything: as one types, places, pages and what one can do there, people, blogs, prompts and the first texts that have the words. */
export function SearchDialog({ classId, places, onBringIn, onClose }: SearchDialogProps) {
  const navigate = useNavigate();
  const [q, setQ] = useState('');
  const [at, setAt] = useState(0);
  const [asked] = useDebouncedValue(q.trim(), 120);
  const { data } = useQuery({
    queryKey: ['search-first', asked, classId],
    queryFn: ({ signal }) => searchPage({ q: asked, class: classId, most: 5 }, signal),
    enabled: asked.length > 0,
    placeholderData: (before) => before,
  });
  const typed = q.trim().toLowerCase();
  const rows: Row[] = places
    .filter((p, i) =>
      typed
        ? p.word
            .toLowerCase()
            .split(' ')
            .some((_, n, words) => words.slice(n).join(' ').startsWith(typed))
        : i < SHOWN,
    )
    .map((p) => ({ to: p.to, key: p.to, show: <b>{p.word}</b> }));
  const address = isAddress(q.trim());
  if (onBringIn && typed && (address || BRING_IN.toLowerCase().startsWith(typed)))
    rows.unshift({
      to: '',
      key: 'bring-in',
      act: () => onBringIn(address ? q.trim() : ''),
      show: (
        <>
          <b>{BRING_IN}</b>
          {address && <span>{q.trim()}</span>}
        </>
      ),
    });
  if (typed && data) {
    for (const n of data.named)
      rows.push({
        to: n.to,
        key: n.kind + n.to,
        show: (
          <>
            <b>{n.name}</b>
            <span>
              {NAMED[n.kind]} · {n.more}
            </span>
          </>
        ),
      });
    for (const h of data.hits)
      rows.push({
        to: `/classes/${h.classId}/posts/${h.postId}`,
        key: `${h.kind}${h.postId}${h.file ?? ''}${h.at}`,
        show: (
          <>
            <b>
              {h.kind === 'comment' ? 'Comment on ' : ''}
              {h.title}
            </b>
            <span>
              {h.author} · <When at={h.at} />
            </span>
            <i>
              <Snippet stretches={h.snippet} />
            </i>
          </>
        ),
      });
    if (classId && asked)
      rows.push({
        to: `/classes/${classId}/search?q=${encodeURIComponent(q.trim())}`,
        key: 'all',
        show: <b>All that has “{q.trim()}”</b>,
      });
  }
  const chosen = Math.min(at, rows.length - 1);
  const go = (row?: Row) => {
    if (!row) return;
    onClose();
    if (row.act) row.act();
    else navigate(row.to);
  };
  const hear = (e: React.KeyboardEvent) => {
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      e.preventDefault();
      setAt(Math.max(0, Math.min(rows.length - 1, chosen + (e.key === 'ArrowDown' ? 1 : -1))));
    }
    if (e.key === 'Enter') go(rows[chosen]);
  };
  return (
    <Modal opened onClose={onClose} title="Search" size="lg" yOffset="8vh">
      <input
        className={css.field}
        role="combobox"
        aria-expanded={rows.length > 0}
        aria-controls="found"
        aria-activedescendant={rows[chosen] ? `found-${chosen}` : undefined}
        aria-label="Search, or go to a place"
        placeholder="A word, a name, a page, something to do"
        autoFocus
        data-autofocus
        value={q}
        onChange={(e) => {
          setQ(e.target.value);
          setAt(0);
        }}
        onKeyDown={hear}
      />
      <div id="found" role="listbox" aria-label="Found" className={css.rows}>
        {rows.map((row, i) => (
          // biome-ignore lint/a11y: the field above holds the focus and names the chosen one; its arrows and Enter do the rest
          <div
            key={row.key}
            id={`found-${i}`}
            role="option"
            aria-selected={i === chosen}
            onMouseEnter={() => setAt(i)}
            onClick={() => go(row)}
          >
            {row.show}
          </div>
        ))}
      </div>
      {typed && asked === q.trim() && data && rows.length === 1 && (
        <p className="muted tiny">Nothing that you may read begins so.</p>
      )}
      {typed && data && !data.complete && <Incomplete />}
    </Modal>
  );
}
