import fc from 'fast-check';
import {
  type Dress,
  gapsFor,
  languagesOf,
  mergeChanges,
  plainDress,
  plateViewOf,
  problemsOf,
  rulesOf,
  textsOf,
  tidyDress,
  viewOf,
  wholeDress,
  withAt,
} from '.';

const dressed = (change: (dress: Dress) => void): Dress => {
  const dress = structuredClone(plainDress());
  change(dress);
  return dress;
};

const business = {
  name: 'Quillfern',
  address: 'hello@quillfern.example',
  ways: [],
  picture: null,
  people: [{ name: 'Maren', face: null }],
};

describe('what is wrong with a dress', () => {
  const codes = (change: (dress: Dress) => void) =>
    problemsOf(dressed(change)).map(({ field, code }) => `${field}: ${code}`);

  it('is nothing when it is plain', () => {
    expect(problemsOf(plainDress())).toEqual([]);
  });

  const linked =
    (url: string, label = 'Map') =>
    (dress: Dress) => {
      dress.links = [{ id: 'link-0001', glyph: 'map', label, url }];
    };

  it.each<[string, (dress: Dress) => void]>([
    ['links.link-0001.url: link-not-understood', linked('javascript:alert(1)')],
    ['links.link-0001.url: link-not-understood', linked('https://a.example@evil.example')],
    ['links.link-0001.url: link-not-understood', linked('')],
    ['links.link-0001: text-empty', linked('https://a.example', ' ')],
    [
      'look.accent: colour-unknown',
      (dress) => {
        dress.look.accent = 'sky';
      },
    ],
    [
      'look.bottomPx: number-out-of-range',
      (dress) => {
        dress.look.bottomPx = 201;
      },
    ],
    [
      'look.sidePx: number-out-of-range',
      (dress) => {
        dress.look.sidePx = 1.5;
      },
    ],
    [
      'texts.de.sign.lit: text-too-long',
      (dress) => {
        dress.texts = { de: { 'sign.lit': 'x'.repeat(401) } };
      },
    ],
    [
      'texts.de.sign.lit: gap-unknown',
      (dress) => {
        dress.texts = { de: { 'sign.lit': 'Hello {NAME}' } };
      },
    ],
    [
      'texts.english: choice-unknown',
      (dress) => {
        dress.texts = { english: {} };
      },
    ],
    [
      'where.pages: text-empty',
      (dress) => {
        dress.where.pages = { mode: 'only', these: [] };
      },
    ],
    [
      'where.manners.0.pattern: pattern-not-understood',
      (dress) => {
        dress.where.manners = [{ pattern: '', manner: 'peek', afterSeconds: 3 }];
      },
    ],
    [
      'where.manners.0.afterSeconds: number-out-of-range',
      (dress) => {
        dress.where.manners = [{ pattern: '*', manner: 'peek', afterSeconds: 601 }];
      },
    ],
    [
      'where.countries: choice-unknown',
      (dress) => {
        dress.where.countries = { mode: 'except', these: ['Atlantis'] };
      },
    ],
    [
      'guestBook.lit: choice-unknown',
      (dress) => {
        dress.guestBook.lit.asks = [{ field: 'shoe-size-01', isRequired: false }];
      },
    ],
    [
      'guestBook.lit: text-empty',
      (dress) => {
        dress.guestBook.lit.asks = [];
      },
    ],
    [
      'guestBook.own.which-plant-1: text-empty',
      (dress) => {
        dress.guestBook.own = [{ id: 'which-plant-1', kind: 'text', label: ' ', choices: [] }];
      },
    ],
    [
      'guestBook.own.which-plant-1.choices: text-empty',
      (dress) => {
        dress.guestBook.own = [
          { id: 'which-plant-1', kind: 'choice', label: 'Which?', choices: ['Fern', ' '] },
        ];
      },
    ],
    [
      'consent.link: link-not-understood',
      (dress) => {
        dress.consent.link = 'javascript:alert(1)';
      },
    ],
  ])('is told by field: %s', (problem, change) => {
    expect(codes(change)).toContain(problem);
  });

  it('lets a text have the gaps of its default, and no others', () => {
    expect(gapsFor('plate.soon')).toEqual(['time']);
    expect(gapsFor('own.which-plant-1')).toEqual([]);
    expect(
      codes((dress) => {
        dress.texts = { de: { 'plate.soon': 'Um {time}' } };
      }),
    ).toEqual([]);
  });
});

