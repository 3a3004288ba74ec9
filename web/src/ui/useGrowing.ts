import { startTransition, useEffect, useState } from 'react';
import { useOnPaper } from './useOnPaper';

/** What fills a screen. */
const AT_FIRST = 20;
const STEP = 2;

/**
 * How many of so many rows are drawn: a screenful at once, the others after it while nobody waits for them. Once all
 * are there, scrolling draws nothing anew. On paper all are drawn.
 */
export function useGrowing(count: number): number {
  const [drawn, setDrawn] = useState(AT_FIRST);
  const onPaper = useOnPaper();
  useEffect(() => {
    if (drawn >= count) return undefined;
    const next = setTimeout(() => startTransition(() => setDrawn(drawn + STEP)));
    return () => clearTimeout(next);
  }, [drawn, count]);
  return onPaper ? count : Math.min(drawn, count);
}
