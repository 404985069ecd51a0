import { blocksOf, plainAnswer } from '.';

describe('an answer', () => {
  it('is words, where it has nothing else', () => {
    expect(blocksOf('We do.\nOn Fridays.\n\nAsk us.', 0)).toEqual([
      { kind: 'text', text: 'We do.\nOn Fridays.' },
      { kind: 'text', text: 'Ask us.' },
    ]);
    expect(blocksOf('', 0)).toEqual([]);
  });

  it('is a guide with headings, steps, items and pictures', () => {
    const answer =
      '# Repotting\nIn spring.\n\n1. Water it.\n2) Lift it out.\n\n3. Set it.\n[picture 2]\n- soil\n* a pot';
    expect(blocksOf(answer, 3)).toEqual([
      { kind: 'heading', text: 'Repotting' },
      { kind: 'text', text: 'In spring.' },
      { kind: 'steps', each: ['Water it.', 'Lift it out.', 'Set it.'] },
      { kind: 'picture', at: 1 },
      { kind: 'items', each: ['soil', 'a pot'] },
      { kind: 'picture', at: 0 },
      { kind: 'picture', at: 2 },
    ]);
  });

  it('leaves out pictures that there are none of, and takes other marks for words', () => {
    expect(blocksOf('[picture 0]\n[picture 9]\n#1 rule: 2.5 litres -3 degrees', 1)).toEqual([
      { kind: 'text', text: '#1 rule: 2.5 litres -3 degrees' },
      { kind: 'picture', at: 0 },
    ]);
  });

  it('is words alone where nothing is drawn', () => {
    const guide = '# Repotting\n\n[picture 1]\n\n1. Water it.\n2. Lift it out.\n- soil\nDone #1';
    expect(plainAnswer(guide)).toBe('Repotting\n\n1. Water it.\n2. Lift it out.\n- soil\nDone #1');
    expect(plainAnswer('[picture 1]')).toBe('');
  });
});
