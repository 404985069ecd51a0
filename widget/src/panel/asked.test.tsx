import type { Refusal } from '@porch/contract/errors';
import type { VisitorEntry } from '@porch/contract/visitor';
import { type Dress, plainDress, viewOf } from '@porch/core/dress';
import { render } from 'preact';
import { act } from 'preact/test-utils';
import { entryOf } from '../../test-kit/entries';
import { Asked, Guide } from './asked';
import type { Conversation, FoundCard } from './conversation';
import { firstModel, type Model } from './model';
import type { Given } from './parcels';
import { View } from './view';

const business = { name: 'Quillfern', address: '', picture: null, people: [], ways: [] };
const now = Date.now();

const answerOf = (seq: number, card: Partial<NonNullable<VisitorEntry['card']>> = {}) =>
  entryOf(seq, {
    by: 'door',
    text: 'Within ten miles.',
    card: { id: 'card-delivery', link: '', offers: [], asks: null, ...card },
  });

const cards = (dress: Dress, count: number): void => {
  const ids = Array.from({ length: count }, (_none, at) => `card-${at}`);
  dress.asked = {
    cards: ids.map((id) => ({
      id,
      language: 'en',
      question: `Question ${id}`,
      answer: 'Answer',
      link: '',
      pictureIds: [],
      leads: { to: 'end' },
    })),
    first: ids.slice(0, 10).map((id, at) => ({
      id,
      states: at === 0 ? ['dark'] : ['lit', 'back-soon', 'dark'],
    })),
  };
};

const draw = async (options: {
  count?: number;
  state?: 'lit' | 'dark';
  model?: Partial<Model>;
  found?: FoundCard[] | null;
  refusal?: Refusal;
}) => {
  const dress = plainDress();
  cards(dress, options.count ?? 2);
  const done: string[] = [];
  const conversation = {
    find: async (text: string, why: string) => {
      done.push(`find ${text} ${why}`);
      return options.found === undefined ? [] : options.found;
    },
    enough: async () => {
      done.push('enough');
      return true;
    },
    giveDetails: async (given: Given) => {
      done.push(`gave ${JSON.stringify(given)}`);
      return options.refusal ?? null;
    },
  } as unknown as Conversation;
  const root = document.createElement('div');
  document.body.replaceChildren(root);
  const model = { ...firstModel, isConnected: true, ...options.model };
  const show = (more: Partial<Model> = {}) =>
    act(() => {
      render(
        <View.Provider value={viewOf(dress, business, 'en')}>
          <Asked
            conversation={conversation}
            model={{ ...model, ...more }}
            state={options.state ?? 'lit'}
            isMute={false}
            tap={({ id }) => done.push(`tap ${id}`)}
            askPerson={() => done.push('a person')}
          />
        </View.Provider>,
        root,
      );
    });
  await show();
  await act(async () => undefined);
  const names = () => [...root.querySelectorAll('button')].map((one) => one.textContent);
  return {
    root,
    done,
    show,
    names,
    press: (name: string) =>
      act(async () =>
        [...root.querySelectorAll('button')].find((one) => one.textContent === name)?.click(),
      ),
    fill: (text: string) =>
      act(async () => {
        const input = root.querySelector('input');
        if (!input) throw new Error('there is no field');
        input.value = text;
        input.dispatchEvent(new Event('input', { bubbles: true }));
      }),
  };
};

