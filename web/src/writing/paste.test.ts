import { describe, expect, it } from 'vitest';
import { carriedFile, pastedAs, picturesIn, plainPaste, playerIn } from './paste';

describe('what is pasted from elsewhere', () => {
  it('leaves scripts, styles, frames and notes to programs out', () => {
    expect(
      plainPaste(
        '<style>p{}</style><!--[if mso]>x<![endif]--><p>Slugs<script>harm()</script></p><iframe src="https://x.example"></iframe><o:p></o:p>',
      ),
    ).toBe('<p>Slugs</p>');
  });

  it('puts headings on the two steps that a post has', () => {
    expect(plainPaste('<h1>A</h1><h2>B</h2><h3>C</h3><h5>D <em>d</em></h5>')).toBe(
      '<h2>A</h2><h2>B</h2><h3>C</h3><h3>D <em>d</em></h3>',
    );
  });

  it('makes lists of paragraphs that a word processor drew as such', () => {
    const point = (sign: string, words: string) => `<p class="MsoListParagraph">${sign}&nbsp;&nbsp; ${words}</p>`;
    expect(
      plainPaste(
        `${point('·', 'leaves')}${point('·', '<b>stems</b>')}<p>Then:</p>${point('1.', 'dig')}${point('2.', 'sow')}`,
      ),
    ).toBe('<ul><li>leaves</li><li><b>stems</b></li></ul><p>Then:</p><ol><li>dig</li><li>sow</li></ol>');
  });

  it('begins a new list where the signs change from points to numbers', () => {
    expect(plainPaste('<p class="MsoList">· a</p><p class="MsoList">1) b</p>')).toBe(
      '<ul><li>a</li></ul><ol><li>b</li></ol>',
    );
  });

  it('leaves a sentence that only looks like a point', () => {
    expect(plainPaste('<p>- a dash, said she</p>')).toBe('<p>- a dash, said she</p>');
    expect(plainPaste('<p class="MsoList">No sign here</p>')).toBe('<p class="MsoList">No sign here</p>');
  });
});

describe('what comes along with a paste', () => {
  it('finds the pictures that are kept elsewhere or carried, each once, and leaves those of this school', () => {
    const html =
      '<img src="https://a.example/x.png"><img src="//b.example/y.jpg"><img src="https://a.example/x.png"><img src="/media/12"><img src="data:image/png;base64,AAAA"><img src="data:image/svg+xml,x"><img src="file:///c/z.png">';
    expect(picturesIn(html)).toEqual([
      'https://a.example/x.png',
      'https://b.example/y.jpg',
      'data:image/png;base64,AAAA',
    ]);
  });

  it('knows the address of a picture, and the code of a player', () => {
    expect(pastedAs(' https://a.example/leaf.PNG?w=3 ')).toEqual({
      type: 'picture',
      address: 'https://a.example/leaf.PNG?w=3',
    });
    expect(pastedAs('<iframe width="560" src="https://v.example/embed/b1" allowfullscreen></iframe>')).toEqual({
      type: 'video',
      address: 'https://v.example/embed/b1',
    });
    expect(pastedAs('See https://a.example/leaf.png')).toBeNull();
    expect(pastedAs('https://a.example/page')).toBeNull();
  });

  it('takes no address of a player that is none of the web', () => {
    expect(playerIn('<iframe src="javascript:alert(1)"></iframe>')).toBeNull();
    expect(playerIn('<div><iframe src="//v.example/embed/b1"></iframe></div>')).toBe('https://v.example/embed/b1');
    expect(playerIn('<b>words</b>')).toBeNull();
  });

  it('makes a file of a picture that a page carries in itself', async () => {
    const file = carriedFile('data:image/png;base64,aGVs bG8=');
    expect(file.type).toBe('image/png');
    expect(file.size).toBe(5);
  });
});
