import { type Dress, plainDress, viewOf } from '@porch/core/dress';
import { render } from 'preact';
import { act } from 'preact/test-utils';
import { entryOf } from '../../test-kit/entries';
import type { Conversation, FoundCard } from './conversation';
import { firstModel, type Model } from './model';
import { Panel } from './panel';
import type { Given } from './parcels';
import { View } from './view';

const business = { name: 'Quillfern', address: '', picture: null, people: [], ways: [] };

const answerOf = (seq: number) =>
  entryOf(seq, {
    by: 'door',
    text: 'Within ten miles.',
    card: { id: 'card-0', link: '', offers: [], asks: null },
  });

const withCards = (dress: Dress): void => {
  dress.asked = {
    cards: ['card-0', 'card-1'].map((id) => ({
      id,
      language: 'en',
      question: `Question ${id}`,
      answer: 'Answer',
      link: '',
      pictureIds: [],
      leads: { to: 'end' },
    })),
    first: [
      { id: 'card-0', states: ['lit'] },
      { id: 'card-1', states: ['dark'] },
    ],
  };
};

/** A frame of the screen, in which what waited for one is done. */
const frame = () =>
  act(async () => void (await new Promise((resolve) => requestAnimationFrame(resolve))));

const draw = async (options: {
  dress?: (dress: Dress) => void;
  model?: Partial<Model>;
  orders?: boolean;
  /** When the house says that an order was found. */
  found?: Promise<void>;
}) => {
  const dress = plainDress();
  withCards(dress);
  options.dress?.(dress);
  const done: string[] = [];
  let model: Model = { ...firstModel, isConnected: true, isWelcome: true, mails: true };
  let tell: (model: Model) => void = () => undefined;
  const conversation = {
    now: () => model,
    watch: (watcher: (model: Model) => void) => {
      tell = watcher;
      return () => undefined;
    },
    isFramed: true,
    isClosed: false,
    isGlancing: () => false,
    takeFocus: () => false,
    typing: () => undefined,
    tap: ({ id }: FoundCard) => done.push(`tap ${id}`),
    say: (text: string) => done.push(`say ${text}`),
    find: async () => [],
    order: (number: string) => {
      done.push(`order ${number}`);
      return (options.found ?? Promise.resolve()).then(() => null);
    },
    giveDetails: async (given: Given) => {
      done.push(`gave ${JSON.stringify(given)}`);
      change({ details: { name: '', phone: '', own: {}, email: '', ...given } });
      return null;
    },
    close: () => done.push('close'),
  } as unknown as Conversation;
  const root = document.createElement('div');
  document.body.replaceChildren(root);
  const change = (more: Partial<Model>): void => {
    model = { ...model, ...more };
    tell(model);
  };
  const show = async (more: Partial<Model>): Promise<void> => {
    await act(async () => change(more));
    await act(async () => undefined);
  };
  const view = { ...viewOf(dress, business, 'en'), orders: options.orders ?? false };
  model = { ...model, ...options.model };
  await act(() => {
    render(
      <View.Provider value={view}>
        <Panel conversation={conversation} door={`door-${Math.random()}`} />
      </View.Provider>,
      root,
    );
  });
  // What comes late is fetched first, and drawn then.
  await act(async () => void (await import('./late-parts')));
  await frame();
  const button = (name: string) =>
    [...root.querySelectorAll('button')].find((one) => one.textContent === name);
  return {
    root,
    done,
    show,
    button,
    names: () => [...root.querySelectorAll('button')].map((one) => one.textContent),
    press: (name: string) =>
      act(async () => {
        const found = button(name);
        if (!found) throw new Error(`there is no button ${name}`);
        found.focus();
        found.click();
      }).then(frame),
    key: (key: string) =>
      act(async () => void dispatchEvent(new KeyboardEvent('keydown', { key }))),
    fill: (label: string, text: string) =>
      act(async () => {
        const found = [...root.querySelectorAll('label')].find((one) =>
          one.textContent?.startsWith(label),
        );
        const input = found && document.getElementById(found.htmlFor);
        if (!(input instanceof HTMLInputElement)) throw new Error(`there is no field ${label}`);
        input.value = text;
      }),
  };
};