describe('what is asked often, in the panel', () => {
  it('stands there as buttons before anything was said, by what the light shows', async () => {
    expect((await draw({})).names()).toEqual(['Question card-1']);
    const dark = await draw({ state: 'dark' });
    expect(dark.names()).toEqual(['Question card-0', 'Question card-1']);
    await dark.press('Question card-1');
    expect(dark.done).toEqual(['tap card-1']);
  });

  it('offers what follows after a card, and always a person', async () => {
    const offers = [{ id: 'card-cost', question: 'What does it cost?' }];
    const panel = await draw({
      model: { entries: [entryOf(1, { isTap: true }), answerOf(2, { offers })] },
    });
    expect(panel.names()).toEqual(['What does it cost?', 'A person, please']);
    await panel.press('What does it cost?');
    await panel.press('A person, please');
    expect(panel.done).toEqual(['tap card-cost', 'a person']);
  });

  it('asks for a detail, says what is wrong with it, and goes on once it was given', async () => {
    const offers = [{ id: 'card-cost', question: 'What does it cost?' }];
    const asks = { field: 'email' as const, label: '' };
    const panel = await draw({
      model: { entries: [entryOf(1, { isTap: true }), answerOf(2, { offers, asks })] },
    });
    expect(panel.names()).not.toContain('What does it cost?');
    await panel.press('Save');
    expect(panel.root.querySelector('[role="alert"]')?.textContent).toBe('This is needed.');
    await panel.fill('nonsense');
    await panel.press('Save');
    expect(panel.root.querySelector('[role="alert"]')?.textContent).toContain('email address');
    expect(panel.done).toEqual([]);
    await panel.fill('wren@post.example');
    await panel.press('Save');
    expect(panel.done).toEqual(['gave {"email":"wren@post.example"}', 'tap card-cost']);
  });

  it('asks in the owner’s words, and says what the house refuses', async () => {
    const asks = { field: 'own' as const, label: 'Postcode' };
    const panel = await draw({
      model: { entries: [entryOf(1, { isTap: true }), answerOf(2, { asks })] },
      refusal: { code: 'too-many', waitMs: 5_000 },
    });
    expect(panel.root.querySelector('label')?.textContent).toContain('Postcode');
    await panel.fill('LK1');
    await panel.press('Save');
    expect(panel.done).toEqual(['gave {"own":{"card-delivery":"LK1"}}']);
    expect(panel.root.querySelector('[role="alert"]')?.textContent).toContain('5 seconds');
  });

  it('is out of the way once somebody talks to a person', async () => {
    const panel = await draw({ model: { entries: [entryOf(1, {})] } });
    expect(panel.names()).toEqual([]);
    expect(panel.done).toEqual([]);
  });

  describe('after a note', () => {
    const found = [{ id: 'card-1', question: 'Question card-1' }];

    it('asks once whether it is one of these, and lets the note stand', async () => {
      const note = entryOf(1, { text: 'Do you deliver?' });
      const panel = await draw({ state: 'dark', found, model: { entries: [note] } });
      expect(panel.done).toEqual(['find Do you deliver? note']);
      expect(panel.root.querySelector('h2')?.textContent).toBe('Is it one of these?');
      expect(panel.names()).toEqual(['Question card-1', 'No, leave a note']);
      await panel.press('No, leave a note');
      expect(panel.names()).toEqual([]);
      await panel.show({ isConnected: false });
      await panel.show();
      expect(panel.done).toHaveLength(1);
    });

    it('lets a card answer it, where they say so', async () => {
      const note = entryOf(1, { text: 'Do you deliver?' });
      const panel = await draw({ state: 'dark', found, model: { entries: [note] } });
      await panel.press('Question card-1');
      await panel.show({ entries: [note, entryOf(2, { isTap: true }), answerOf(3)] });
      expect(panel.names()).toEqual(['That answers it', 'No, leave a note']);
      await panel.press('That answers it');
      expect(panel.done.at(-1)).toBe('enough');
      expect(panel.root.querySelector('[role="status"]')?.textContent).toContain('Good to hear');
    });

    it('lets a card lead on all the same', async () => {
      const note = entryOf(1, { text: 'Do you deliver?' });
      const offers = [{ id: 'card-cost', question: 'What does it cost?' }];
      const panel = await draw({ state: 'dark', found, model: { entries: [note] } });
      await panel.show({ entries: [note, entryOf(2, { isTap: true }), answerOf(3, { offers })] });
      expect(panel.names()).toEqual(['What does it cost?', 'That answers it', 'No, leave a note']);
      await panel.press('What does it cost?');
      expect(panel.done.at(-1)).toBe('tap card-cost');
    });

    it.each([
      ['somebody is in', { state: 'lit' as const }, {}],
      ['it was left long ago', { state: 'dark' as const }, { at: now - 3 * 60_000 }],
      ['it was answered', { state: 'dark' as const }, { by: 'team' as const }],
    ])('asks nothing where %s', async (_where, options, change) => {
      const panel = await draw({ ...options, found, model: { entries: [entryOf(1, change)] } });
      expect(panel.done).toEqual([]);
    });
  });

  it('is searched where there are more than ten, as somebody types', async () => {
    jest.useFakeTimers();
    const found = [{ id: 'card-11', question: 'Question card-11' }];
    const panel = await draw({ count: 12, found });
    await panel.fill('r');
    await act(async () => jest.advanceTimersByTime(1_000));
    await panel.fill('repot');
    await act(async () => jest.advanceTimersByTime(1_000));
    expect(panel.done).toEqual(['find repot search']);
    expect(panel.names()).toContain('Question card-11');
    jest.useRealTimers();
  });

  it('says nothing where it cannot be told whether there is any', async () => {
    jest.useFakeTimers();
    const panel = await draw({ count: 12, found: null });
    await panel.fill('quarz');
    await act(async () => jest.advanceTimersByTime(1_000));
    expect(panel.done).toEqual(['find quarz search']);
    expect(panel.root.querySelector('[role="status"]')?.textContent).toBe('');
    jest.useRealTimers();
  });

  it('says where nothing was found', async () => {
    jest.useFakeTimers();
    const panel = await draw({ count: 12 });
    await panel.fill('quarz');
    await act(async () => jest.advanceTimersByTime(1_000));
    expect(panel.root.querySelector('[role="status"]')?.textContent).toContain('Nothing was found');
    jest.useRealTimers();
  });
});

describe('a guide', () => {
  it('has headings, steps, pictures and a page to go on with', async () => {
    const root = document.createElement('div');
    const conversation = { fetchFile: async () => null } as unknown as Conversation;
    const files = [{ id: 'file-1', name: 'pot.jpg', type: 'image/jpeg', sizeBytes: 9 }];
    const text =
      '# Repotting\n1. Water it, see https://quillfern.example/water\n2. Lift it\n\n- soil';
    const said = {
      ...answerOf(1, { link: 'https://quillfern.example/repotting' }),
      text,
      files,
    };
    await act(() => {
      render(
        <View.Provider value={viewOf(plainDress(), business, 'en')}>
          <Guide conversation={conversation} entry={said} open={() => undefined} />
        </View.Provider>,
        root,
      );
    });
    // What tells links from words comes only where a text may hold one.
    await act(async () => void (await import('@porch/core/links')));
    expect(root.querySelector('h3')?.textContent).toBe('Repotting');
    expect(root.querySelectorAll('ol > li')).toHaveLength(2);
    expect(root.querySelectorAll('ul > li')).toHaveLength(1);
    const links = [...root.querySelectorAll('a')].map((one) => one.getAttribute('href'));
    expect(links).toEqual([
      'https://quillfern.example/water',
      'https://quillfern.example/repotting',
    ]);
  });
});
