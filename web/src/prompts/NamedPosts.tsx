import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postOptions } from '../api/queries';
import { Button } from '../ui/Button';
import { numberIn } from '../ui/LastingLink';
import { Word } from '../ui/Word';
import css from './Compose.module.css';

/** The posts that are to be answered with comments; named by pasting their links. */
export function NamedPosts({ named, onName }: { named: number[]; onName: (posts: number[]) => void }) {
  const [link, setLink] = useState('');
  const [wrong, setWrong] = useState('');
  const add = () => {
    const id = numberIn(link);
    if (Number.isNaN(id)) return setWrong('Paste the lasting link of a post; it stands beside the post.');
    if (!named.includes(id)) onName([...named, id]);
    setLink('');
    setWrong('');
  };
  return (
    <div>
      <div className={css.naming}>
        <TextInput
          label="Only under certain posts: paste their links"
          value={link}
          error={wrong}
          onChange={(e) => setLink(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return;
            e.preventDefault();
            add();
          }}
        />
        <Button onClick={add}>Name it</Button>
      </div>
      {named.length > 0 && (
        <ul className={css.named} aria-label="Posts to answer">
          {named.map((id) => (
            <Named key={id} id={id} onTake={() => onName(named.filter((n) => n !== id))} />
          ))}
        </ul>
      )}
    </div>
  );
}

function Named({ id, onTake }: { id: number; onTake: () => void }) {
  const { data, isError } = useQuery(postOptions(id));
  const title = data?.title ?? (isError ? 'This post is not there' : '…');
  return (
    <li>
      {title}{' '}
      <Word tiny onClick={onTake} aria-label={`Take out: ${title}`}>
        Take out
      </Word>
    </li>
  );
}
