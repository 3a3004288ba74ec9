import { Menu } from '@mantine/core';
import { type Editor, useEditorState } from '@tiptap/react';
import { useRef, useState } from 'react';
import { DrawerPick } from '../drawer/DrawerPick';
import { putIn } from './putIn';
import { putVideo } from './putVideo';
import { Recorder } from './Recorder';
import css from './Write.module.css';

interface ToolsProps {
  editor: Editor;
  /** What this writer has; a class can switch tools off for its students. */
  tools: string[];
  onFiles: (files: File[]) => void;
}

type Asking = { for: 'link' | 'card'; address: string };

const isFileName = (name: string) => /\.\w{2,5}$/.test(name);

/** The tool row of the editor: words, not signs. */
export function Tools({ editor, tools, onFiles }: ToolsProps) {
  const pictures = useRef<HTMLInputElement>(null);
  const files = useRef<HTMLInputElement>(null);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [recording, setRecording] = useState(false);
  const has = (tool: string) => tools.includes(tool);
  const on = useEditorState({
    editor,
    selector: ({ editor: e }) => ({
      bold: e.isActive('bold'),
      italic: e.isActive('italic'),
      underline: e.isActive('underline'),
      strike: e.isActive('strike'),
      heading: e.isActive('heading'),
      list: e.isActive('bulletList'),
      numbers: e.isActive('orderedList'),
      quote: e.isActive('blockquote'),
      link: e.isActive('link'),
      undo: e.can().undo(),
      redo: e.can().redo(),
      align: ((e.getAttributes('heading').align ?? e.getAttributes('paragraph').align) as string | null) ?? 'left',
    }),
  });
  const chain = () => editor.chain().focus();
  const set = () => {
    const address = asking?.address.trim() ?? '';
    const whole = /^[a-z]+:/i.test(address) ? address : `https://${address}`;
    if (asking?.for === 'card' && address) void putVideo(editor, address);
    if (asking?.for === 'link' && !address) chain().unsetLink().run();
    if (asking?.for === 'link' && address) chain().extendMarkRange('link').setLink({ href: whole }).run();
    setAsking(null);
  };
  const align = (to: string | null) =>
    chain().updateAttributes('paragraph', { align: to }).updateAttributes('heading', { align: to }).run();
  if (asking)
    return (
      // No form: the editor may stand in one.
      <div className={css.tools} role="group" aria-label="Where it leads">
        <input
          autoFocus
          aria-label={asking.for === 'link' ? 'Address of the link' : 'Address of the video page'}
          placeholder={
            asking.for === 'link'
              ? 'Where the link leads: https://…'
              : 'The page of the video, or its code to put it elsewhere'
          }
          value={asking.address}
          onChange={(e) => setAsking({ ...asking, address: e.target.value })}
          className={`${css.tagbox} grow`}
          onKeyDown={(e) => {
            if (e.key === 'Escape') setAsking(null);
            if (e.key !== 'Enter') return;
            e.preventDefault();
            set();
          }}
        />
        <button type="button" onClick={set}>
          {asking.for === 'link' ? 'Set the link' : 'Put it in'}
        </button>
        <button type="button" onClick={() => setAsking(null)}>
          Cancel
        </button>
      </div>
    );
  const button = (tool: string, pressed: boolean, label: React.ReactNode, run: () => void, name?: string) =>
    has(tool) && (
      <button type="button" aria-label={name} aria-pressed={pressed} onClick={run}>
        {label}
      </button>
    );
  return (
    <div className={css.tools} role="toolbar" aria-label="Writing tools">
      {button('BOLD', on.bold, <b>B</b>, () => chain().toggleBold().run(), 'Bold')}
      {button('ITALIC', on.italic, <i>I</i>, () => chain().toggleItalic().run(), 'Italic')}
      {button('UNDERLINE', on.underline, <u>U</u>, () => chain().toggleUnderline().run(), 'Underline')}
      {button('STRIKE', on.strike, <s>S</s>, () => chain().toggleStrike().run(), 'Strike through')}
      <i className={css.sep} />
      {button('HEADING', on.heading, 'Heading', () => chain().toggleHeading({ level: 2 }).run())}
      {button('LIST', on.list, 'List', () => chain().toggleBulletList().run())}
      {button(
        'LIST',
        on.numbers,
        <span aria-hidden="true">1 2 3</span>,
        () => chain().toggleOrderedList().run(),
        'Numbered list',
      )}
      {button('QUOTE', on.quote, 'Quote', () => chain().toggleBlockquote().run())}
      {has('ALIGN') && (
        <Menu position="bottom-start" width={150}>
          <Menu.Target>
            <button type="button" aria-label={`Alignment: ${on.align}`}>
              Align
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => align(null)}>Left</Menu.Item>
            <Menu.Item onClick={() => align('center')}>In the middle</Menu.Item>
            <Menu.Item onClick={() => align('right')}>Right</Menu.Item>
          </Menu.Dropdown>
        </Menu>
      )}
      {button('LINK', on.link, 'Link', () =>
        setAsking({ for: 'link', address: (editor.getAttributes('link').href as string) ?? '' }),
      )}
      <i className={css.sep} />
      {has('PICTURE') && (
        <button type="button" onClick={() => pictures.current?.click()}>
          Picture
        </button>
      )}
      {['SOUND', 'VIDEO', 'DOCUMENT'].some(has) && (
        <Menu position="bottom-start" width={230}>
          <Menu.Target>
            <button type="button">File</button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => files.current?.click()}>
              {[has('SOUND') && 'sound', has('VIDEO') && 'video', has('DOCUMENT') && 'a document']
                .filter(Boolean)
                .join(', ')
                .replace(/^./, (c) => c.toUpperCase())}
            </Menu.Item>
            {has('SOUND') && <Menu.Item onClick={() => setRecording(true)}>Record sound</Menu.Item>}
            {has('VIDEO') && (
              <Menu.Item onClick={() => setAsking({ for: 'card', address: '' })}>A video kept elsewhere</Menu.Item>
            )}
          </Menu.Dropdown>
        </Menu>
      )}
      <DrawerPick
        onTake={(item) =>
          item.kind === 'PICTURE'
            ? putIn(editor, 'picture', { src: item.address, alt: isFileName(item.name) ? '' : item.name })
            : putIn(editor, 'file', { href: item.address, name: item.name, kind: item.kind.toLowerCase() })
        }
      />
      <input
        ref={pictures}
        type="file"
        hidden
        multiple
        accept="image/*"
        aria-label="Choose pictures"
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
      <input
        ref={files}
        type="file"
        hidden
        multiple
        aria-label="Choose files"
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
      <button className="push" type="button" disabled={!on.undo} onClick={() => chain().undo().run()}>
        Undo
      </button>
      <button type="button" disabled={!on.redo} onClick={() => chain().redo().run()}>
        Redo
      </button>
      {recording && <Recorder onClose={() => setRecording(false)} onTake={(file) => onFiles([file])} />}
    </div>
  );
}
