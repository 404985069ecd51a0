import { toShared } from './shared';

const formOf = (fields: Record<string, string | File[]>): FormData => {
  const form = {
    get: (name: string) => fields[name] ?? null,
    getAll: (name: string) => fields[name] ?? [],
  };
  return form as unknown as FormData;
};

describe('what another app shares', () => {
  it('is its words, each part once', () => {
    const shared = toShared(
      formOf({ title: 'Ferns', text: 'https://a.example', url: 'https://a.example', files: [] }),
    );
    expect(shared).toEqual({ text: 'Ferns\nhttps://a.example', files: [] });
  });

  it('is as many files as a message takes, none of them too large', () => {
    const file = (name: string, size: number): File => {
      const made = new File([], name, { type: 'image/png' });
      Object.defineProperty(made, 'size', { value: size });
      return made;
    };
    const files = [
      file('huge.png', 11 * 1024 * 1024),
      ...Array.from({ length: 9 }, (_, at) => file(`${at}.png`, 9)),
    ];
    const shared = toShared(formOf({ files }));
    expect(shared.files).toHaveLength(6);
    expect(shared.files.map(({ name }) => name)).not.toContain('huge.png');
  });
});
