/**
 * What comes from a word processor or a web page, made plain before the editor reads it: headings one step lower, lists that are only drawn as
 * such made lists, and everything that is not text gone. The server cleans once more.
 */
export function plainPaste(html: string): string {
  const page = new DOMParser().parseFromString(html.replace(/<!--[\s\S]*?-->/g, '').replace(/<\/?o:p>/g, ''), 'text/html');
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
