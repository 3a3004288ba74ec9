import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { filesOptions } from '../api/queries';
import type { FileView } from '../api/schema';
import './Reading.css';

interface ReadingProps {
  html: string;
  /** The post whose files stand in the text; left out where there are none. */
  postId?: number;
}

/** The text of a post, with players and documents where files stand. The HTML is clean: the server's sanitiser made it. */
export function Reading({ html, postId }: ReadingProps) {
  const place = useRef<HTMLDivElement>(null);
  const hasFiles = html.includes('data-kind');
  const { data: files } = useQuery({ ...filesOptions(postId ?? 0), enabled: hasFiles && !!postId });
  useEffect(() => {
    if (hasFiles) place.current?.querySelectorAll<HTMLElement>('figure[data-kind]').forEach((figure) => furnish(figure, files ?? []));
  }, [html, files, hasFiles]);
  return <div ref={place} key={files ? 'files' : 'text'} className="reading" dangerouslySetInnerHTML={{ __html: html }} />;
}

const element = <K extends keyof HTMLElementTagNameMap>(tag: K, text = '', of: Partial<HTMLElementTagNameMap[K]> = {}) => Object.assign(document.createElement(tag), { textContent: text, ...of });

const size = (bytes: number) => (bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`);

function furnish(figure: HTMLElement, files: FileView[]) {
  const link = figure.querySelector('a');
  if (!link || figure.dataset.done) return;
  const address = link.getAttribute('href') ?? '';
  const file = files.find((f) => f.address === address);
  const kind = figure.dataset.kind;
  if (kind === 'card') {
    link.target = '_blank';
    link.before(element('span', `A video at ${new URL(address, location.href).host}`));
    link.after(element('small', 'It is kept elsewhere. Nothing of it is loaded before you open it.'));
  } else if (kind === 'document' && file) {
    link.before(element('span', `${(file.name.split('.').pop() ?? '').toUpperCase()} · ${size(file.size)}`));
  } else if ((kind === 'sound' || kind === 'video') && file) {
    const player = element(kind === 'sound' ? 'audio' : 'video', '', { controls: true, preload: 'metadata', src: address });
    player.setAttribute('aria-label', file.name);
    link.replaceWith(player);
  } else return;
  figure.dataset.done = 'yes';
}
