import type { Refusal } from '@porch/contract/errors';
import { type Dress, plainDress, viewOf } from '@porch/core/dress';
import { render } from 'preact';
import { act } from 'preact/test-utils';
import type { Conversation } from './conversation';
import { GuestBook, isAnswered } from './guest-book';
import { firstModel, type Model } from './model';
import type { Given } from './parcels';
import { View } from './view';

const business = { name: 'Quillfern', address: '', picture: null, people: [], ways: [] };

/** The guest book as it is dressed, on a page of its own. */
const draw = async (options: {
  dress?: (dress: Dress) => void;
  state?: 'lit' | 'dark';
  model?: Partial<Model>;
  answer?: Refusal | null;
}) => {
  const dress = plainDress();
  options.dress?.(dress);
  const view = viewOf(dress, business, 'en');
  const state = options.state ?? 'lit';
  const given: Given[] = [];
  const conversation = {
    giveDetails: async (details: Given) => {
      if (!options.answer) given.push(details);
      return options.answer ?? null;
    },
  } as unknown as Conversation;
  const root = document.createElement('div');
  document.body.replaceChildren(root);
  const page = state === 'lit' ? view.guestBook.lit : view.guestBook.notLit;
  await act(() => {
    render(
      <View.Provider value={view}>
        <GuestBook
          conversation={conversation}
          model={{ ...firstModel, ...options.model }}
          door={`door-${Math.random()}`}
          page={page}
          state={state}
        />
      </View.Provider>,
      root,
    );
  });
  const field = (label: string): HTMLInputElement | HTMLSelectElement => {
    const found = [...root.querySelectorAll('label')].find((one) =>
      one.textContent?.startsWith(label),
    );
    const control = found && root.querySelector(`[id="${found.htmlFor}"]`);
    if (!control) throw new Error(`there is no field ${label}`);
    return control as HTMLInputElement;
  };
  const press = async (name: string): Promise<void> => {
    const button = [...root.querySelectorAll('button')].find((one) => one.textContent === name);
    await act(async () => button?.click());
  };
  return {
    root,
    page,
    given,
    field,
    press,
    type: (label: string, text: string) => {
      field(label).value = text;
    },
    alerts: () => [...root.querySelectorAll('[role="alert"]')].map((one) => one.textContent),
  };
};

describe('the guest book', () => {
  beforeEach(() => localStorage.clear());

  it('asks lightly: a name and an email, which may be skipped', async () => {
    const book = await draw({});
    expect(book.root.querySelector('h2')?.textContent).toBe('May we know who writes?');
    await book.press('Skip');
    expect(book.root.querySelector('form')).toBeNull();
    expect(book.given).toEqual([]);
  });

  it('takes what was given, without blank edges', async () => {
    const book = await draw({});
    book.type('Name', '  Wren ');
    book.type('Email', 'wren@post.example');
    await book.press('Save');
    expect(book.given).toEqual([{ name: 'Wren', email: 'wren@post.example' }]);
  });

  it('says beside the field what is wrong, and gives nothing', async () => {
    const book = await draw({});
    book.type('Email', 'not an email');
    await book.press('Save');
    expect(book.alerts()).toEqual([
      'This does not look like an email address. Check it and save again.',
    ]);
    expect(book.field('Email').getAttribute('aria-invalid')).toBe('true');
    expect(book.field('Name').getAttribute('aria-invalid')).toBe('false');
    expect(book.given).toEqual([]);
  });

  it('says what the server found wrong beside the field that it is about', async () => {
    const book = await draw({
      state: 'dark',
      answer: { code: 'phone-not-understood', field: 'phone' },
    });
    book.type('Phone', '07700 900');
    await book.press('Save');
    expect(book.field('Phone').getAttribute('aria-invalid')).toBe('true');
    expect(book.alerts()[0]).toContain('does not look like a phone number');
  });

  it('wants a way to answer while nobody is in, but lets it be skipped', async () => {
    const book = await draw({ state: 'dark' });
    book.type('Name', 'Wren');
    await book.press('Save');
    expect(book.alerts()).toEqual(['Give an email or a phone number, or skip this.']);
    await book.press('Skip');
    expect(book.root.querySelector('form')).toBeNull();
  });

  it('cannot be skipped where something is needed, and says what', async () => {
    const book = await draw({
      dress: (dress) => {
        dress.guestBook.own = [
          { id: 'which-plant-1', kind: 'choice', label: 'Which plant?', choices: ['Fern', 'Palm'] },
          { id: 'is-it-urgent', kind: 'tick', label: 'It is urgent', choices: [] },
        ];
        dress.guestBook.lit.asks = [
          { field: 'which-plant-1', isRequired: true },
          { field: 'is-it-urgent', isRequired: false },
        ];
      },
    });
    expect(book.root.textContent).not.toContain('Skip');
    expect(book.root.textContent).not.toContain('Only if you like');
    expect(book.root.textContent).toContain('So that we can answer you.');
    expect(book.field('Which plant?').getAttribute('aria-required')).toBe('true');
    await book.press('Save');
    expect(book.alerts()).toEqual(['This is needed.']);
    book.type('Which plant?', 'Palm');
    (book.field('It is urgent') as HTMLInputElement).checked = true;
    await book.press('Save');
    expect(book.given).toEqual([{ own: { 'which-plant-1': 'Palm', 'is-it-urgent': 'yes' } }]);
  });

  it('thanks whoever is known, and lets them change it', async () => {
    const details = { name: 'Wren', email: 'wren@post.example', phone: '', own: {} };
    const book = await draw({ model: { details, mails: true } });
    expect(book.root.textContent).toContain('We can reach you at wren@post.example.');
    await book.press('Change');
    expect(book.field('Email').value).toBe('wren@post.example');
  });

  it('promises nothing by mail where none goes out', async () => {
    const details = { name: 'Wren', email: 'wren@post.example', phone: '', own: {} };
    const known = await draw({ model: { details, mails: false } });
    expect(known.root.textContent).toContain('Thank you');
    expect(known.root.textContent).not.toContain('reach you');
    const phoned = { ...details, phone: '07700 900123' };
    const called = await draw({ model: { details: phoned, mails: false } });
    expect(called.root.textContent).toContain('We can reach you at 07700 900123.');
    expect((await draw({ model: { mails: false } })).root.textContent).not.toContain(
      'reach you after',
    );
    expect((await draw({ model: { mails: true } })).root.textContent).toContain('reach you after');
  });

  it('knows when it is answered: all that is needed, and anything at all', async () => {
    const { page } = await draw({});
    const nobody = { name: '', email: '', phone: '', own: {} };
    expect(isAnswered(page, nobody, false)).toBe(false);
    expect(isAnswered(page, { ...nobody, name: 'Wren' }, false)).toBe(true);
    expect(isAnswered(page, { ...nobody, name: 'Wren' }, true)).toBe(false);
    expect(isAnswered(page, { ...nobody, email: 'w@post.example' }, true)).toBe(true);
  });
});
