import { FILE_LIMITS } from '@porch/core/files';
import { type HeldFile, withChosen } from '.';

const chosen = (name: string, size = 3): File =>
  ({ name, size, type: 'image/png' }) as unknown as File;

const namesOf = (files: readonly HeldFile[]): string[] => files.map(({ name }) => name);

describe('files chosen for a message', () => {
  it('come behind those that are held, each under an id of its own', () => {
    const { files } = withChosen([], [chosen('a.png'), chosen('a.png')]);
    const more = withChosen(files, [chosen('b.png')]);
    expect(namesOf(more.files)).toEqual(['a.png', 'a.png', 'b.png']);
    expect(new Set(more.files.map(({ id }) => id)).size).toBe(3);
    expect(more.isTooLarge).toBe(false);
  });

  it('are left out and told of when they are too large, and only then', () => {
    const limit = FILE_LIMITS.largestBytes;
    const sorted = withChosen([], [chosen('large.png', limit + 1), chosen('just.png', limit)]);
    expect([namesOf(sorted.files), sorted.isTooLarge]).toEqual([['just.png'], true]);
  });

  it('are no more than a message takes', () => {
    const many = Array.from({ length: FILE_LIMITS.most + 5 }, (_, at) => chosen(`${at}.png`));
    expect(withChosen([], many).files).toHaveLength(FILE_LIMITS.most);
  });

  it('have a name, also when they were pasted without one', () => {
    expect(namesOf(withChosen([], [chosen('')]).files)).toEqual(['picture.png']);
  });
});
