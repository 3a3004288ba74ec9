import { Textarea } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { postJson, putJson } from '../api/client';
import { samenessOptions } from '../api/queries';
import type { SameCommon, SameLine, SamePair, SameText, SameTexts } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { useKeys } from '../ui/keys';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Sameness.module.css';

/** Which answers to a prompt share passages, two at a time. */
export function SamenessPage() {
  const { id } = useClass();
  const promptId = Number(useParams().promptId);
  const [params, setParams] = useSearchParams();
  const { data, error, refetch } = useQuery(samenessOptions(promptId));
  const [asides, setAsides] = useState(false);
  if (!data)
    return (
      <div className="page plain">{error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />}</div>
    );
  const student = Number(params.get('student') ?? 0);
  const isOf = (p: SamePair) => !student || p.first.studentId === student || p.second.studentId === student;
  const open = data.pairs.filter((p) => !p.aside && isOf(p));
  const aside = data.pairs.filter((p) => p.aside && isOf(p));
  const listed = asides ? aside : open;
  const chosen = listed.find((p) => keyOf(p) === params.get('pair')) ?? listed.find((p) => p.readable);
  const choose = (p?: SamePair) => {
    const next = new URLSearchParams(params);
    if (p) next.set('pair', keyOf(p));
    else next.delete('pair');
    setParams(next, { replace: true });
  };
  return (
    <main className={css.page}>
      <title>{`Shared passages · ${data.title}`}</title>
      <div className={css.head}>
        <h1 className="above-0 below-0">Shared passages</h1>
        <span className="muted">
          {data.title} · {t.count(data.texts, 'text', 'texts')},{' '}
          {open.length === 0 ? 'none share passages' : t.count(open.length, 'pair shares words', 'pairs share words')}
        </span>
      </div>
      <div>
        <ul className={css.pairs} aria-label="Pairs">
          {listed.map((p) => (
            <li key={keyOf(p)}>
              <button
                type="button"
                className={css.pair}
                aria-current={p === chosen}
                disabled={!p.readable}
                onClick={() => choose(p)}
              >
                <span>
                  <b>{nameOf(p.first)}</b> and <b>{nameOf(p.second)}</b>
                </span>
                <span className="muted tiny">
                  {t.count(p.words, 'shared word', 'shared words')}
                  {p.passages > 1 && ` in ${p.passages} passages`}
                  {p.first.studentId === p.second.studentId && p.readable && ' · the same author'}
                </span>
                {p.aside && <span className="muted tiny">put aside: {p.aside.reason}</span>}
              </button>
            </li>
          ))}
        </ul>
        {listed.length === 0 && (
          <p className="muted less">{asides ? 'Nothing is put aside.' : 'No two texts share eight words in a row.'}</p>
        )}
        {(aside.length > 0 || asides) && (
          <p className="above-3">
            <Word
              tiny
              aria-pressed={asides}
              onClick={() => {
                setAsides(!asides);
                choose();
              }}
            >
              {asides ? 'Back to the others' : `${aside.length} put aside`}
            </Word>
          </p>
        )}
        <ManyShare common={data.common} of={data.texts} />
        <p className="muted tiny above-4">
          Students never see this, and nothing follows by itself. The starter text and quotations are left out. Who
          looks at two texts is noted.
        </p>
        {student > 0 && (
          <Link className="word tiny" to={`/classes/${id}/sameness/${promptId}`}>
            All of the class
          </Link>
        )}
      </div>
      {chosen && (
        <TwoTexts
          key={keyOf(chosen)}
          promptId={promptId}
          pair={chosen}
          onNext={() => choose(listed[(listed.indexOf(chosen) + 1) % listed.length])}
        />
      )}
    </main>
  );
}

