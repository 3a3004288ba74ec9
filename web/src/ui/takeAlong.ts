/** Hands a list of feeds to the reader as a file. */
export function takeAlong(name: string, text: string) {
  const file = URL.createObjectURL(new Blob([text], { type: 'text/x-opml' }));
  Object.assign(document.createElement('a'), { href: file, download: name }).click();
  URL.revokeObjectURL(file);
}
