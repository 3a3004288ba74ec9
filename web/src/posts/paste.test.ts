import { describe, expect, it } from 'vitest';
import { plainPaste } from './paste';

describe('what is pasted from elsewhere', () => {
  it('leaves scripts, styles, frames and notes to programs out', () => {
    expect(plainPaste('<style>p{}</style><!--[if mso]>x<![endif]--><p>Slugs<script>harm()</script></p><iframe src="https://x.example"></iframe><o:p></o:p>')).toBe('<p>Slugs</p>');
  });

  it('puts headings on the two steps that a post has', () => {
    expect(plainPaste('<h1>A</h1><h2>B</h2><h3>C</h3><h5>D <em>d</em></h5>')).toBe('<h2>A</h2><h2>B</h2><h3>C</h3><h3>D <em>d</em></h3>');
  });

  it('makes lists of paragraphs that a word processor drew as such', () => {
    const point = (sign: string, words: string) => `<p class="MsoListParagraph">${sign}&nbsp;&nbsp; ${words}</p>`;
    expect(plainPaste(`${point('·', 'leaves')}${point('·', '<b>stems</b>')}<p>Then:</p>${point('1.', 'dig')}${point('2.', 'sow')}`)).toBe(
      '<ul><li>leaves</li><li><b>stems</b></li></ul><p>Then:</p><ol><li>dig</li><li>sow</li></ol>');
  });

  it('begins a new list where the signs change from points to numbers', () => {
    expect(plainPaste('<p class="MsoList">· a</p><p class="MsoList">1) b</p>')).toBe('<ul><li>a</li></ul><ol><li>b</li></ol>');
  });

  it('leaves a sentence that only looks like a point', () => {
    expect(plainPaste('<p>- a dash, said she</p>')).toBe('<p>- a dash, said she</p>');
    expect(plainPaste('<p class="MsoList">No sign here</p>')).toBe('<p class="MsoList">No sign here</p>');
  });
});
