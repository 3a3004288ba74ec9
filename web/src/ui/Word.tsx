import type { ComponentProps } from 'react';

interface WordProps extends ComponentProps<'button'> {
  tiny?: boolean;
}

/** A word that does something: a button for what is not the main thing here. */
export function Word({ tiny, className, type = 'button', ...rest }: WordProps) {
  return <button type={type} className={['word', tiny && 'tiny', className].filter(Boolean).join(' ')} {...rest} />;
}