describe('a dress in the form in which it is kept', () => {
  it('spells colours and patterns one way, and leaves out empty and unknown texts', () => {
    const tidy = tidyDress(
      dressed((dress) => {
        dress.look.ground = 'fff';
        dress.where.pages = { mode: 'only', these: ['https://quillfern.example/shop/*'] };
        dress.texts = { de: { 'sign.lit': ' ', 'sign.dark': 'Zu', nonsense: 'x' } };
      }),
    );
    expect(tidy.look.ground).toBe('#FFFFFF');
    expect(tidy.where.pages.these).toEqual(['/shop/*']);
    expect(tidy.texts).toEqual({ de: { 'sign.dark': 'Zu' } });
  });
});

describe('what visitors get of a dress', () => {
  it('has the owner’s text where there is one, the default where not, in each language', () => {
    const dress = dressed((one) => {
      one.texts = { de: { 'title.lit': 'Nur herein' }, ar: { 'title.lit': 'نحن هنا' } };
      one.fallback = 'fr';
    });
    expect(languagesOf(dress)).toEqual(['en', 'es', 'fr', 'de', 'it', 'pt', 'nl', 'pl', 'ar']);
    expect(textsOf(dress, 'de')['title.lit']).toBe('Nur herein');
    expect(textsOf(dress, 'de')['send.lit']).toBe('Senden');
    expect(textsOf(dress, 'ar')['send.lit']).toBe('Envoyer');
    expect(viewOf(dress, business, 'ar').direction).toBe('rtl');
  });

  it('shows the people, or the business alone', () => {
    expect(viewOf(plainDress(), business, 'en').business.people).toHaveLength(1);
    const alone = dressed((dress) => {
      dress.people = 'business';
    });
    expect(viewOf(alone, business, 'en').business.people).toEqual([]);
  });

  it('asks the guest book’s questions in the visitor’s language, and keeps the choice as it was written', () => {
    const dress = dressed((one) => {
      one.guestBook.own = [
        { id: 'which-plant-1', kind: 'choice', label: 'Which plant?', choices: ['Fern', 'Palm'] },
      ];
      one.guestBook.lit = { when: 'before', asks: [{ field: 'which-plant-1', isRequired: true }] };
      one.texts = { de: { 'own.which-plant-1': 'Welche Pflanze?', 'own.which-plant-1.0': 'Farn' } };
    });
    expect(viewOf(dress, business, 'de').guestBook.lit).toEqual({
      when: 'before',
      fields: [
        {
          id: 'which-plant-1',
          kind: 'choice',
          label: 'Welche Pflanze?',
          choices: [
            { value: 'Fern', text: 'Farn' },
            { value: 'Palm', text: 'Palm' },
          ],
          isRequired: true,
        },
      ],
    });
  });

  it('asks for consent only where that is on', () => {
    expect(viewOf(plainDress(), business, 'en').consent).toBeNull();
    const asking = dressed((dress) => {
      dress.consent = { isAsked: true, link: 'https://a.example' };
    });
    expect(viewOf(asking, business, 'en').consent).toEqual({ link: 'https://a.example' });
  });

  it('is small for the plate: the name is filled in, the rest of the gaps is left', () => {
    const plate = plateViewOf(viewOf(plainDress(), business, 'en'));
    expect(plate.texts.frame).toBe('Conversation with Quillfern');
    expect(plate.texts.unread).toBe('New messages: {count}');
    expect(plate.texts.plate[1]).toBe('Back at {time}');
    expect(JSON.stringify(plate).length).toBeLessThan(1_500);
    expect(rulesOf(plainDress()).zones).toEqual({ mode: 'all', these: [] });
  });
});

