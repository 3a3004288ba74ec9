import { describe, expect, it } from 'vitest';
import type { Hold, Stretch } from '../api/schema';
import { laidOpen, markChanges, markLine } from './markText';

const holds = (...found: string[]) => found.map((f) => ({ found: f }) as Hold);
const stretch = (change: string, text: string) => ({ change, text }) as Stretch;

describe('a text as it is read by whoever decides about it', () => {
  it('marks each place of a hold, the longest first', () => {
    expect(laidOpen('<p>Call 0161 496 0000 or 0161.</p>', holds('0161', '0161 496 0000'))).toBe(
      '<p>Call <mark>0161 496 0000</mark> or <mark>0161</mark>.</p>',
    );
  });

  it('takes signs of patterns in what was found as signs', () => {
    expect(laidOpen('<p>a.b axb (a.b)</p>', holds('a.b'))).toBe('<p><mark>a.b</mark> axb (<mark>a.b</mark>)</p>');
  });

  it('never makes mark-up of words', () => {
    expect(laidOpen('<p>Write &lt;b&gt; &amp; "x" for 07700</p>', holds('07700'))).toBe(
      '<p>Write &lt;b&gt; &amp; "x" for <mark>07700</mark></p>',
    );
    expect(markLine([stretch('ADDED', '<img src=x onerror=alert(1)>')], holds('<img'))).toBe(
      '<ins><mark>&lt;img</mark> src=x onerror=alert(1)&gt;</ins>',
    );
  });

  it('says what readers do not see at once: alternative texts, and where links lead', () => {
    expect(
      laidOpen('<img src="/media/1" alt="Eleven leaves"><a href="https://elsewhere.example/x">our list</a>', []),
    ).toBe(
      '<img src="/media/1" alt="Eleven leaves"><small class="laid">For those who cannot see it: Eleven leaves</small><a href="https://elsewhere.example/x">our list</a><small class="laid">https://elsewhere.example/x</small>',
    );
  });

  it('says nothing twice: no address that stands there anyway, no own page, no empty alternative text', () => {
    const html =
      '<a href="https://a.example/">https://a.example/</a><a href="/posts/3">there</a><img src="/media/1" alt="">';
    expect(laidOpen(html, [])).toBe(html);
  });

  it('shows by words what is new and what is gone, over the ends of paragraphs', () => {
    expect(
      markChanges(
        [stretch('SAME', 'Eleven leaves.\n'), stretch('REMOVED', 'Ten.'), stretch('ADDED', 'Twelve.\n\nAnd rain.')],
        [],
      ),
    ).toBe('<p>Eleven leaves.</p><p><del>Ten.</del><ins>Twelve.</ins></p><p><ins>And rain.</ins></p>');
  });
});
