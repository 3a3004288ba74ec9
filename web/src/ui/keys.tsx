import { Modal } from '@mantine/core';
import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';

/** A key of a page: what it does, in words, and the doing. */
export interface PageKey {
  key: string;
  says: string;
  run: () => void;
}

const KeysContext = createContext<{ set: (keys: PageKey[]) => void } | null>(null);

/** Keys by the words and signs that stand on them. */
const NAMES: Record<string, string> = {
  ' ': 'Space',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Backspace: '⌫',
};

/** What several keys do is said once. */
function together(keys: PageKey[]): { says: string; keys: string[] }[] {
  const said = new Map<string, string[]>();
  for (const { key, says } of keys) said.set(says, [...(said.get(says) ?? []), key]);
  return [...said].map(([says, all]) => ({ says, keys: all }));
}

function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return !!element && (element.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(element.tagName));
}

/** Hears the keys of the page that is shown; "?" lists them. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const keys = useRef<PageKey[]>([]);
  const [shown, setShown] = useState<PageKey[] | null>(null);
  useEffect(() => {
    const hear = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target) || document.querySelector('[role=dialog]')) return;
      if (e.key === '?') {
        setShown(keys.current);
        return;
      }
      const found = keys.current.find((k) => k.key.toLowerCase() === e.key.toLowerCase());
      // A button in focus keeps its own Enter and blank.
      if (!found || ((e.key === 'Enter' || e.key === ' ') && (e.target as HTMLElement).closest?.('button, a'))) return;
      e.preventDefault();
      found.run();
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);
  const value = useMemo(
    () => ({
      set: (next: PageKey[]) => {
        keys.current = next;
      },
    }),
    [],
  );
  return (
    <KeysContext.Provider value={value}>
      {children}
      <Modal opened={shown !== null} onClose={() => setShown(null)} title="Keys of this page" size="sm">
        {shown?.length ? (
          together(shown).map((k) => (
            <div className="row apart" key={k.says}>
              <span>{k.says}</span>
              <span>
                {k.keys.map((key) => (
                  <span key={key} className="key">
                    {NAMES[key] ?? key}
                  </span>
                ))}
              </span>
            </div>
          ))
        ) : (
          <p className="muted">This page has no keys of its own.</p>
        )}
      </Modal>
    </KeysContext.Provider>
  );
}

/** Gives a page its keys for as long as it is shown. */
export function useKeys(keys: PageKey[]) {
  const context = useContext(KeysContext);
  if (!context) throw new Error('useKeys needs a KeysProvider above it');
  // Together with what is drawn: a key that comes right after a text has appeared means that text.
  useLayoutEffect(() => {
    context.set(keys);
  });
  useEffect(() => () => context.set([]), [context]);
}
