import { t } from '../texts/en';
import { Logo } from './Logo';

interface SheetProps {
  title: string;
  /** What stands over it, if that is not the title. */
  heading?: string;
  children: React.ReactNode;
}

/** A page for whoever comes by a link or a code: the mark, what it is about, and nothing else. */
export function Sheet({ title, heading = title, children }: SheetProps) {
  return (
    <main className="sheet">
      <title>{`${title} · ${t.name}`}</title>
      <p className="muted row middle above-0 below-4">
        <Logo />
        {t.name}
      </p>
      <h1 className="below-3">{heading}</h1>
      {children}
    </main>
  );
}
