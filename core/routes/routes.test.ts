import { GATHER_MS, mailAt, routeOf } from '.';

const gone = { isHere: false, email: 'wren@post.example', canMail: true, isStopped: false };

describe('where an answer goes', () => {
  it('is their screen while they are on the page, whatever else is known', () => {
    expect(routeOf({ ...gone, isHere: true })).toEqual({ to: 'screen' });
  });

  it('is their email once they are gone', () => {
    expect(routeOf(gone)).toEqual({ to: 'mail', address: 'wren@post.example' });
  });

  it('is nowhere yet, and says why, where they cannot be reached', () => {
    expect(routeOf({ ...gone, email: '' })).toEqual({ to: 'nowhere', why: 'no-address' });
    expect(routeOf({ ...gone, canMail: false })).toEqual({ to: 'nowhere', why: 'no-mail' });
    expect(routeOf({ ...gone, isStopped: true })).toEqual({ to: 'nowhere', why: 'stopped' });
  });
});

describe('when it goes out by mail', () => {
  const minutes = 2 * 60_000;

  it('is not while they are on the page', () => {
    expect(mailAt({ isHere: true, movedAt: 0 }, 1_000, minutes)).toBeNull();
  });

  it('is in a moment where they had gone before it was said, so that more can go with it', () => {
    expect(mailAt({ isHere: false, movedAt: 500 }, 1_000, minutes)).toBe(1_000 + GATHER_MS);
    expect(mailAt({ isHere: false, movedAt: null }, 1_000, minutes)).toBe(1_000 + GATHER_MS);
  });

  it('is so long after they left as the owner says, where they left without reading it', () => {
    expect(mailAt({ isHere: false, movedAt: 5_000 }, 1_000, minutes)).toBe(5_000 + minutes);
  });
});
