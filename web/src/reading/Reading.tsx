import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { getJson, withParams } from '../api/client';
import { filesOptions } from '../api/queries';
import type { FileView, VideoFound } from '../api/schema';
import { CleanHtml } from '../ui/CleanHtml';
import './Reading.css';

interface ReadingProps {
  html: string;
  /** The post whose files stand in the text; left out where there are none, or its number is not known. */
  postId?: number;
}

/** The text of a post, with players and documents where files stand. The HTML is clean: the server's sanitiser made it. */
export function Reading({ html, postId }: ReadingProps) {
  const place = useRef<HTMLDivElement>(null);
  const hasFiles = html.includes('data-kind');
  const { data: files } = useQuery({ ...filesOptions(postId ?? 0), enabled: hasFiles && !!postId });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another text draws the figures anew
  useEffect(() => {
    if (hasFiles)
      place.current
        ?.querySelectorAll<HTMLElement>('figure[data-kind]')
        .forEach((figure) => furnish(figure, files ?? [], !postId));
  }, [html, files, hasFiles, postId]);
  return <CleanHtml ref={place} key={files ? 'files' : 'text'} className="reading" html={html} />;
}

const element = <K extends keyof HTMLElementTagNameMap>(
  tag: K,
  text = '',
  of: Partial<HTMLElementTagNameMap[K]> = {},
) => Object.assign(document.createElement(tag), { textContent: text, ...of });

const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

/** @param any whether what sounds or moves plays though nothing more is known of it */
function furnish(figure: HTMLElement, files: FileView[], any: boolean) {
  const link = figure.querySelector('a');
  if (!link || figure.dataset.done) return;
  const address = link.getAttribute('href') ?? '';
  const file = files.find((f) => f.address === address);
  const kind = figure.dataset.kind;
  if (kind === 'card') {
    link.target = '_blank';
    link.before(element('span', `A video at ${new URL(address, location.href).host}`));
    link.after(element('small', 'It is kept elsewhere. Nothing of it is loaded before you open it.'));
    void offerToPlay(figure, address);
  } else if (kind === 'document' && file) {
    link.before(element('span', `${(file.name.split('.').pop() ?? '').toUpperCase()} · ${size(file.size)}`));
    if (file.pages > 0) figure.append(pagesOf(file));
  } else if ((kind === 'sound' || kind === 'video') && (file || any)) {
    const player = element(kind === 'sound' ? 'audio' : 'video', '', {
      controls: true,
      preload: 'metadata',
      src: address,
    });
    player.setAttribute('aria-label', file?.name ?? link.textContent ?? '');
    link.replaceWith(player);
  } else return;
  figure.dataset.done = 'yes';
}

/** A video of a page that the school has chosen plays where it stands, once somebody wants it: before that nothing outside is asked. */
async function offerToPlay(figure: HTMLElement, address: string) {
  const { video } = await getJson<VideoFound>(withParams('/api/video', { address })).catch((): VideoFound => ({}));
  if (!video || !figure.isConnected) return;
  const button = element('button', 'Play it here', { type: 'button', className: 'btn' });
  button.onclick = () => {
    const frame = element('iframe', '', {
      src: video.frame,
      title: `Video at ${new URL(video.frame).host}`,
      referrerPolicy: 'no-referrer',
      allow: 'fullscreen',
    });
    // A player runs, and reaches nothing of this page.
    frame.setAttribute('sandbox', 'allow-scripts allow-same-origin allow-presentation');
    button.replaceWith(frame);
    frame.focus();
  };
  figure.append(button);
}

/** The pages of a PDF, one at a time, as the server draws them. */
function pagesOf(file: FileView): HTMLElement {
  const place = element('div', '', { className: 'pages' });
  const image = element('img', '', { loading: 'lazy' });
  const where = element('span');
  const back = element('button', 'Page before', { type: 'button', className: 'word' });
  const on = element('button', 'Next page', { type: 'button', className: 'word' });
  let no = 1;
  const show = (to: number) => {
    no = to;
    image.src = `${file.address}/pages/${no}`;
    image.alt = `Page ${no} of ${file.pages} of ${file.name}`;
    where.textContent = `Page ${no} of ${file.pages}`;
    back.disabled = no === 1;
    on.disabled = no === file.pages;
  };
  back.onclick = () => show(no - 1);
  on.onclick = () => show(no + 1);
  image.onerror = () => {
    where.textContent = 'This page cannot be drawn here. Open the file to read it.';
  };
  show(1);
  const bar = element('p');
  bar.append(back, where, on);
  place.append(image, bar);
  return place;
}
