/** Words in a text that one writes beside, and which occurrence of them, from 0. */
export interface Passage {
  quote: string;
  nth: number;
}

/** What is selected in a text; ACROSS if it goes over a paragraph's end. */
export function chosenIn(root: HTMLElement | null): Passage | 'ACROSS' | null {
  const selection = document.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  if (!root?.contains(range.commonAncestorContainer)) return null;
  const quote = selection.toString().trim();
  if (!quote) return null;
  if (quote.includes('\n')) return 'ACROSS';
  const before = document.createRange();
  before.selectNodeContents(root);
  before.setEnd(range.startContainer, range.startOffset);
  return { quote, nth: before.toString().split(quote).length - 1 };
}

/** Where a passage stands in a text; the last of them if there are fewer by now, nothing if there is none. */
export function placeOf(root: HTMLElement, { quote, nth }: Passage): Range | null {
  const walk = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
  const nodes: { node: Text; from: number }[] = [];
  let text = '';
  for (let node = walk.nextNode() as Text | null; node; node = walk.nextNode() as Text | null) {
    nodes.push({ node, from: text.length });
    text += node.data;
  }
  let at = text.indexOf(quote);
  for (let i = 0; i < nth && at >= 0; i++) {
    const next = text.indexOf(quote, at + quote.length);
    if (next < 0) break;
    at = next;
  }
  if (at < 0) return null;
  const end = at + quote.length;
  const first = nodes.filter((n) => n.from <= at).at(-1)!;
  const last = nodes.filter((n) => n.from < end).at(-1)!;
  const range = document.createRange();
  range.setStart(first.node, at - first.from);
  range.setEnd(last.node, end - last.from);
  return range;
}

/** Marks ranges on the page under a name that the styles know, until what is given back is called. */
export function mark(name: string, ranges: Range[]): () => void {
  if (!CSS.highlights) return () => {};
  const highlight = CSS.highlights.get(name) ?? new Highlight();
  CSS.highlights.set(name, highlight);
  for (const range of ranges) highlight.add(range);
  return () => {
    for (const range of ranges) highlight.delete(range);
  };
}
