import { takeSecret } from './device';

const page = { hash: '', pathname: '/join' };
const replaced: string[] = [];

describe('the secret of a link', () => {
  beforeAll(() => {
    Object.assign(globalThis, {
      location: page,
      history: {
        state: null,
        replaceState: (_state: unknown, _title: string, path: string) => {
          replaced.push(path);
          page.hash = '';
        },
      },
    });
  });

  it('leaves the address at once, and is still there for a screen that is drawn again', () => {
    page.hash = '#a-secret';
    expect(takeSecret()).toBe('a-secret');
    expect(replaced).toEqual(['/join']);
    expect(takeSecret()).toBe('a-secret');
    expect(replaced).toHaveLength(1);
  });

  it('is that of the newest link', () => {
    page.hash = '#another';
    expect(takeSecret()).toBe('another');
  });
});
