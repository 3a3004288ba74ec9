import StarterKit from '@tiptap/starter-kit';
import { Align } from './align';
import { File as FileNode } from './file';
import { Picture } from './picture';

/** The editor with just the tools that this writer has. */
export function extensionsFor(tools: string[]) {
  const has = (tool: string) => tools.includes(tool);
  const kit = StarterKit.configure({
    heading: has('HEADING') && { levels: [2, 3] },
    codeBlock: false,
    code: false,
    link: has('LINK') && { openOnClick: false, HTMLAttributes: { rel: null, target: null } },
    ...Object.fromEntries(
      Object.entries({
        bold: 'BOLD',
        italic: 'ITALIC',
        underline: 'UNDERLINE',
        strike: 'STRIKE',
        bulletList: 'LIST',
        orderedList: 'LIST',
        listItem: 'LIST',
        blockquote: 'QUOTE',
      })
        .filter(([, tool]) => !has(tool))
        .map(([name]) => [name, false]),
    ),
  });
  return [kit, ...(has('ALIGN') ? [Align] : []), Picture, FileNode];
}
