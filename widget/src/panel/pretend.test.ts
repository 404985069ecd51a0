import type { ToVisitor } from '@porch/contract/visitor';
import type { Card, Cards } from '@porch/core/cards';
import type { Light } from '@porch/core/lamp';
import { pretend } from './pretend';

const dark: Light = { state: 'dark', until: null };

describe('the other end of the wire in the dressing room', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  const open = (lamp: Light = dark, hello = '', asked: Cards | null = null) => {
    const heard: ToVisitor[] = [];
    const connected: boolean[] = [];
    const line = pretend(
      (message) => heard.push(message),
      (isConnected) => connected.push(isConnected),
      () => lamp,
      () => hello,
      () => asked,
    );
    jest.runAllTimers();
    return { heard, connected, line };
  };

  it('welcomes as a server does, with the light that is being looked at', () => {
    const { heard, connected } = open();
    expect(connected).toEqual([true]);
    expect(heard).toEqual([expect.objectContaining({ say: 'welcome', lamp: dark, entries: [] })]);
  });

  it('takes a message, shows it, and has it read', () => {
    const { heard, line } = open();
    line.send({ do: 'say', id: 'message-0001', text: 'Hello', fileIds: [], page: null });
    jest.runAllTimers();
    expect(heard.slice(1).map(({ say }) => say)).toEqual(['entries', 'taken', 'reached']);
    expect(heard[1]).toMatchObject({ entries: [{ text: 'Hello', by: 'visitor', seq: 1 }] });
  });

  it('says the first hello after the first message, while the light is lit', () => {
    const said = (lamp: Light, hello: string) => {
      const { heard, line } = open(lamp, hello);
      for (const id of ['message-0001', 'message-0002']) {
        line.send({ do: 'say', id, text: id, fileIds: [], page: null });
        jest.runAllTimers();
      }
      return heard.flatMap((one) => (one.say === 'entries' ? one.entries : []));
    };
    const lit: Light = { state: 'lit', until: null };
    expect(said(lit, 'We have it').map(({ by, text }) => [by, text])).toEqual([
      ['visitor', 'message-0001'],
      ['door', 'We have it'],
      ['visitor', 'message-0002'],
    ]);
    expect(said(lit, '')).toHaveLength(2);
    expect(said(dark, 'We have it')).toHaveLength(2);
  });

  it('takes details and checks of them, and says nothing to the rest', () => {
    const { heard, line } = open();
    line.send({ do: 'check', id: 'check-00001', name: 'Wren' });
    line.send({ do: 'details', id: 'details-001', name: 'Wren' });
    line.send({ do: 'typing' });
    jest.runAllTimers();
    expect(heard.slice(1)).toEqual([
      { say: 'taken', id: 'check-00001' },
      { say: 'taken', id: 'details-001' },
    ]);
  });

  it('answers cards, what is looked for among them, and what they were enough for', () => {
    const card = (id: string, leads: Card['leads']): Card => ({
      id,
      language: 'en',
      question: `Do you ${id}?`,
      answer: 'We do.',
      link: '',
      pictureIds: ['picture-1'],
      leads,
    });
    const asked = {
      cards: [card('deliver', { to: 'cards', ids: ['repot'] }), card('repot', { to: 'end' })],
      first: [],
    };
    const { heard, line } = open(dark, '', asked);
    line.send({ do: 'tap', id: 'tap-1', card: 'deliver', page: null });
    line.send({ do: 'tap', id: 'tap-2', card: 'nothing', page: null });
    line.send({ do: 'find', id: 'find-1', text: 'repotting', language: 'en', for: 'note' });
    line.send({ do: 'enough', id: 'enough-1' });
    jest.runAllTimers();
    const said = heard.flatMap((one) => (one.say === 'entries' ? one.entries : []));
    expect(said).toMatchObject([
      { by: 'visitor', text: 'Do you deliver?', isTap: true },
      {
        by: 'door',
        text: 'We do.',
        files: [{ id: 'picture-1' }],
        card: { offers: [{ id: 'repot' }] },
      },
    ]);
    expect(heard).toContainEqual({ say: 'refused', id: 'tap-2', refusal: { code: 'card-gone' } });
    expect(heard).toContainEqual({
      say: 'found',
      id: 'find-1',
      cards: [expect.objectContaining({ id: 'repot' })],
    });
    expect(heard).toContainEqual({ say: 'taken', id: 'enough-1' });
  });
});
