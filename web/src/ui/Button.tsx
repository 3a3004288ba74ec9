import type { ComponentProps } from 'react';

interface ButtonProps extends ComponentProps<'button'> {
  /** The one thing that the page or dialog is for. */
  go?: boolean;
  /** As wide as what stands around it. */
  mid?: boolean;
}

/** A button. It sends a form only where it says so. */
export function Button({ go, mid, className, type = 'button', ...rest }: ButtonProps) {
  return (
    <button type={type} className={['btn', go && 'go', mid && 'mid', className].filter(Boolean).join(' ')} {...rest} />
  );
}
