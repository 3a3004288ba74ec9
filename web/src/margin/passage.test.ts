import { afterEach, expect, it } from 'vitest';
import { chosenIn, placeOf } from './passage';

afterEach(() => {
  document.body.innerHTML = '';
});

function text(html: string) {
  const root = document.createElement('div');
  root.innerHTML = html;
  document.body.append(root);
  return root;
}

it('finds words where they stand, over marks in them too', () => {
  const root = text('<p>A slug and a <b>big sl</b>ug.</p><p>A slug.</p>');
  expect(placeOf(root, { quote: 'slug', nth: 0 })?.startContainer.textContent).toBe('A slug and a ');
  const second = placeOf(root, { quote: 'slug', nth: 1 })!;
  expect(second.toString()).toBe('slug');
  expect(second.startContainer.textContent).toBe('big sl');
  expect(second.endContainer.textContent).toBe('ug.');
});

it('means the last of them if there are fewer, and nothing if there is none', () => {
  const root = text('<p>One slug, another slug.</p>');
  expect(placeOf(root, { quote: 'slug', nth: 9 })?.startOffset).toBe('One slug, another '.length);
  expect(placeOf(root, { quote: 'snail', nth: 0 })).toBeNull();
});

it('says what is chosen, and finds it there again', () => {
  const root = text('<p>One slug, another slug.</p>');
  const words = root.querySelector('p')!.firstChild!;
  document.getSelection()!.setBaseAndExtent(words, 18, words, 22);
  const chosen = chosenIn(root);
  expect(chosen).toEqual({ quote: 'slug', nth: 1 });
  expect(placeOf(root, chosen as { quote: string; nth: number })?.startOffset).toBe(18);
  expect(chosenIn(text('<p>Elsewhere</p>'))).toBeNull();
});
