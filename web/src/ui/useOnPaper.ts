import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed: what is drawn only where it is in sight has to be drawn whole then. */
export function useOnPaper(): boolean {
  const [onPaper, setOnPaper] = useState(false);
  useEffect(() => {
    const paper = window.matchMedia('print');
    const turn = (e: { matches: boolean }) => flushSync(() => setOnPaper(e.matches));
    const begin = () => flushSync(() => setOnPaper(true));
    const end = () => flushSync(() => setOnPaper(false));
    paper.addEventListener('change', turn);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      paper.removeEventListener('change', turn);
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return onPaper;
}
