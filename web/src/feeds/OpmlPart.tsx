import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { postJson, sentenceOf } from '../api/client';
import type { OpmlLine } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { useOwners } from './CandidateCard';
import css from './Sources.module.css';

interface Row extends OpmlLine {
  owner: string;
  said: string;
}

const LEFT = 'left';

async function base64(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let i = 0; i < bytes.length; i += 8_192) text += String.fromCharCode(...bytes.subarray(i, i + 8_192));
  return btoa(text);
}

/** A list of feeds (OPML): looked at line by line, then gathered; and the list of what is gathered, to take along. */
export function OpmlPart({ classId }: { classId: number }) {
  const input = useRef<HTMLInputElement>(null);
  const owners = useOwners(classId);
  const client = useQueryClient();
  const [rows, setRows] = useState<Row[] | null>(null);
  const [busy, setBusy] = useState(false);
  const look = useWrite(
    async (file: File) => postJson<OpmlLine[]>(`/api/classes/${classId}/sources/opml`, { file: await base64(file) }),
    {
      here: true,
      onDone: (lines) => setRows(lines.map((l) => ({ ...l, owner: l.says ? LEFT : 'news', said: l.says }))),
    },
  );
  const change = (i: number, to: Partial<Row>) =>
    setRows((before) => before?.map((row, n) => (n === i ? { ...row, ...to } : row)) ?? null);
  const wanted = rows?.filter((r) => r.owner !== LEFT && !r.said).length ?? 0;
  // One after the other: each asks a server, and says for itself how it went.
  const gather = async () => {
    setBusy(true);
    for (const [i, row] of (rows ?? []).entries()) {
      if (row.owner === LEFT || row.said) continue;
      change(i, { said: 'Looking…' });
      try {
        await postJson(`/api/classes/${classId}/sources`, {
          feedAddress: row.feedAddress,
          siteAddress: row.siteAddress,
          title: row.title,
          description: '',
          personId: row.owner === 'news' ? undefined : Number(row.owner),
        });
        change(i, { said: 'Gathered.', says: 'Gathered.', owner: LEFT });
      } catch (e) {
        change(i, { said: sentenceOf(e) });
      }
    }
    setBusy(false);
    await client.invalidateQueries({ queryKey: ['sources', classId] });
  };
  return (
    <section className="above-6">
      <h2>Lists of feeds</h2>
      <p className="row wide above-1 below-0">
        <Word onClick={() => input.current?.click()}>Bring in a list (OPML)</Word>
        <a className="word" href={`/api/classes/${classId}/sources.opml`} download>
          Take the list along (OPML)
        </a>
      </p>
      <input
        ref={input}
        type="file"
        hidden
        accept=".opml,.xml,text/x-opml,text/xml"
        aria-label="List of feeds"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) look.run(file);
        }}
      />
      <Wrong says={look.problem} />
      {rows && (
        <div className={css.candidate} role="status">
          <p className="muted less above-0 below-2">
            {t.count(rows.length, 'line', 'lines')} read. Nothing is gathered yet: say whose each is, or leave it.
          </p>
          {rows.map((row, i) => (
            <div className="ruled-above inside-2 foot-2 row wide wrap less" key={`${row.feedAddress}${row.title}${i}`}>
              <span className="grow">
                {row.title}{' '}
                <span className="muted tiny">{[row.folder, row.feedAddress].filter(Boolean).join(' · ')}</span>
                {row.said && <span className="tiny"> {row.said}</span>}
              </span>
              {!row.says && (
                <select
                  className="pick"
                  aria-label={`Whose it is: ${row.title}`}
                  value={row.owner}
                  onChange={(e) => change(i, { owner: e.target.value, said: '' })}
                >
                  <option value={LEFT}>leave it</option>
                  {owners.map((o) => (
                    <option key={o.value} value={o.value}>
                      {o.label}
                    </option>
                  ))}
                </select>
              )}
            </div>
          ))}
          <p className="row above-3 below-0">
            <Button go onClick={gather} disabled={busy || wanted === 0}>
              {busy ? 'Gathering' : `Gather ${wanted}`}
            </Button>
            <Word onClick={() => setRows(null)}>Close</Word>
          </p>
        </div>
      )}
    </section>
  );
}
