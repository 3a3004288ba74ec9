import type { Editor } from '@tiptap/react';
import { getJson, withParams } from '../api/client';
import type { VideoFound } from '../api/schema';
import { playerIn } from './paste';
import { putIn } from './putIn';

/** Puts a card of a video in: by the address of its page, of its player, or by the code of the player. */
export async function putVideo(editor: Editor, typed: string) {
  const code = playerIn(typed) ?? typed.trim();
  const address = /^[a-z]+:/i.test(code) ? code : `https://${code}`;
  const { video } = await getJson<VideoFound>(withParams('/api/video', { address })).catch((): VideoFound => ({}));
  putIn(editor, 'file', { kind: 'card', href: video?.page ?? address, name: '' });
}
