import { CopyButton } from '@mantine/core';
import { useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import type { FeedAddress as Address } from '../api/schema';
import { useWrite } from '../api/write';
import { Word } from '../ui/Word';

const FORMATS = [
  { value: 'rss', label: 'RSS' },
  { value: 'atom', label: 'Atom' },
  { value: 'json', label: 'JSON' },
];

/**
 * The reader's own secret feed address of a class, made when it is asked for: of all of it, of what the page is narrowed
 * to, of the comments, or of what is due.
 *
 * @param due whether it is about what is due alone
 * @param filter as it stands behind the question mark of a feed's address; empty where the page shows everything
 */
export function FeedAddress({ classId, filter, due = false }: { classId: number; filter: string; due?: boolean }) {
  const [path, setPath] = useState('');
  const [said, setSaid] = useState('');
  const [format, setFormat] = useState('rss');
  const [what, setWhat] = useState(due ? 'due' : 'posts');
  const show = ({ path }: Address) => {
    setPath(path);
    setSaid('');
  };
  const key = `/api/classes/${classId}/feed-key`;
  const make = useWrite(() => postJson<Address>(key), { onDone: show });
  const renew = useWrite(() => putJson<Address>(key), {
    onDone: (fresh) => {
      show(fresh);
      setSaid('This is a new address. The one before no longer works.');
    },
  });
  const end = useWrite(() => deleteJson(key), {
    onDone: () => {
      setPath('');
      setSaid('This address no longer works. You can make a new one.');
    },
  });
  if (!path)
    return (
      <p className="tiny muted above-0 below-0">
        {said}{' '}
        <Word tiny onClick={() => make.run()}>
          {due ? 'Have what is due in my calendar' : 'Show my feed address'}
        </Word>
      </p>
    );
  const bare = path.replace(/\.rss$/, what === 'comments' ? '/comments' : '');
  const ending = what === 'due' ? 'ics' : `${format}${what === 'shown' && filter ? `?${filter}` : ''}`;
  const address = `${window.location.origin}${bare}.${ending}`;
  return (
    <div className="tiny">
      {!due && (
        <p className="row above-0 below-2">
          <select
            className="pick"
            aria-label="What the feed carries"
            value={what === 'shown' && !filter ? 'posts' : what}
            onChange={(e) => setWhat(e.target.value)}
          >
            <option value="posts">all posts</option>
            {filter && <option value="shown">what is chosen here</option>}
            <option value="comments">comments</option>
            <option value="due">what is due, as a calendar</option>
          </select>
          {what !== 'due' && (
            <select
              className="pick"
              aria-label="Format of the feed"
              value={format}
              onChange={(e) => setFormat(e.target.value)}
            >
              {FORMATS.map((f) => (
                <option key={f.value} value={f.value}>
                  {f.label}
                </option>
              ))}
            </select>
          )}
        </p>
      )}
      <input
        className="slip"
        readOnly
        value={address}
        aria-label="My feed address"
        onFocus={(e) => e.target.select()}
      />
      <p className="muted above-2 below-2">
        {said}{' '}
        {what === 'due'
          ? 'Give it to your calendar as a calendar from the web; it looks here by itself. '
          : 'It shows just what you may read. '}
        Do not give it away: whoever has it reads as you.
      </p>
      <p className="row above-0 below-0">
        <CopyButton value={address}>
          {({ copied, copy }) => (
            <Word tiny onClick={copy}>
              {copied ? 'Copied' : 'Copy'}
            </Word>
          )}
        </CopyButton>
        <Word tiny onClick={() => renew.run()}>
          Make a new one
        </Word>
        <Word tiny onClick={() => end.run()}>
          End it
        </Word>
      </p>
    </div>
  );
}
