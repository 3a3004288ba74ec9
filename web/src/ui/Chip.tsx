import type { ComponentProps } from 'react';

/** A small word with a rim, one of several to choose from. */
export function Chip({ className, type = 'button', ...rest }: ComponentProps<'button'>) {
  return <button type={type} className={['chip', className].filter(Boolean).join(' ')} {...rest} />;
}
