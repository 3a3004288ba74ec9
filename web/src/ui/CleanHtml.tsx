import type { HTMLAttributes, Ref } from 'react';

interface CleanHtmlProps extends Omit<HTMLAttributes<HTMLElement>, 'children'> {
  html: string;
  as?: 'div' | 'h2';
  ref?: Ref<HTMLDivElement>;
}

/** Text with marks that people wrote. It is clean: the server's sanitiser made it, or a part of ours that escapes every word. */
export function CleanHtml({ html, as: Tag = 'div', ...rest }: CleanHtmlProps) {
  // biome-ignore lint/security/noDangerouslySetInnerHtml: the one place for it
  return <Tag {...rest} dangerouslySetInnerHTML={{ __html: html }} />;
}
