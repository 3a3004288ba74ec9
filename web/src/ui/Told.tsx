import { useSyncExternalStore } from 'react';
import css from './Told.module.css';
import { Word } from './Word';

let sentence = '';
const listeners = new Set<() => void>();
const subscribe = (hear: () => void) => {
  listeners.add(hear);
  return () => listeners.delete(hear);
};

/** Tells what went wrong where no place of the page says it; nothing takes it back. */
export function tell(says: string) {
  sentence = says;
  listeners.forEach((hear) => hear());
}

/** What was told last, over the foot of the frame until it is put away or something else goes well. */
export function Told() {
  const says = useSyncExternalStore(subscribe, () => sentence);
  if (!says) return null;
  return (
    <div className={css.told} role="alert">
      {says} <Word onClick={() => tell('')}>Put away</Word>
    </div>
  );
}
