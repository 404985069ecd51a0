import { shownPage } from '.';

const ours = { business: 'Quillfern Nursery', sites: ['quillfern.example', '127.0.0.1:4870'] };
const shown = (url: string, title: string) => shownPage({ url, title }, ours);

describe('a page that a visitor says they are on', () => {
  it('is a link under its own title where it stands on one of the owner’s websites', () => {
    expect(shown('https://www.quillfern.example/ferns', 'Ferns | Quillfern Nursery')).toEqual({
      title: 'Ferns',
      host: 'quillfern.example',
      path: '/ferns',
      href: 'https://www.quillfern.example/ferns',
    });
    expect(shown('http://127.0.0.1:4870/', 'Quillfern Nursery')).toMatchObject({
      title: 'Quillfern Nursery',
      path: '',
    });
    expect(shown('https://quillfern.example/f%C3%A4rne/', '').path).toBe('/färne/');
    expect(shown('https://quillfern.example/%E0%A4%A', '').path).toBe('/%E0%A4%A');
  });

  it.each([
    'https://quillfern.example.evil.example/',
    'https://evil.example/quillfern.example',
    'http://127.0.0.1:4871/',
  ])('is only named by its host when it is %s, and is no link', (url) => {
    const page = shown(url, 'Quillfern Nursery: sign in');
    expect(page).toMatchObject({ title: '', path: '', href: null });
    expect(page.host).not.toBe('');
  });
});
