import { EditorContent, useEditor } from '@tiptap/react';
import { useState } from 'react';
import { ApiProblem, postFile } from '../api/client';
import type { DrawerItem } from '../api/schema';
import { extensionsFor } from '../writing/extensions';
import { plainPaste } from '../writing/paste';
import { putIn } from '../writing/putIn';
import { Tools } from '../writing/Tools';
import css from './Compose.module.css';

const TOOLS = [
  'BOLD',
  'ITALIC',
  'UNDERLINE',
  'STRIKE',
  'HEADING',
  'LIST',
  'QUOTE',
  'LINK',
  'ALIGN',
  'PICTURE',
  'SOUND',
  'VIDEO',
  'DOCUMENT',
];

interface PromptTextProps {
  classId: number;
  /** What to begin with; changes of it afterwards are not followed. */
  html: string;
  /** What the text is. */
  label: string;
  onChange: (html: string) => void;
}

/** A text of a prompt, in the editor that students write with; pictures and files are seen with the prompt alone. */
export function PromptText({ classId, html, label, onChange }: PromptTextProps) {
  const [problem, setProblem] = useState('');
  const editor = useEditor({
    extensions: extensionsFor(TOOLS),
    content: html,
    editorProps: {
      attributes: { class: 'reading', role: 'textbox', 'aria-label': label, 'aria-multiline': 'true' },
      transformPastedHTML: plainPaste,
      handlePaste: (_view, event) =>
        !event.clipboardData?.getData('text/html') && takeFiles([...(event.clipboardData?.files ?? [])]),
      handleDrop: (_view, event) => takeFiles([...((event as DragEvent).dataTransfer?.files ?? [])]),
    },
    onUpdate: ({ editor: e }) => onChange(e.isEmpty ? '' : e.getHTML()),
  });
  const takeFiles = (files: File[]): boolean => {
    if (files.length === 0) return false;
    void upload(files);
    return true;
  };
  const upload = async (files: File[]) => {
    setProblem('');
    for (const file of files) {
      const isPicture = file.type.startsWith('image/');
      try {
        const at = `/api/classes/${classId}/drawer/${isPicture ? 'pictures' : 'files'}`;
        const { address, name, kind } = await postFile<DrawerItem>(at, file);
        if (!editor) return;
        if (isPicture) putIn(editor, 'picture', { src: address });
        else putIn(editor, 'file', { href: address, name, kind: kind.toLowerCase() });
      } catch (e) {
        setProblem(`${file.name}: ${e instanceof ApiProblem ? e.message : 'It could not be added.'}`);
      }
    }
  };
  return (
    <div className={css.instructions}>
      {editor && <Tools editor={editor} tools={TOOLS} onFiles={upload} />}
      {problem && (
        <p className="tell wrong" role="alert">
          {problem}
        </p>
      )}
      <EditorContent editor={editor} />
    </div>
  );
}
