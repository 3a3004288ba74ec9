import { useState } from 'react';
import { Word } from './Word';

/** An address to paste elsewhere; it leads through sign-in to this place, also when a blog has got another address since. */
export function LastingLink({ path }: { path: string }) {
  return (
    <div className="tiny">
      <input
        className="slip muted"
        readOnly
        aria-label="Lasting link"
        value={window.location.origin + path}
        onFocus={(e) => e.target.select()}
      />
      <span className="block above-1">
        <CopyLink path={path} word="Copy" />
      </span>
    </div>
  );
}

/** Copies an address of this school. */
export function CopyLink({ path, word = 'Copy its lasting link' }: { path: string; word?: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <Word
      onClick={() =>
        navigator.clipboard.writeText(window.location.origin + path).then(
          () => setCopied(true),
          () => {},
        )
      }
    >
      {copied ? 'Copied' : word}
    </Word>
  );
}

/** The number of a post in its address, also in the lasting one; not a number in what is none. */
export const numberIn = (address: string) => Number(/posts\/(\d+)/.exec(address)?.[1] ?? Number.NaN);