/** What more than a third share: it makes no pair, and opens here. */
function ManyShare({ common, of }: { common: SameCommon[]; of: number }) {
  if (common.length === 0) return null;
  return (
    <section className="above-4">
      <h2 className={css.many}>What many share</h2>
      <ul className={css.manyList}>
        {common.map((c) => (
          <li key={c.text} className="below-2 tiny">
            <Folded says={`${c.words} words in ${c.texts} of ${of} texts`} text={c.text} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Words that one need not read again for each text. */
function Folded({ says, text }: { says: string; text: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <button type="button" className={css.fold} aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {says}
      </button>
      {isOpen && <span className={css.folded}>{text}</span>}
    </>
  );
}

const keyOf = (p: SamePair) => `${p.first.postId}-${p.second.postId}`;

const nameOf = (s: SameText) =>
  s.name ? `${s.name}${s.year ? `, “${s.year}”` : ''}` : 'a text of an earlier year that you may not read';

interface TwoTextsProps {
  promptId: number;
  pair: SamePair;
  onNext: () => void;
}

function TwoTexts({ promptId, pair, onNext }: TwoTextsProps) {
  const { data, error, refetch } = useQuery({
    queryKey: ['sameness-looks', promptId, keyOf(pair)],
    queryFn: () =>
      postJson<SameTexts>(`/api/prompts/${promptId}/sameness/looks`, {
        first: pair.first.postId,
        second: pair.second.postId,
      }),
    staleTime: Infinity,
  });
  const [at, setAt] = useState(0);
  const [putting, setPutting] = useState(false);
  const root = useRef<HTMLDivElement>(null);
  const passages = data?.passages.length ?? 0;
  const go = (by: number) => passages > 0 && setAt((at + by + passages) % passages);
  useKeys([
    { key: 'ArrowDown', says: 'Next passage', run: () => go(1) },
    { key: 'ArrowUp', says: 'The passage before', run: () => go(-1) },
    { key: 'p', says: pair.aside ? 'Take it up again' : 'Put this pair aside', run: () => setPutting(true) },
    { key: 'n', says: 'Next pair', run: onNext },
  ]);
  useEffect(() => {
    if (data)
      root.current?.querySelectorAll(`[data-passage="${at}"]`).forEach((e) => e.scrollIntoView?.({ block: 'nearest' }));
  }, [at, data]);
  if (!data) return error ? <Trouble error={error} onRetry={() => refetch()} /> : <Loading />;
  return (
    <div ref={root} className={css.contents}>
      <OneText of={data.pair.first} lines={data.first} at={at} onChoose={setAt}>
        {data.works.length > 0 && (
          <p className="tiny above-0 below-2">
            Both say that they used <i>{data.works.join(', ')}</i>.
          </p>
        )}
        {putting ? (
          <PutAside promptId={promptId} pair={pair} onClose={() => setPutting(false)} />
        ) : (
          <p className="keyed tiny muted">
            <span className="key">↓</span> next passage <span className="key">N</span> next pair{' '}
            <Word tiny onClick={() => setPutting(true)}>
              {pair.aside ? 'Take it up again' : 'Put this pair aside'}
            </Word>{' '}
            <span className="key">P</span>
          </p>
        )}
      </OneText>
      <OneText of={data.pair.second} lines={data.second} at={at} onChoose={setAt} after={data.pair.first.at} />
    </div>
  );
}

/** "10 hours later": how long after the other one a text was handed in. */
function later(at: string, after: string) {
  const hours = (new Date(at).getTime() - new Date(after).getTime()) / 3_600_000;
  if (hours < 1) return 'within the hour';
  return hours < 48 ? `${t.count(Math.round(hours), 'hour', 'hours')} later` : `${Math.round(hours / 24)} days later`;
}

interface OneTextProps {
  of: SameText;
  lines: SameLine[];
  at: number;
  onChoose: (passage: number) => void;
  /** When the other one was handed in, if that was before. */
  after?: string;
  children?: React.ReactNode;
}

function OneText({ of, lines, at, onChoose, after, children }: OneTextProps) {
  return (
    <article className={css.text} aria-label={`${of.name}: ${of.title}`}>
      <div className={css.who}>
        <b>{nameOf(of)}</b> · handed in <When at={of.at} />
        {after && (
          <>
            , <b className="warm">{later(of.at, after)}</b>
          </>
        )}
      </div>
      <h2>{of.title}</h2>
      {lines.map((line, l) => (
        <p key={l}>
          {line.pieces.map((s, i) =>
            s.common !== undefined ? (
              <Folded key={i} says={`${s.common} words that many share`} text={s.text} />
            ) : s.passage === undefined ? (
              <span key={i} className={s.quoted ? css.quoted : undefined}>
                {s.text}
              </span>
            ) : (
              // biome-ignore lint/a11y: by keyboard one walks from passage to passage with the arrows
              <mark
                key={i}
                data-passage={s.passage}
                className={`${css.shared} ${s.passage === at ? css.now : ''}`}
                onClick={() => onChoose(s.passage ?? 0)}
              >
                {s.text}
              </mark>
            ),
          )}
        </p>
      ))}
      {children}
    </article>
  );
}

function PutAside({ promptId, pair, onClose }: { promptId: number; pair: SamePair; onClose: () => void }) {
  const [reason, setReason] = useState('');
  const put = useWrite(
    (why: string) =>
      putJson(`/api/prompts/${promptId}/sameness/aside`, {
        first: pair.first.postId,
        second: pair.second.postId,
        reason: why,
      }),
    { here: true, stale: [['sameness']], onDone: onClose },
  );
  if (pair.aside)
    return (
      <div className="tell">
        <p className="above-0">
          Put aside{pair.aside.by && ` by ${pair.aside.by}`}: {pair.aside.reason}
        </p>
        <Wrong says={put.problem} />
        <p className="row below-0">
          <Button disabled={put.busy} onClick={() => put.run('')}>
            Take it up again
          </Button>
          <Word onClick={onClose}>Leave it</Word>
        </p>
      </div>
    );
  return (
    <form
      className="tell"
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim()) put.run(reason);
      }}
    >
      <Textarea
        label="Why this pair need not be looked at again"
        autosize
        autoFocus
        maxLength={1000}
        value={reason}
        onChange={(e) => setReason(e.currentTarget.value)}
      />
      <Wrong says={put.problem} />
      <p className="row above-3 below-0">
        <Button type="submit" disabled={put.busy || !reason.trim()}>
          Put it aside
        </Button>
        <Word onClick={onClose}>Leave it</Word>
      </p>
    </form>
  );
}
