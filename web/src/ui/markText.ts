import type { Hold, Stretch } from '../api/schema';

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

function marked(text: string, holds: Hold[]): string {
  const found = [...new Set(holds.map((h) => h.found).filter(Boolean))].sort((a, b) => b.length - a.length);
  if (found.length === 0) return escaped(text);
  const pattern = new RegExp(found.map((f) => f.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|'), 'g');
  let at = 0;
  let html = '';
  for (const match of text.matchAll(pattern)) {
    html += `${escaped(text.slice(at, match.index))}<mark>${escaped(match[0])}</mark>`;
    at = match.index + match[0].length;
  }
  return html + escaped(text.slice(at));
}

/**
 * Clean HTML from the server as somebody looks at it who decides about it: with what readers do not see at once, alternative texts
 * and where links lead, and with the places of its holds marked.
 */
export function laidOpen(html: string, holds: Hold[]): string {
  const page = new DOMParser().parseFromString(html, 'text/html');
  const say = (after: Element, words: string) =>
    after.after(Object.assign(page.createElement('small'), { className: 'laid', textContent: words }));
  page
    .querySelectorAll('img[alt]:not([alt=""])')
    .forEach((img) => say(img, `For those who cannot see it: ${img.getAttribute('alt')}`));
  page.querySelectorAll('a[href]').forEach((link) => {
    const address = link.getAttribute('href')!;
    if (!address.startsWith('/') && address !== link.textContent) say(link, address);
  });
  const walker = page.createTreeWalker(page.body, NodeFilter.SHOW_TEXT);
  const texts: Text[] = [];
  while (walker.nextNode()) texts.push(walker.currentNode as Text);
  for (const text of texts) {
    const shell = page.createElement('span');
    shell.innerHTML = marked(text.data, holds);
    if (shell.querySelector('mark')) text.replaceWith(...shell.childNodes);
  }
  return page.body.innerHTML;
}

const BREAK = '</p><p>';

/** What changed in a text of one line, by words, with the holds marked. */
export function markLine(changes: Stretch[], holds: Hold[]): string {
  return changes
    .map(({ change, text }) => {
      const words = marked(text, holds).replace(/\n+/g, BREAK);
      const tag = change === 'ADDED' ? 'ins' : change === 'REMOVED' ? 'del' : '';
      return tag ? `<${tag}>${words.split(BREAK).join(`</${tag}>${BREAK}<${tag}>`)}</${tag}>` : words;
    })
    .join('');
}

/** The same of a text of several: paragraphs as it has lines. */
export function markChanges(changes: Stretch[], holds: Hold[]): string {
  return `<p>${markLine(changes, holds)}</p>`;
}
