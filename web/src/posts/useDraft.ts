import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiProblem, putJson } from '../api/client';
import type { Beside, Draft, WorkUsed } from '../api/schema';

/** What is typed, as it is kept. */
export interface Typed {
  title: string;
  html: string;
  tags: string[];
  audience: string;
  /** The number of a category of the class. */
  category?: number;
  /** The works that the text rests on. */
  works: WorkUsed[];
}

/** A draft as the server has it. */
export const typedOf = (draft: Draft): Typed => ({ title: draft.title, html: draft.html, tags: draft.tags, audience: draft.audience, category: draft.category, works: draft.works });

/** What became of what was typed last. */
export type Saving =
  | { type: 'saved'; at: string }
  | { type: 'saving' }
  | { type: 'kept-here'; why: string }
  | { type: 'refused'; field: string; why: string }
  | { type: 'elsewhere'; why: string; theirs: Typed; rev: number };

const PAUSE = 900;
const RETRY = 4_000;
const keyOf = (id: number) => `porch-draft-${id}`;

interface Kept extends Typed {
  rev: number;
}

/** What this browser kept of a draft because the server had not taken it yet. */
export function keptHere(id: number): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

/**
 * Keeps a draft: at every change in this browser, after a short pause on the server. One save runs at a time, each on top of the
 * last; nothing is written over that changed elsewhere.
 */
export function useDraft(draft: Draft, initial: Typed) {
  const [beside, setBeside] = useState<Beside>(draft.beside);
  const [saving, setSaving] = useState<Saving>({ type: 'saved', at: draft.beside.savedAt });
  const typed = useRef<Typed>(initial);
  const rev = useRef(draft.beside.rev);
  const dirty = useRef(false);
  const running = useRef<Promise<boolean> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const save = useCallback(async (): Promise<boolean> => {
    clearTimeout(timer.current);
    if (running.current) await running.current;
    if (!dirty.current) return true;
    const sent = typed.current;
    dirty.current = false;
    setSaving({ type: 'saving' });
    running.current = (async () => {
      try {
        const answer = await putJson<Beside>(`/api/posts/${draft.id}/draft`, { rev: rev.current, ...sent });
        rev.current = answer.rev;
        setBeside(answer);
        setSaving(dirty.current ? { type: 'saving' } : { type: 'saved', at: answer.savedAt });
        if (!dirty.current) localStorage.removeItem(keyOf(draft.id));
        return true;
      } catch (e) {
        dirty.current = true;
        const problem = e instanceof ApiProblem ? e : new ApiProblem(0, 'offline', 'The server cannot be reached just now.');
        if (problem.code === 'changed-elsewhere') {
          const f = problem.facts as unknown as Typed & { rev: number };
          setSaving({ type: 'elsewhere', why: problem.message, rev: f.rev, theirs: { title: f.title, html: f.html, tags: f.tags, audience: sent.audience, category: f.category ?? undefined, works: f.works } });
        } else if (problem.status === 422) {
          setSaving({ type: 'refused', field: problem.field ?? '', why: problem.message });
        } else {
          setSaving({ type: 'kept-here', why: problem.message });
          timer.current = setTimeout(() => void save(), RETRY);
        }
        return false;
      } finally {
        running.current = null;
      }
    })();
    return running.current;
  }, [draft.id]);

  const change = useCallback((part: Partial<Typed>) => {
    typed.current = { ...typed.current, ...part };
    dirty.current = true;
    setSaving((before) => (before.type === 'saved' ? { type: 'saving' } : before));
    localStorage.setItem(keyOf(draft.id), JSON.stringify({ rev: rev.current, ...typed.current }));
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void save(), PAUSE);
  }, [draft.id, save]);

  /** After a change elsewhere: goes on with what is here, on top of what is there. */
  const keepMine = useCallback((on: number) => {
    rev.current = on;
    dirty.current = true;
    return save();
  }, [save]);

  /** After a change elsewhere: goes on with what is there. */
  const takeTheirs = useCallback((theirs: Typed, on: number) => {
    rev.current = on;
    typed.current = theirs;
    dirty.current = false;
    localStorage.removeItem(keyOf(draft.id));
    setSaving({ type: 'saved', at: new Date().toISOString() });
  }, [draft.id]);

  useEffect(() => {
    const leave = () => { if (dirty.current) void save(); };
    document.addEventListener('visibilitychange', leave);
    return () => {
      document.removeEventListener('visibilitychange', leave);
      leave();
    };
  }, [save]);

  /** After the server made another version the newest by itself: goes on with that one. */
  const goOnWith = useCallback((fresh: Draft) => {
    takeTheirs(typedOf(fresh), fresh.beside.rev);
    setBeside(fresh.beside);
  }, [takeTheirs]);

  return { beside, saving, change, save, keepMine, takeTheirs, goOnWith, rev };
}
