import { Selection } from '@tiptap/pm/state';
import type { Editor } from '@tiptap/react';

/** Puts a picture or file after the block in which one writes. It never takes the place of what is selected: that may be the picture before. */
export function putIn(editor: Editor, type: 'picture' | 'file', attrs: Record<string, string>) {
  const { $to, to } = editor.state.selection;
  const at = $to.depth > 0 ? $to.after(1) : to;
  editor
    .chain()
    .focus()
    .insertContentAt(at, { type, attrs })
    .command(({ tr }) => {
      tr.setSelection(Selection.near(tr.doc.resolve(Math.min(at + 1, tr.doc.content.size)), 1));
      return true;
    })
    .run();
}
