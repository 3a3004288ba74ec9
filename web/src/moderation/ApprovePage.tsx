import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useKeys } from '../app/keys';
import { useClass } from '../app/useClass';
import { StateBoard } from '../parts/StateBoard';
import { Loading, Trouble } from '../parts/Trouble';
import { t } from '../texts/en';
import css from './Approve.module.css';
import { PileEntry } from './PileEntry';
import { keyOf, usePile, type Lying, type Step } from './usePile';

const SORTS = { all: 'Everything', post: 'Posts', comment: 'Comments', outside: 'From outside' } as const;
type Sort = keyof typeof SORTS;

const sortOf = ({ item }: Lying): Sort => (item.outside ? 'outside' : (item.subject as Sort));
const BOARDS: Record<Step, string> = { APPROVE: 'PUBLISHED', RETURN: 'RETURNED', HIDE: 'HIDDEN' };

/** The pile: read downwards, decided by one key each. */
export function ApprovePage() {
  const { role } = useClass();
  const navigate = useNavigate();
  const { query, pile, decide, undo } = usePile();
  const [sort, setSort] = useState<Sort>('all');
  const [currentKey, setCurrentKey] = useState('');
  const [returning, setReturning] = useState(false);
  const [picked, setPicked] = useState<Set<string>>(new Set());
  const page = useRef<HTMLDivElement>(null);
  const shown = useMemo(() => pile.filter((l) => sort === 'all' || sortOf(l) === sort), [pile, sort]);
  const waiting = shown.filter((l) => l.fate.type === 'waits');
  const current = waiting.find((l) => keyOf(l.item) === currentKey) ?? waiting[0];
  const lastDone = useRef<string[]>([]);

  useEffect(() => {
    if (currentKey) page.current?.querySelector('[aria-current=true]')?.scrollIntoView({ block: 'nearest', behavior: 'instant' });
  }, [currentKey]);

  const move = (by: number) => {
    const next = waiting[waiting.findIndex((l) => l === current) + by];
    if (next) setCurrentKey(keyOf(next.item));
    setReturning(false);
  };
  const act = (step: Step, note = '') => {
    const chosen = picked.size > 0 ? waiting.filter((l) => picked.has(keyOf(l.item))) : current ? [current] : [];
    if (chosen.length === 0) return;
    const rest = waiting.slice(waiting.indexOf(current!)).concat(waiting).find((l) => !chosen.includes(l));
    lastDone.current.push(...chosen.map((l) => keyOf(l.item)));
    setPicked(new Set());
    setReturning(false);
    setCurrentKey(rest ? keyOf(rest.item) : '');
    void decide(chosen.map((l) => l.item), step, note);
  };
  const takeBack = () => {
    for (let key = lastDone.current.pop(); key; key = lastDone.current.pop()) {
      const lying = pile.find((l) => keyOf(l.item) === key && l.fate.type === 'decided');
      if (!lying) continue;
      void undo(lying);
      setCurrentKey(key);
      return;
    }
  };
  const edit = () => current?.item.subject === 'post' && navigate(`/classes/${current.item.classId}/write/${current.item.id}`);
  const pick = () => {
    if (!current) return;
    const next = new Set(picked);
    if (!next.delete(keyOf(current.item))) next.add(keyOf(current.item));
    setPicked(next);
    move(1);
  };
  useKeys([
    { key: 'a', says: 'Approve', run: () => act('APPROVE') },
    { key: 'r', says: 'Return with a note', run: () => current && setReturning(true) },
    ...(role !== 'MODERATOR' ? [{ key: 'e', says: 'Edit', run: edit }] : []),
    { key: 'h', says: 'Hide', run: () => act('HIDE') },
    { key: 'u', says: 'Take the last decision back', run: takeBack },
    { key: 'ArrowDown', says: 'Next', run: () => move(1) },
    { key: 'ArrowUp', says: 'The one before', run: () => move(-1) },
    { key: 'x', says: 'Pick, to decide several at once', run: pick },
  ]);

  if (query.isError && pile.length === 0) return <div className="page plain"><Trouble error={query.error} onRetry={() => query.refetch()} /></div>;
  if (query.isPending) return <div className="page plain"><Loading lines={8} /></div>;
  const all = pile.filter((l) => l.fate.type === 'waits');
  return (
    <div ref={page}>
      <title>{`${all.length} wait · Approve`}</title>
      <div className={css.sieve}>
        <h1 style={{ marginRight: 8 }}>{all.length === 0 ? 'Nothing waits' : all.length === 1 ? '1 waits' : `${all.length} wait`}</h1>
        {(Object.keys(SORTS) as Sort[]).map((s) => {
          const n = all.filter((l) => s !== 'all' && sortOf(l) === s).length;
          return (s === 'all' || n > 0 || s === sort) && <button key={s} aria-pressed={sort === s} onClick={() => setSort(s)}>{SORTS[s]}{s !== 'all' ? ` ${n}` : ''}</button>;
        })}
        <span className="muted tiny" style={{ marginLeft: 'auto' }}>{picked.size > 0 ? `${picked.size} picked · ` : ''}All my classes, the longest wait first · <span className="key">?</span> keys</span>
      </div>
      <main className={css.pile}>
        {all.length === 0 && <p className="muted" style={{ padding: '20px 0' }}>When a student hands something in, or a classmate comments, it stands here.</p>}
        {shown.map((l, i) => {
          const { item, fate } = l;
          const key = keyOf(item);
          const opensGroup = item.under && shown[i - 1]?.item.under?.postId !== item.under.postId;
          const siblings = item.under ? waiting.filter((x) => x.item.under?.postId === item.under!.postId) : [];
          return (
            <div key={key}>
              {opensGroup && siblings.length > 0 && (
                <div className={css.under}>
                  <span>{t.count(siblings.length, 'comment', 'comments')} on <b>{item.under!.title}</b>, {item.under!.author}</span>
                  {siblings.length > 1 && <button className="word" onClick={() => { lastDone.current.push(...siblings.map((x) => keyOf(x.item))); void decide(siblings.map((x) => x.item), 'APPROVE'); }}>Approve all {siblings.length}</button>}
                </div>
              )}
              {fate.type === 'waits' && (
                <PileEntry item={item} problem={fate.problem} isCurrent={l === current} isPicked={picked.has(key)} returning={returning && l === current} mayEdit={role !== 'MODERATOR'}
                  onFocus={() => { setCurrentKey(key); setReturning(false); }} onAct={act} onReturn={setReturning} onEdit={edit} />
              )}
              {fate.type === 'decided' && (
                <div className={css.done}>
                  <StateBoard state={BOARDS[fate.step]} /><span>{t.steps[fate.step]}</span><b>{item.author}</b><span>{item.title || (item.under ? `on ${item.under.title}` : '')}</span>
                  <span>{fate.decision ? <><button className="word" onClick={() => { void undo(l); setCurrentKey(key); }}>Take back</button>{lastDone.current.at(-1) === key && <> <span className="key">U</span></>}</> : null}</span>
                </div>
              )}
              {fate.type === 'gone' && <div className={css.done}><StateBoard state="PUBLISHED" /><span>Decided by somebody else, or changed by its author</span><b>{item.author}</b><span>{item.title}</span><span /></div>}
            </div>
          );
        })}
      </main>
    </div>
  );
}
