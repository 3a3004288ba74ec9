import { useQueryClient } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { sendEyes } from '../api/client';

/** Whose eyes staff borrow: those of a student, a guest or a stranger, in one class. Kept for this window only. */
export interface Eyes {
  classId: number;
  className: string;
  /** The place of the person in the class, or who is made up. */
  of: number | 'guest' | 'stranger';
  name: string;
  role: 'STUDENT' | 'GUEST' | 'STRANGER';
}

const KEY = 'porch-eyes';
const listeners = new Set<() => void>();
let current: Eyes | null = JSON.parse(sessionStorage.getItem(KEY) ?? 'null');
sendEyes(current && `${current.classId}/${current.of}`);

function set(eyes: Eyes | null) {
  current = eyes;
  if (eyes) sessionStorage.setItem(KEY, JSON.stringify(eyes));
  else sessionStorage.removeItem(KEY);
  sendEyes(eyes && `${eyes.classId}/${eyes.of}`);
  listeners.forEach((hear) => hear());
}

/** Eyes belong to whoever borrowed them: another person at the same window has their own. */
export const giveBackEyes = () => set(null);

const subscribe = (hear: () => void) => {
  listeners.add(hear);
  return () => listeners.delete(hear);
};

/** The eyes that are borrowed now; null for one's own. */
export const useEyes = (): Eyes | null => useSyncExternalStore(subscribe, () => current);

/** Borrows eyes, or gives them back: all that was read until then is forgotten, so that nothing of it shows. */
export function useBorrowEyes() {
  const client = useQueryClient();
  const navigate = useNavigate();
  return (eyes: Eyes | null, to?: string) => {
    set(eyes);
    client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'me' });
    navigate(to ?? `/classes/${eyes?.classId}/porch`);
  };
}
