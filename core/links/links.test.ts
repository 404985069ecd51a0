import { pieces } from '.';
import { mailAddress } from './mail';
import { isWebLink, shownLink } from './web';

const hrefs = (text: string) => pieces(text).flatMap(({ href }) => href ?? []);

describe('links in what was said', () => {
  it('are recognised with and without a scheme, and as mail addresses', () => {
    expect(
      hrefs('See quillfern.example/bench or www.quillfern.com, mail hello@quillfern.com'),
    ).toEqual(['http://www.quillfern.com', 'mailto:hello@quillfern.com']);
    expect(hrefs('(https://quillfern.example/a?b=c#d).')).toEqual([
      'https://quillfern.example/a?b=c#d',
    ]);
  });

  it('lead to a mail to the one who is named, and to nobody else (RFC 6068, 2)', () => {
    expect(hrefs('mailto:wren@post.example?bcc=evil@evil.example&subject=x')).toEqual([
      'mailto:wren@post.example',
    ]);
    expect(mailAddress('wren@post.example')).toBe('mailto:wren@post.example');
    expect(mailAddress('wren@post.example?bcc=evil@evil.example')).toBe(
      'mailto:wren@post.example%3Fbcc%3Devil@evil.example',
    );
  });

  it('never run a script or leave the web', () => {
    const nasty =
      'javascript:alert(1) data:text/html,x vbscript:x ftp://a.example //evil.example file:///etc/passwd';
    for (const href of hrefs(nasty)) expect(href).toMatch(/^(https?:\/\/|mailto:)/);
    expect(hrefs(nasty).join()).not.toMatch(/javascript|data:|vbscript|ftp:|file:/);
  });

  it('leave every character in its place', () => {
    const text = 'a https://x.example b\nwww.y.com\n<b>c</b>';
    expect(
      pieces(text)
        .map((piece) => piece.text)
        .join(''),
    ).toBe(text);
  });
});

describe('the address of a page', () => {
  it('is one in full, of the web', () => {
    const right = ['https://quillfern.example', 'http://a.b/c?d=e#f', 'HTTPS://A.B'];
    const wrong = [
      'quillfern.example',
      'javascript:alert(1)',
      'https://quillfern',
      'https://a b.c',
    ];
    expect(right.filter((link) => !isWebLink(link, 100))).toEqual([]);
    expect(wrong.filter((link) => isWebLink(link, 100))).toEqual([]);
    expect(isWebLink('https://quillfern.example', 10)).toBe(false);
  });

  it('is shown without what everybody has', () => {
    expect(shownLink('https://www.quillfern.example/')).toBe('quillfern.example');
    expect(shownLink('http://quillfern.example/a?b=https://c.d/')).toBe(
      'quillfern.example/a?b=https://c.d',
    );
  });
});
