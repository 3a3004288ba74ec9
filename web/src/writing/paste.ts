/**
 * What comes from a word processor or a web page, made plain before the editor reads it: headings one step lower, lists that are only drawn as
 * such made lists, and everything that is not text gone. The server cleans once more.
 */
export function plainPaste(html: string): string {
  const page = new DOMParser().parseFromString(
    html.replace(/<!--[\s\S]*?-->/g, '').replace(/<\/?o:p>/g, ''),
    'text/html',
  );
  page.querySelectorAll('style, script, meta, link, title, iframe, object, embed').forEach((e) => e.remove());
  page.querySelectorAll('h1').forEach((h) => rename(h, 'h2'));
  page.querySelectorAll('h4, h5, h6').forEach((h) => rename(h, 'h3'));
  listsOf(page);
  return page.body.innerHTML;
}

function rename(element: Element, tag: string) {
  const other = element.ownerDocument.createElement(tag);
  other.append(...element.childNodes);
  element.replaceWith(other);
}

/** Word processors write the points of a list as paragraphs with a sign and some blanks before the words. */
function listsOf(page: Document) {
  let list: Element | null = null;
  for (const p of [...page.querySelectorAll('p')]) {
    const text = p.textContent ?? '';
    const point = /MsoList/i.test(p.className) || /mso-list/i.test(p.getAttribute('style') ?? '');
    const sign = /^\s*(?:[·•§o▪–-]|(\d+)[.)])[\s\u00a0]+/.exec(text);
    if (!point || !sign) {
      list = null;
      continue;
    }
    const tag = sign[1] ? 'ol' : 'ul';
    if (!list || list.localName !== tag || list.nextElementSibling !== p) {
      list = page.createElement(tag);
      p.before(list);
    }
    const item = page.createElement('li');
    trimStart(p, sign[0].length);
    item.append(...p.childNodes);
    list.append(item);
    p.remove();
  }
}

function trimStart(p: Element, characters: number) {
  const walker = p.ownerDocument.createTreeWalker(p, NodeFilter.SHOW_TEXT);
  for (let left = characters; left > 0 && walker.nextNode(); ) {
    const text = walker.currentNode as Text;
    const cut = Math.min(left, text.data.length);
    text.data = text.data.slice(cut);
    left -= cut;
  }
}

/** More pictures than these are not taken along with one paste. */
export const MOST_PICTURES = 12;

/** The pictures of a pasted page that are kept elsewhere, or carried in it: those of this school stay as they are. */
export function picturesIn(html: string): string[] {
  const page = new DOMParser().parseFromString(html, 'text/html');
  const all = [...page.querySelectorAll('img[src]')]
    .map((img) => img.getAttribute('src')!)
    .map((src) => (src.startsWith('//') ? `https:${src}` : src));
  return [
    ...new Set(all.filter((src) => /^https?:\/\//i.test(src) || /^data:image\/(png|jpeg|gif|bmp);base64,/i.test(src))),
  ];
}

/** A line of text that is more than a text: the address of a picture, or the code by which a video page puts its player elsewhere. */
export function pastedAs(text: string): { type: 'picture' | 'video'; address: string } | null {
  const line = text.trim();
  if (/^https?:\/\/\S+\.(png|jpe?g|gif|bmp)(\?\S*)?$/i.test(line)) return { type: 'picture', address: line };
  const frame = playerIn(line);
  return frame ? { type: 'video', address: frame } : null;
}

/** The address in a piece of code that puts a player somewhere; null if it is none. */
export function playerIn(code: string): string | null {
  if (!/^\s*<(iframe|div|p|blockquote)\b/i.test(code)) return null;
  const src = new DOMParser().parseFromString(code, 'text/html').querySelector('iframe[src]')?.getAttribute('src');
  if (!src) return null;
  return src.startsWith('//') ? `https:${src}` : /^https?:\/\//i.test(src) ? src : null;
}

/** A picture that a page carries in itself, as a file. */
export function carriedFile(address: string): File {
  const [head = '', body = ''] = address.split(',', 2);
  const bytes = Uint8Array.from(atob(body.replace(/\s/g, '')), (c) => c.charCodeAt(0));
  return new File([bytes], 'picture', { type: /^data:([^;]+)/.exec(head)?.[1] ?? '' });
}
