import { keep, kept, mayKeep } from '.';

describe('small things that a device remembers', () => {
  beforeEach(() => {
    localStorage.clear();
    mayKeep(true);
  });
  afterEach(() => jest.restoreAllMocks());

  it('are there for the next page', () => {
    expect(kept('never')).toBeNull();
    keep('draft', 'Hello');
    expect([kept('draft'), localStorage.getItem('draft')]).toEqual(['Hello', 'Hello']);
  });

  it('last as long as the page where nothing may be stored', () => {
    jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new Error('full');
    });
    jest.spyOn(Storage.prototype, 'getItem').mockImplementation(() => {
      throw new Error('forbidden');
    });
    keep('draft', 'Hello');
    expect(kept('draft')).toBe('Hello');
  });

  it('stay off the device until somebody agrees, and are written once they do', () => {
    mayKeep(false);
    keep('asked', 'Held');
    expect([kept('asked'), localStorage.getItem('asked')]).toEqual(['Held', null]);
    mayKeep(true);
    expect(localStorage.getItem('asked')).toBe('Held');
  });

  it('are those of this page where an earlier one left something and nobody has agreed yet', () => {
    localStorage.setItem('draft of before', 'Old');
    mayKeep(false);
    expect(kept('draft of before')).toBe('Old');
    keep('draft of before', 'New');
    expect([kept('draft of before'), localStorage.getItem('draft of before')]).toEqual([
      'New',
      'Old',
    ]);
  });
});
