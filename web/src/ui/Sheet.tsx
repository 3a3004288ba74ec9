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
    <main style={{ maxWidth: 420, margin: '0 auto', padding: '9vh 20px 40px' }}>
      <title>{`${title} · ${t.name}`}</title>
      <p className="muted" style={{ display: 'flex', alignItems: 'center', gap: 12, margin: '0 0 14px' }}>
        <Logo />
        {t.name}
      </p>
      <h1 style={{ marginBottom: 12 }}>{heading}</h1>
      {children}
    </main>
  );
}
