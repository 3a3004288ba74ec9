import { Extension } from '@tiptap/react';

const BLOCKS = ['paragraph', 'heading'];

/** Alignment of paragraphs and headings, kept as a mark of our own that the sanitiser knows. */
export const Align = Extension.create({
  name: 'align',
  addGlobalAttributes() {
    return [
      {
        types: BLOCKS,
        attributes: {
          align: {
            default: null,
            parseHTML: (element) =>
              element.getAttribute('data-align') ??
              (['center', 'right'].includes(element.style.textAlign) ? element.style.textAlign : null),
            renderHTML: ({ align }) => (align ? { 'data-align': align as string } : {}),
          },
        },
      },
    ];
  },
});
