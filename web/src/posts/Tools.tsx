import { useEditorState, type Editor } from '@tiptap/react';
import { useRef, useState } from 'react';
import css from './Write.module.css';

/** The tool row of the editor: words, not signs. */
export function Tools({ editor, onPicture }: { editor: Editor; onPicture: (files: File[]) => void }) {
  const file = useRef<HTMLInputElement>(null);
  const [linking, setLinking] = useState<string | null>(null);
  const on = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      bold: e.isActive('bold'), italic: e.isActive('italic'), underline: e.isActive('underline'), heading: e.isActive('heading'), list: e.isActive('bulletList'),
      numbers: e.isActive('orderedList'), quote: e.isActive('blockquote'), link: e.isActive('link'), undo: e.can().undo(), redo: e.can().redo(),
    }),
  });
  const chain = () => editor.chain().focus();
  const setLink = () => {
    const address = linking?.trim() ?? '';
    if (address === '') chain().unsetLink().run();
    else chain().extendMarkRange('link').setLink({ href: /^[a-z]+:/i.test(address) ? address : `https://${address}` }).run();
    setLinking(null);
  };
  if (linking !== null)
    return (
      <form className={css.tools} onSubmit={(e) => { e.preventDefault(); setLink(); }}>
        <input autoFocus aria-label="Address of the link" placeholder="https://" value={linking} onChange={(e) => setLinking(e.target.value)} className={css.tagbox} style={{ flex: 1 }} onKeyDown={(e) => e.key === 'Escape' && setLinking(null)} />
        <button type="submit">Set the link</button>
        <button type="button" onClick={() => setLinking(null)}>Cancel</button>
      </form>
    );
  return (
    <div className={css.tools} role="toolbar" aria-label="Writing tools">
      <button type="button" aria-label="Bold" aria-pressed={on.bold} onClick={() => chain().toggleBold().run()}><b>B</b></button>
      <button type="button" aria-label="Italic" aria-pressed={on.italic} onClick={() => chain().toggleItalic().run()}><i>I</i></button>
      <button type="button" aria-label="Underline" aria-pressed={on.underline} onClick={() => chain().toggleUnderline().run()}><u>U</u></button>
      <i className={css.sep} />
      <button type="button" aria-pressed={on.heading} onClick={() => chain().toggleHeading({ level: 2 }).run()}>Heading</button>
      <button type="button" aria-pressed={on.list} onClick={() => chain().toggleBulletList().run()}>List</button>
      <button type="button" aria-pressed={on.numbers} onClick={() => chain().toggleOrderedList().run()}>1 2 3</button>
      <button type="button" aria-pressed={on.quote} onClick={() => chain().toggleBlockquote().run()}>Quote</button>
      <button type="button" aria-pressed={on.link} onClick={() => setLinking((editor.getAttributes('link').href as string) ?? '')}>Link</button>
      <i className={css.sep} />
      <button type="button" onClick={() => file.current?.click()}>Picture</button>
      <input ref={file} type="file" hidden multiple accept="image/*" aria-label="Choose pictures" onChange={(e) => { onPicture([...(e.target.files ?? [])]); e.target.value = ''; }} />
      <button type="button" style={{ marginLeft: 'auto' }} disabled={!on.undo} onClick={() => chain().undo().run()}>Undo</button>
      <button type="button" disabled={!on.redo} onClick={() => chain().redo().run()}>Redo</button>
    </div>
  );
}