describe('what came later to be set about a dress', () => {
  it('is what it always was for one that was kept before', () => {
    const { links, onAnswer, look, ...before } = plainDress();
    const { type, panel, onPhones, ...lookBefore } = look;
    const kept = { ...before, look: { ...lookBefore, ground: '#EDF3F7' } } as Dress;
    expect(wholeDress(kept)).toEqual({
      ...before,
      links,
      onAnswer,
      look: { ...lookBefore, type, panel, onPhones, ground: '#EDF3F7' },
    });
    expect(problemsOf(wholeDress(kept))).toEqual([]);
  });

  it('gives type, panel and the plate’s small form to the view, and its own shape’s style alone', () => {
    const view = viewOf(
      dressed((dress) => {
        dress.look = { ...dress.look, type: 'serif', panel: 'large', plate: 'latch' };
      }),
      business,
      'en',
    );
    expect(view.look).toMatchObject({ panel: [480, 760], onPhones: 'small' });
    expect(view.look.font).toContain('serif');
    expect(view.look.font).not.toMatch(/url|@import/);
    expect(plateViewOf(view).shape).toContain('.latch');
    expect(plateViewOf(view).shape).not.toContain('lintel');
  });

  it('are links in the visitor’s language, under the owner’s words', () => {
    const linked = dressed((dress) => {
      dress.links = [
        { id: 'link-0001', glyph: 'map', label: 'Find us', url: 'https://quillfern.example/map' },
      ];
      dress.texts = { de: { 'link.link-0001': 'So finden Sie uns' } };
    });
    expect(viewOf(linked, business, 'de').links).toEqual([
      { glyph: 'map', label: 'So finden Sie uns', url: 'https://quillfern.example/map' },
    ]);
    expect(viewOf(linked, business, 'en').links[0]?.label).toBe('Find us');
    expect(tidyDress(linked).texts).toEqual(linked.texts);
  });

  it('takes what an owner once wrote with gaps that are not offered any more', () => {
    const old = dressed((dress) => {
      dress.texts = { en: { open: 'Say hello to {business}. {state}' } };
    });
    expect(problemsOf(old)).toEqual([]);
    expect(plateViewOf(viewOf(old, business, 'en')).texts.open).toBe('Say hello to Quillfern. ');
  });
});

describe('two people who change the same thing', () => {
  it('both keep what only one of them changed', () => {
    const base = plainDress();
    const mine = dressed((dress) => {
      dress.look.side = 'left';
    });
    const theirs = dressed((dress) => {
      dress.texts = { de: { 'sign.dark': 'Zu' } };
    });
    const { merged, clashes, taken } = mergeChanges(base, mine, theirs);
    expect(merged.look.side).toBe('left');
    expect(merged.texts).toEqual({ de: { 'sign.dark': 'Zu' } });
    expect(clashes).toEqual([]);
    expect(taken).toEqual([['texts']]);
  });

  it('are asked where both changed it differently; mine stands until then', () => {
    const at = (text: string) =>
      dressed((dress) => {
        dress.texts = { de: { 'sign.dark': text } };
      });
    const { merged, clashes } = mergeChanges(at('a'), at('b'), at('c'));
    expect(clashes).toEqual([{ path: ['texts', 'de', 'sign.dark'], mine: 'b', theirs: 'c' }]);
    expect(merged.texts.de?.['sign.dark']).toBe('b');
    const path = clashes[0]?.path ?? [];
    expect(withAt(merged, path, 'c').texts.de?.['sign.dark']).toBe('c');
    expect(withAt(merged, path, undefined).texts.de).toEqual({});
  });

  it('lose nothing: with one side unchanged the other stands whole', () => {
    const tree = fc.dictionary(
      fc.constantFrom('a', 'b', 'c'),
      fc.oneof(fc.nat(3), fc.dictionary(fc.constantFrom('x', 'y'), fc.nat(3))),
    );
    fc.assert(
      fc.property(tree, tree, (base, changed) => {
        expect(mergeChanges(base, changed, base)).toMatchObject({ clashes: [] });
        expect(mergeChanges(base, changed, base).merged).toEqual(changed);
        expect(mergeChanges(base, base, changed).merged).toEqual(changed);
        expect(mergeChanges(base, changed, changed)).toMatchObject({ clashes: [], taken: [] });
      }),
    );
  });
});
