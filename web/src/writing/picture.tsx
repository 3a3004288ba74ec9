import { mergeAttributes, Node, type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { Word } from '../ui/Word';
import css from './Write.module.css';

const WIDTHS = [
  ['third', 'a third'],
  ['half', 'half'],
  ['full', 'full'],
] as const;

/** A picture in the editor with its caption, its words for those who cannot see it, and its width. */
function PictureView({ node, updateAttributes, deleteNode }: NodeViewProps) {
  const { src, alt, caption, width } = node.attrs as { src: string; alt: string; caption: string; width: string };
  return (
    <NodeViewWrapper as="figure" className={css.figure} contentEditable={false}>
      <img src={src} alt={alt} data-width={width || undefined} />
      <label>
        For those who cannot see it: what is in the picture?
        <input value={alt} onChange={(e) => updateAttributes({ alt: e.target.value })} />
      </label>
      <label>
        Line under the picture
        <input value={caption} onChange={(e) => updateAttributes({ caption: e.target.value })} />
      </label>
      <div className={css.widths}>
        <span className="muted">Width:</span>
        {WIDTHS.map(([value, word]) => (
          <Word
            key={value}
            tiny
            aria-pressed={(width || 'full') === value}
            onClick={() => updateAttributes({ width: value })}
          >
            {word}
          </Word>
        ))}
        <Word className="push" tiny onClick={() => deleteNode()}>
          Take the picture out
        </Word>
      </div>
    </NodeViewWrapper>
  );
}

/** A figure of the post: kept as figure, img and figcaption, which is all that the sanitiser lets through. */
export const Picture = Node.create({
  name: 'picture',
  group: 'block',
  atom: true,
  draggable: true,
  addAttributes() {
    return { src: { default: '' }, alt: { default: '' }, caption: { default: '' }, width: { default: '' } };
  },
  parseHTML() {
    const read = (img: Element | null, figure?: Element) =>
      img?.getAttribute('src')?.startsWith('/media/')
        ? {
            src: img.getAttribute('src'),
            alt: img.getAttribute('alt') ?? '',
            width: img.getAttribute('data-width') ?? '',
            caption: figure?.querySelector('figcaption')?.textContent ?? '',
          }
        : false;
    return [
      { tag: 'figure', getAttrs: (figure) => read(figure.querySelector('img'), figure) },
      { tag: 'img[src]', getAttrs: (img) => read(img) },
    ];
  },
  renderHTML({ node }) {
    const { src, alt, caption, width } = node.attrs as Record<string, string>;
    const img = ['img', mergeAttributes({ src, alt }, width ? { 'data-width': width } : {})] as const;
    return caption ? ['figure', img, ['figcaption', caption]] : ['figure', img];
  },
  addNodeView() {
    return ReactNodeViewRenderer(PictureView);
  },
});
