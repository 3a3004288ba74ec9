import type { DrawerItem } from '../api/schema';
import css from './Drawer.module.css';

const KINDS: Record<string, string> = { SOUND: 'sound', VIDEO: 'video', DOCUMENT: 'document' };
const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

interface DrawerFrontProps {
  item: DrawerItem;
  /** Whether its name stands under it. @default true */
  isNamed?: boolean;
}

/** What something in the drawer looks like from outside: the picture itself, or what kind of file it is. */
export function DrawerFront({ item, isNamed = true }: DrawerFrontProps) {
  return (
    <>
      {item.kind === 'PICTURE' ? (
        <img className={css.front} src={`${item.address}?small=true`} alt="" loading="lazy" />
      ) : (
        <span className={css.front} aria-hidden="true">
          {KINDS[item.kind]}
        </span>
      )}
      <span className={css.label}>
        {isNamed && (item.name || 'A picture without a name')}
        <span className="tiny muted block">
          {item.kind === 'PICTURE' ? 'picture' : KINDS[item.kind]}, {size(item.size)}
        </span>
      </span>
    </>
  );
}
