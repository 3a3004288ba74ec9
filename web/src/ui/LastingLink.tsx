import { useState } from 'react';
import { Word } from './Word';

/** An address to paste elsewhere; it leads through sign-in to this place, also when a blog has got another address since. */
export function LastingLink({ path }: { path: string }) {
  return (
    <div className="tiny">
      <input
        readOnly
        aria-label="Lasting link"
        value={window.location.origin + path}
        onFocus={(e) => e.target.select()}
        style={{
          font: 'inherit',
          width: '100%',
          padding: '4px 8px',
          border: '1px solid var(--line)',
          borderRadius: 4,
          background: 'var(--paper)',
          color: 'var(--ink-2)',
        }}
      />
      <span style={{ display: 'block', marginTop: 4 }}>
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
