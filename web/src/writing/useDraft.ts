import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiProblem, putJson } from '../api/client';
import type { CheckedDraft, Draft, WorkUsed } from '../api/schema';

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
export const typedOf = (draft: Draft): Typed => ({
  title: draft.title,
  html: draft.html,
  tags: draft.tags,
  audience: draft.audience,
  category: draft.category,
  works: draft.works,
});

/** What became of what was typed last. */
export type Saving =
  | { type: 'saved'; at: string }
  | { type: 'saving' }
  | { type: 'kept-here'; why: string }
  | { type: 'refused'; field: string; why: string }
  | { type: 'elsewhere'; why: string; theirs: Typed; rev: number };

const PAUSE = 900;
const RETRY = 4_000;

/** What was typed, and the state of the draft on the server on which it was typed. */
export interface Kept extends Typed {
  rev: number;
}

/** What this browser kept of a draft because the server had not taken it yet. */
export function keptHere(name: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

/**
 * Keeps a draft: at every change in this browser under a name, after a short pause on the server. One save runs at a time, each on top
 * of the last; nothing is written over that changed elsewhere.
 */
export function useDraft(draft: Draft, initial: Kept, name: string) {
  const [beside, setBeside] = useState<CheckedDraft>(draft.beside);
  const [saving, setSaving] = useState<Saving>({ type: 'saved', at: draft.beside.savedAt });
  const typed = useRef<Typed>(initial);
  const rev = useRef(initial.rev);
  // What was sent and never answered: the server may have it all the same.
  const unanswered = useRef<Typed[]>([]);
  const dirty = useRef(false);
  const running = useRef<Promise<boolean> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const keepHere = useCallback(() => {
    try {
      localStorage.setItem(name, JSON.stringify({ ...typed.current, rev: rev.current }));
    } catch {
      // The browser has no room for it; the server gets it all the same.
    }
  }, [name]);

  const save = useCallback(async (): Promise<boolean> => {
    clearTimeout(timer.current);
    if (running.current) await running.current;
    if (!dirty.current) return true;
    const sent = typed.current;
    dirty.current = false;
    setSaving({ type: 'saving' });
    const send = async (): Promise<boolean> => {
      unanswered.current.push(sent);
      try {
        const answer = await putJson<CheckedDraft>(`/api/posts/${draft.id}/draft`, { ...sent, rev: rev.current });
        rev.current = answer.rev;
        unanswered.current = [];
        setBeside(answer);
        setSaving(dirty.current ? { type: 'saving' } : { type: 'saved', at: answer.savedAt });
        if (dirty.current) keepHere();
        else localStorage.removeItem(name);
        return true;
      } catch (e) {
        const typedMeanwhile = dirty.current;
        dirty.current = true;
        const problem =
          e instanceof ApiProblem ? e : new ApiProblem(0, 'offline', 'The server cannot be reached just now.');
        if (problem.code === 'changed-elsewhere') {
          const f = problem.facts as unknown as Kept;
          if (unanswered.current.some((u) => u.title === f.title && u.html === f.html)) {
            rev.current = f.rev;
            unanswered.current = [];
            dirty.current = typedMeanwhile;
            return send();
          }
          setSaving({
            type: 'elsewhere',
            why: problem.message,
            rev: f.rev,
            theirs: {
              title: f.title,
              html: f.html,
              tags: f.tags,
              audience: sent.audience,
              category: f.category ?? undefined,
              works: f.works,
            },
          });
        } else if (problem.status === 422) {
          setSaving({ type: 'refused', field: problem.field ?? '', why: problem.message });
        } else {
          setSaving({ type: 'kept-here', why: problem.message });
          timer.current = setTimeout(() => void save(), RETRY);
        }
        return false;
      }
    };
    running.current = send().finally(() => {
      running.current = null;
    });
    return running.current;
  }, [draft.id, name, keepHere]);

  const change = useCallback(
    (part: Partial<Typed>) => {
      typed.current = { ...typed.current, ...part };
      dirty.current = true;
      setSaving((before) => (before.type === 'saved' ? { type: 'saving' } : before));
      keepHere();
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), PAUSE);
    },
    [keepHere, save],
  );

  /** After a change elsewhere: goes on with what is here, on top of what is there. */
  const keepMine = useCallback(
    (on: number) => {
      rev.current = on;
      dirty.current = true;
      return save();
    },
    [save],
  );

  /** After a change elsewhere: goes on with what is there. */
  const takeTheirs = useCallback(
    (theirs: Typed, on: number) => {
      rev.current = on;
      typed.current = theirs;
      dirty.current = false;
      localStorage.removeItem(name);
      setSaving({ type: 'saved', at: new Date().toISOString() });
    },
    [name],
  );

  useEffect(() => {
    const leave = () => {
      if (dirty.current) void save();
    };
    document.addEventListener('visibilitychange', leave);
    return () => {
      document.removeEventListener('visibilitychange', leave);
      leave();
    };
  }, [save]);

  /** After the server made another version the newest by itself: goes on with that one. */
  const goOnWith = useCallback(
    (fresh: Draft) => {
      takeTheirs(typedOf(fresh), fresh.beside.rev);
      setBeside(fresh.beside);
    },
    [takeTheirs],
  );

  return { beside, saving, change, save, keepMine, takeTheirs, goOnWith, rev };
}
