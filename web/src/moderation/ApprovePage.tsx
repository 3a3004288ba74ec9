import { Modal } from '@mantine/core';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { useKeys } from '../ui/keys';
import { boardAfter, StateBoard } from '../ui/StateBoard';
import { Loading, NotThere, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import css from './Approve.module.css';
import { NoticeDialog } from './NoticeDialog';
import { PileEntry } from './PileEntry';
import { keyOf, type Lying, type Step, usePile } from './usePile';

/** The editor is fetched when somebody mends a post. */
const Desk = lazy(() => import('../writing/WritePage').then((m) => ({ default: m.Desk })));

const SORTS = {
  '': 'Everything',
  posts: 'Posts',
  comments: 'Comments',
  reviews: 'Reviews',
  outside: 'From outside',
  held: 'Held',
  reported: 'Reported',
  up: 'Up already',
} as const;
type Sort = keyof typeof SORTS;
const ORDERS = { '': 'the longest wait first', student: 'by student', prompt: 'by prompt' } as const;

/** The pile: what is looked at stands in the address; another part of it is another pile. */
export function ApprovePage() {
  const { approves } = useClass();
  const [params] = useSearchParams();
  const wish = {
    classId: params.get('class') ? Number(params.get('class')) : undefined,
    sort: params.get('sort') ?? '',
  };
  if (!approves) return <NotThere />;
  return <PilePage key={`${wish.classId} ${wish.sort}`} wish={wish} />;
}

/** A pile that is read downwards, and decided by one key each. */
function PilePage({ wish }: { wish: { classId?: number; sort: string } }) {
  const { id, staff } = useClass();
  const [params, setParams] = useSearchParams();
  const { query, pile, decide, undo, fetchAll, lookAgain } = usePile(wish);
  const [currentKey, setCurrentKey] = useState(params.get('item') ?? '');
  const [returning, setReturning] = useState(false);
  const [mending, setMending] = useState('');
  const [telling, setTelling] = useState(false);
  const [pickingAll, setPickingAll] = useState(false);
  const [picked, setPicked] = useState<Set<string>>(new Set());
  const page = useRef<HTMLDivElement>(null);
  const order = params.get('by') ?? '';
  const shown = useMemo(() => ordered(pile, order), [pile, order]);
  const waiting = shown.filter((l) => l.fate.type === 'waits');
  const current = waiting.find((l) => keyOf(l.item) === currentKey) ?? waiting[0];
  // A link from a mail names a text that has not come yet.
  const isThere = !!current && keyOf(current.item) === currentKey;
  const lots = useRef<string[][]>([]);

  useEffect(() => {
    if (isThere)
      page.current
        ?.querySelector('[aria-current=true]')
        ?.scrollIntoView({ block: currentKey === params.get('item') ? 'start' : 'nearest', behavior: 'instant' });
  }, [currentKey, isThere, params]);

  const set = (key: string, value: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        next.delete('item');
        if (value) next.set(key, value);
        else next.delete(key);
        return next;
      },
      { replace: true },
    );
  const move = (by: number) => {
    const next = waiting[(current ? waiting.indexOf(current) : -1) + by];
    if (next) setCurrentKey(keyOf(next.item));
    setReturning(false);
  };
  const decideAll = (chosen: Lying[], step: Step, note = '') => {
    if (chosen.length === 0) return;
    const rest = waiting
      .slice(waiting.indexOf(current!))
      .concat(waiting)
      .find((l) => !chosen.includes(l));
    lots.current.push(chosen.map((l) => keyOf(l.item)));
    setPicked(new Set());
    setReturning(false);
    setCurrentKey(rest ? keyOf(rest.item) : '');
    void decide(
      chosen.map((l) => l.item),
      step,
      note,
    );
  };
  const act = (step: Step, note = '') =>
    decideAll(
      picked.size > 0 ? waiting.filter((l) => picked.has(keyOf(l.item))) : current ? [current] : [],
      step,
      note,
    );
  const takeBack = () => {
    for (let lot = lots.current.pop(); lot; lot = lots.current.pop()) {
      const keys = lot;
      const lying = pile.filter((l) => keys.includes(keyOf(l.item)) && l.fate.type === 'decided');
      if (lying.length === 0) continue;
      void undo(lying);
      setCurrentKey(keyOf(lying[0].item));
      return;
    }
  };
  const edit = () => current && !current.item.outside && setMending(keyOf(current.item));
  const mended = () => {
    setMending('');
    void lookAgain();
  };
  const pick = () => {
    if (!current) return;
    const next = new Set(picked);
    if (!next.delete(keyOf(current.item))) next.add(keyOf(current.item));
    setPicked(next);
    move(1);
  };
  const pickAll = () => {
    if (picked.size > 0) {
      setPicked(new Set());
      return;
    }
    setPickingAll(true);
    fetchAll();
  };
  // All are picked once they have come.
  const allCame =
    pickingAll && !query.isFetching && !query.isPlaceholderData && waiting.length >= (query.data?.items.length ?? 0);
  useEffect(() => {
    if (!allCame) return;
    setPickingAll(false);
    setPicked(new Set(waiting.map((l) => keyOf(l.item))));
  }, [allCame, waiting]);
  useKeys([
    { key: 'a', says: 'Approve', run: () => act('APPROVE') },
    { key: 'r', says: 'Return with a note', run: () => current && setReturning(true) },
    ...(staff ? [{ key: 'e', says: 'Edit', run: edit }] : []),
    { key: 'h', says: 'Hide', run: () => act('HIDE') },
    { key: 'b', says: 'Into the bin', run: () => act('BIN') },
    { key: 'u', says: 'Take the last decision back, or the last lot', run: takeBack },
    { key: 'ArrowDown', says: 'Next', run: () => move(1) },
    { key: 'ArrowUp', says: 'The one before', run: () => move(-1) },
    { key: ' ', says: 'Pick, to decide several at once', run: pick },
    { key: 'l', says: 'Pick all that are shown, or none', run: pickAll },
  ]);

  if (query.isError && pile.length === 0)
    return (
      <div className="page plain">
        <Trouble error={query.error} onRetry={() => query.refetch()} />
      </div>
    );
  if (!query.data)
    return (
      <div className="page plain">
        <Loading lines={8} />
      </div>
    );
  const counts = query.data.counts;
  const decidedHere = pile.filter(
    (l) => l.fate.type !== 'waits' && query.data.items.some((i) => keyOf(i) === keyOf(l.item)),
  ).length;
  const left = Math.max(waiting.length, query.data.total - decidedHere);
  const of = (sort: Sort) =>
    counts
      .filter((c) => !wish.classId || c.classId === wish.classId)
      .reduce((n, c) => n + (sort === '' ? c.all : c[sort]), 0);
  const mendedPost = waiting.find((l) => keyOf(l.item) === mending && l.item.subject === 'post');
  const lastLot = lots.current.at(-1) ?? [];
  return (
    <div ref={page}>
      <title>{`${left} wait · Approve`}</title>
      <section className={css.sieve} aria-label="Which texts">
        <h1 className="after-2">{left === 0 ? 'Nothing waits' : left === 1 ? '1 waits' : `${left} wait`}</h1>
        {(Object.keys(SORTS) as Sort[]).map(
          (s) =>
            (s === '' || of(s) > 0 || s === wish.sort) && (
              <button type="button" key={s} aria-pressed={wish.sort === s} onClick={() => set('sort', s)}>
                {SORTS[s]}
                {s ? ` ${s === wish.sort ? left : of(s)}` : ''}
              </button>
            ),
        )}
        <span className="row wide push">
          {staff && (
            <Link className="word" to={`/classes/${id}/decisions`}>
              What was decided
            </Link>
          )}
          <Word onClick={() => setTelling(true)}>Being told</Word>
        </span>
      </section>
      <section className={css.order} aria-label="In which order">
        <label>
          In{' '}
          <select aria-label="Class" value={wish.classId ?? ''} onChange={(e) => set('class', e.target.value)}>
            <option value="">all my classes</option>
            {counts.map((c) => (
              <option key={c.classId} value={c.classId}>
                {c.className} ({c.all})
              </option>
            ))}
          </select>
        </label>
        <label>
          ,{' '}
          <select aria-label="Order" value={order} onChange={(e) => set('by', e.target.value)}>
            {Object.entries(ORDERS).map(([value, word]) => (
              <option key={value} value={value}>
                {word}
              </option>
            ))}
          </select>
        </label>
        {waiting.length > 1 && (
          <Word onClick={pickAll}>
            {picked.size > 0 ? 'Pick none' : `Pick all ${Math.min(500, left)}`} <span className="key">L</span>
          </Word>
        )}
        <span className="push">
          {picked.size > 0 ? (
            `${picked.size} picked; a decision is for all of them`
          ) : (
            <span className="keyed">
              <span className="key">?</span> keys
            </span>
          )}
        </span>
      </section>
      <main className={css.pile}>
        {left === 0 && (
          <p className="muted inside-5 foot-5">
            {wish.sort || wish.classId
              ? 'Nothing of this waits.'
              : 'When a student hands something in, or a classmate comments, it stands here.'}
          </p>
        )}
        {shown.map((l, i) => {
          const { item, fate } = l;
          const key = keyOf(item);
          const opensGroup = item.under && shown[i - 1]?.item.under?.postId !== item.under.postId;
          const siblings = item.under ? waiting.filter((x) => x.item.under?.postId === item.under!.postId) : [];
          const heading =
            order && groupOf(item, order) !== (shown[i - 1] && groupOf(shown[i - 1].item, order))
              ? groupOf(item, order)
              : '';
          const ofLot = lastLot.length > 1 && lastLot[0] === key;
          return (
            <div key={key}>
              {heading && <h2 className={css.group}>{heading}</h2>}
              {opensGroup && siblings.length > 0 && (
                <div className={css.under}>
                  <span>
                    {t.count(siblings.length, 'comment', 'comments')} on <b>{item.under!.title}</b>,{' '}
                    {item.under!.author}
                  </span>
                  {siblings.length > 1 && (
                    <Word onClick={() => decideAll(siblings, 'APPROVE')}>Approve all {siblings.length}</Word>
                  )}
                </div>
              )}
              {fate.type === 'waits' && (
                <PileEntry
                  item={fate.changes ? { ...item, changes: fate.changes } : item}
                  problem={fate.problem}
                  isCurrent={l === current}
                  isPicked={picked.has(key)}
                  picked={picked.size}
                  returning={returning && l === current}
                  mayEdit={staff}
                  mending={mending === key}
                  onFocus={() => {
                    setCurrentKey(key);
                    setReturning(false);
                  }}
                  onAct={act}
                  onReturn={setReturning}
                  onEdit={edit}
                  onMended={mended}
                />
              )}
              {fate.type === 'decided' && (
                <div className={css.done}>
                  <StateBoard state={boardAfter[fate.step]} />
                  <span>{t.steps[fate.step]}</span>
                  <b>{item.author}</b>
                  <span>{item.title || (item.under ? `on ${item.under.title}` : '')}</span>
                  <span>
                    {ofLot && (
                      <>
                        <Word onClick={takeBack}>Take all {lastLot.length} back</Word> <span className="key">U</span> ·{' '}
                      </>
                    )}
                    {fate.decision ? (
                      <>
                        <Word
                          onClick={() => {
                            void undo([l]);
                            setCurrentKey(key);
                          }}
                        >
                          Take back
                        </Word>
                        {lastLot.length === 1 && lastLot[0] === key && (
                          <>
                            {' '}
                            <span className="key">U</span>
                          </>
                        )}
                      </>
                    ) : null}
                  </span>
                </div>
              )}
              {fate.type === 'gone' && (
                <div className={css.done}>
                  <StateBoard state="PUBLISHED" />
                  <span>Here no more: decided by somebody else, or changed</span>
                  <b>{item.author}</b>
                  <span>{item.title}</span>
                  <span />
                </div>
              )}
            </div>
          );
        })}
      </main>
      {mendedPost && (
        <Modal opened fullScreen onClose={mended} title={`${mendedPost.item.author}: ${mendedPost.item.title}`}>
          <Suspense fallback={<Loading lines={9} />}>
            <Desk id={mendedPost.item.id} onDone={mended} />
          </Suspense>
        </Modal>
      )}
      {telling && <NoticeDialog onClose={() => setTelling(false)} />}
    </div>
  );
}

const groupOf = (item: Lying['item'], order: string) =>
  order === 'student' ? item.author : (item.prompt?.title ?? 'Without a prompt');

/** The pile in another order. What comes in while one reads stands in groups of its own at the end, so that nothing moves. */
function ordered(pile: Lying[], order: string): Lying[] {
  if (!order) return pile;
  const groups = new Map<string, Lying[]>();
  for (const l of pile) {
    const group = `${l.batch} ${groupOf(l.item, order)}`;
    groups.set(group, [...(groups.get(group) ?? []), l]);
  }
  return [...groups.values()].flat();
}