describe('the panel', () => {
  // What comes late is there: the first time it is read from the disk.
  beforeAll(() => import('./late-parts'));

  beforeEach(() => {
    localStorage.clear();
    Element.prototype.scrollIntoView = () => undefined;
    window.matchMedia = () => ({ matches: false }) as MediaQueryList;
  });

  it('welcomes whoever has not written, with what is asked often', async () => {
    const panel = await draw({});
    expect(panel.root.textContent).toContain('Somebody is here');
    expect(panel.names()).toContain('Question card-0');
    expect(panel.names()).not.toContain('More');
  });

  it('gives the conversation the room once something was said: all else is behind one line', async () => {
    const panel = await draw({ orders: true, model: { entries: [entryOf(1)] } });
    expect(panel.root.textContent).not.toContain('Somebody is here');
    expect(panel.root.querySelector('form:not(.composer)')).toBeNull();
    expect(panel.names()).not.toContain('Question card-0');
    expect(panel.names()).not.toContain('Where is my order?');
    await panel.press('More');
    expect(panel.button('More')?.getAttribute('aria-expanded')).toBe('true');
    expect(panel.names()).toEqual(
      expect.arrayContaining(['Question card-0', 'Where is my order?']),
    );
    await panel.key('Escape');
    expect(panel.names()).not.toContain('Question card-0');
    expect(document.activeElement?.closest('.aside')).not.toBeNull();
    expect(panel.done).toEqual([]);
    await panel.key('Escape');
    expect(panel.done).toEqual(['close']);
  });

  it('says at its head how long an answer takes, once the welcome is gone', async () => {
    const panel = await draw({ model: { usual: 5 } });
    expect(panel.root.querySelector('header')?.textContent).not.toContain('5 minutes');
    await panel.show({ entries: [entryOf(1)] });
    expect(panel.root.querySelector('header')?.textContent).toContain('within 5 minutes');
    // Whoever has their answer waits for none.
    await panel.show({ entries: [entryOf(1), entryOf(2, { by: 'team', name: 'Maren' })] });
    expect(panel.root.querySelector('header')?.textContent).not.toContain('5 minutes');
  });

  it('asks for an email in one line, which opens, and says then how they can be reached', async () => {
    const panel = await draw({ model: { entries: [entryOf(1)] } });
    await panel.press('Leaving soon? Add your email');
    expect(document.activeElement?.id).toBe('guest-name');
    await panel.fill('Email', 'wren@post.example');
    await panel.press('Save');
    expect(panel.done).toEqual(['gave {"name":"","email":"wren@post.example"}']);
    expect(panel.root.querySelector('form:not(.composer)')).toBeNull();
    expect(panel.root.querySelector('.known')?.textContent).toContain('wren@post.example');
    expect(document.activeElement?.textContent).toBe('Change');
  });

  it('promises no mail in that line where none goes out', async () => {
    const panel = await draw({ model: { entries: [entryOf(1)], mails: false } });
    expect(panel.names()).not.toContain('Leaving soon? Add your email');
    expect(panel.names()).toContain('May we know who writes?');
  });

  it('asks no more once they would rather not say', async () => {
    const panel = await draw({ model: { entries: [entryOf(1)] } });
    await panel.press('Leaving soon? Add your email');
    await panel.press('Skip');
    expect(panel.root.querySelector('form:not(.composer)')).toBeNull();
    expect(panel.names()).not.toContain('Leaving soon? Add your email');
  });

  it('opens the line by itself where something is needed', async () => {
    const panel = await draw({
      dress: (dress) => {
        dress.guestBook.lit.asks = [{ field: 'email', isRequired: true }];
      },
      model: { entries: [entryOf(1)] },
    });
    expect(panel.root.querySelector('form:not(.composer)')).not.toBeNull();
    // Nobody asked for it: whoever writes goes on writing.
    expect(document.activeElement).toBe(document.body);
    await panel.press('Leaving soon? Add your email');
    await panel.press('Leaving soon? Add your email');
    expect(document.activeElement?.matches('.sheet input')).toBe(true);
  });

  it('lets somebody who is asked first choose another way, or to be called back', async () => {
    const panel = await draw({
      orders: true,
      dress: (dress) => {
        dress.callBack = true;
        dress.guestBook.lit = {
          ...dress.guestBook.lit,
          when: 'before',
          asks: [{ field: 'email', isRequired: true }],
        };
      },
    });
    expect(panel.names()).toContain('Rather be called back?');
    expect(panel.names()).not.toContain('Where is my order?');
    expect(panel.root.querySelector('form.composer')).toBeNull();
  });

  it('shuts what was open once a call was asked for, and leaves alone whoever asked', async () => {
    const panel = await draw({
      dress: (dress) => {
        dress.callBack = true;
      },
      model: { entries: [entryOf(1)] },
    });
    await panel.press('More');
    await panel.press('Rather be called back?');
    await panel.fill('Phone', '+15550123');
    await panel.press('Ask for a call');
    expect(panel.done.at(-1)).toBe('say ');
    expect(panel.button('More')?.getAttribute('aria-expanded')).toBe('false');
    await panel.show({ entries: [entryOf(1), entryOf(2), answerOf(3)] });
    await frame();
    expect(document.activeElement?.id).not.toBe('slip-3');
  });

  it.each([
    ['before anything was said', []],
    ['once something was said', [entryOf(1, { by: 'team', name: 'Maren' })]],
  ])('goes on at the answer to a button %s, for whoever goes by keyboard', async (_when, said) => {
    const panel = await draw({ model: { entries: said } });
    if (said.length > 0) await panel.press('More');
    await panel.press('Question card-0');
    expect(panel.done).toEqual(['tap card-0']);
    const asked = [...said, entryOf(2, { isTap: true })];
    await panel.show({ entries: [...asked, answerOf(3)] });
    await frame();
    expect(document.activeElement?.id).toBe('slip-3');
    (document.activeElement as HTMLElement).blur();
    // Nobody tapped the one that comes by itself.
    await panel.show({ entries: [...asked, answerOf(3), entryOf(4), answerOf(5)] });
    await frame();
    expect(document.activeElement).toBe(document.body);
  });

  it.each(['before', 'after'])(
    'shuts what was open once an order is found, and goes on at its answer, which comes %s that',
    async (when) => {
      let tellFound = (): void => undefined;
      const found = new Promise<void>((resolve) => {
        tellFound = resolve;
      });
      const panel = await draw({ orders: true, found, model: { entries: [entryOf(1)] } });
      const comes = () =>
        panel.show({ entries: [entryOf(1), entryOf(2, { by: 'door', isOrder: true })] });
      await panel.press('More');
      await panel.press('Where is my order?');
      await panel.fill('Order number', 'QF-1');
      await panel.fill('Email or phone', 'wren@post.example');
      await panel.press('Find it');
      expect(panel.done).toEqual(['order QF-1']);
      if (when === 'before') await comes();
      await act(async () => tellFound()).then(frame);
      expect(panel.button('More')?.getAttribute('aria-expanded')).toBe('false');
      if (when === 'after') await comes();
      await frame();
      expect(document.activeElement?.id).toBe('slip-2');
    },
  );

  it('lets no button be tapped before somebody agrees, and says so', async () => {
    const panel = await draw({
      dress: (dress) => {
        dress.consent = { isAsked: true, link: '' };
      },
    });
    await panel.press('Question card-0');
    expect(panel.done).toEqual([]);
    expect(panel.root.querySelector('[role="alert"]')?.textContent).toContain('Tick this first');
    expect(document.activeElement?.id).toBe('consent');
    await panel.show({ hasAgreed: true });
    expect(panel.root.querySelector('[role="alert"]')).toBeNull();
    await panel.press('Question card-0');
    expect(panel.done).toEqual(['tap card-0']);
  });
});
