import { Node, type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { Word } from '../ui/Word';
import css from './Write.module.css';

const WORDS: Record<string, string> = {
  sound: 'Sound',
  video: 'Video',
  document: 'Document',
  card: 'A video kept elsewhere',
};

/** A file in the editor: what it is, a line under it, and a way to take it out. */
function FileView({ node, updateAttributes, deleteNode }: NodeViewProps) {
  const { kind, href, name, caption } = node.attrs as Record<string, string>;
  return (
    <NodeViewWrapper as="figure" className={`${css.figure} ${css.file}`} contentEditable={false}>
      <p className="above-0 below-0">
        <b>{WORDS[kind] ?? 'File'}</b> · {kind === 'card' ? href.replace(/^https?:\/\//, '') : name}
      </p>
      {kind === 'sound' && <audio className="full above-2" controls preload="none" src={href} />}
      {kind === 'card' && (
        <label>
          What is it called?
          <input value={name} onChange={(e) => updateAttributes({ name: e.target.value })} />
        </label>
      )}
      <label>
        Line under it
        <input value={caption} onChange={(e) => updateAttributes({ caption: e.target.value })} />
      </label>
      <div className={css.widths}>
        <Word className="push" tiny onClick={() => deleteNode()}>
          Take it out
        </Word>
      </div>
    </NodeViewWrapper>
  );
}

/** A sound, a video, a document, or a card that leads to a video elsewhere: a figure with a link, which is all that the sanitiser lets through. */
export const File = Node.create({
  name: 'file',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes() {
    return { kind: { default: 'document' }, href: { default: '' }, name: { default: '' }, caption: { default: '' } };
  },
  parseHTML() {
    return [
      {
        tag: 'figure[data-kind]',
        priority: 60,
        getAttrs: (figure) => {
          const link = figure.querySelector('a');
          // What has no name yet shows its address; that is not its name.
          return link
            ? {
                kind: figure.getAttribute('data-kind'),
                href: link.getAttribute('href') ?? '',
                name: link.textContent === link.getAttribute('href') ? '' : link.textContent,
                caption: figure.querySelector('figcaption')?.textContent ?? '',
              }
            : false;
        },
      },
    ];
  },
  renderHTML({ node }) {
    const { kind, href, name, caption } = node.attrs as Record<string, string>;
    const link = ['a', { href }, name || href] as const;
    return caption
      ? ['figure', { 'data-kind': kind }, link, ['figcaption', caption]]
      : ['figure', { 'data-kind': kind }, link];
  },
  addNodeView() {
    return ReactNodeViewRenderer(FileView);
  },
});
