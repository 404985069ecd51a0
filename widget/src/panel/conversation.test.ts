import { keep } from '@porch/client/keeping';
import type { ToVisitor } from '@porch/contract/visitor';
import { type DoorView, plainDress, viewOf } from '@porch/core/dress';
import { answer } from '../../test-kit/answer';
import { openConversation } from './conversation';

/** A socket to a server that the test plays. */
class PlayedSocket {
  static readonly OPEN = 1;
  static all: PlayedSocket[] = [];
  readyState = 0;
  sent: {
    do: string;
    id?: string;
    since?: number;
    token?: string;
    text?: string;
    upTo?: number;
  }[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: (() => void) | null = null;

  constructor() {
    PlayedSocket.all.push(this);
  }

  send(text: string): void {
    this.sent.push(JSON.parse(text));
  }

  close(): void {
    this.readyState = 3;
    this.onclose?.();
  }

  open(): void {
    this.readyState = PlayedSocket.OPEN;
    this.onopen?.();
  }

  tell(message: ToVisitor): void {
    this.onmessage?.({ data: JSON.stringify(message) });
  }

  said(): (string | undefined)[] {
    return this.sent.filter((message) => message.do === 'say').map(({ text }) => text);
  }
}

const latest = (): PlayedSocket => {
  const socket = PlayedSocket.all.at(-1);
  if (!socket) throw new Error('no socket was opened');
  return socket;
};

const welcome = (seq = 0): ToVisitor => ({
  say: 'welcome',
  now: Date.now(),
  lamp: { state: 'lit', until: null },
  usual: null,
  opens: [],
  entries: [],
  continues: seq > 0,
  hasOlder: false,
  reached: { hasSeq: 0, readSeq: 0 },
  details: { name: '', email: '', phone: '', own: {} },
  hasConsented: false,
  mails: true,
  seq,
  last: null,
});

const idOf = (message?: { id?: string }): string => message?.id ?? '';

const settled = () => jest.advanceTimersByTimeAsync(10);

describe('the visitor\u2019s side of the conversation', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    PlayedSocket.all = [];
    localStorage.clear();
    Object.assign(window, { WebSocket: PlayedSocket });
    Object.defineProperty(document, 'visibilityState', { value: 'visible', configurable: true });
    Object.defineProperty(globalThis, 'crypto', {
      value: jest.requireActual('node:crypto').webcrypto,
      configurable: true,
    });
  });
  afterEach(() => jest.useRealTimers());

  const open = (view: DoorView | null = null, door = 'door-of-tests') =>
    openConversation({ door, place: 'page', view, isClosed: false });

  const openWelcome = async () => {
    const conversation = open();
    latest().open();
    latest().tell(welcome());
    await settled();
    return conversation;
  };

  it('says hello with a token of its own making, and stores it only once something is said', async () => {
    const conversation = await openWelcome();
    const [hello] = latest().sent;
    expect(hello).toMatchObject({ do: 'hello', since: 0 });
    expect(hello?.token).toMatch(/^[A-Za-z0-9_-]{43}$/);
    expect(localStorage).toHaveLength(0);
    conversation.say('Hello', []);
    expect(localStorage.getItem('porch:token:door-of-tests')).toBe(hello?.token);
  });

  it('goes on with what somebody began to say in another tab, as long as nothing was said in this one', async () => {
    const conversation = await openWelcome();
    latest().tell({ ...welcome(7), continues: false } as ToVisitor);
    const mine = latest().sent[0]?.token;
    const other = 'o'.repeat(43);
    localStorage.setItem('porch:token:door-of-tests', other);
    dispatchEvent(new Event('storage'));
    latest().open();
    expect(latest().sent).toMatchObject([{ do: 'hello', token: other, since: 0 }]);
    latest().tell({ ...welcome(9), continues: false, entries: [answer(9)] } as ToVisitor);
    await settled();
    conversation.say('Here as well', []);
    expect(localStorage.getItem('porch:token:door-of-tests')).toBe(other);
    expect(other).not.toBe(mine);
    expect(latest().said()).toEqual(['Here as well']);
  });

  it('says its first words where another tab has begun, though nobody has told this one', async () => {
    const conversation = await openWelcome();
    const other = 'p'.repeat(43);
    localStorage.setItem('porch:token:door-of-tests', other);
    conversation.say('First here', []);
    expect(latest().said()).toEqual([]);
    latest().open();
    latest().tell({ ...welcome(9), continues: false } as ToVisitor);
    await settled();
    expect(latest().sent[0]).toMatchObject({ do: 'hello', token: other });
    expect(latest().said()).toEqual(['First here']);
  });

  it('stays with its own where something was said in this tab already', async () => {
    const conversation = await openWelcome();
    conversation.say('Mine', []);
    const socket = latest();
    localStorage.setItem('porch:token:door-of-tests', 'q'.repeat(43));
    dispatchEvent(new Event('storage'));
    expect(latest()).toBe(socket);
  });

  it('sends in order, the next once the one before it is on disk', async () => {
    const conversation = await openWelcome();
    conversation.say('One', []);
    conversation.say('Two', []);
    await settled();
    expect(latest().said()).toEqual(['One']);
    const first = conversation.now().queue[0]?.id ?? '';
    latest().tell({ say: 'taken', id: first });
    await settled();
    expect(latest().said()).toEqual(['One', 'Two']);
  });

  it('keeps what the server cannot write down, says so, and sends it by itself', async () => {
    const conversation = await openWelcome();
    conversation.say('Kept', []);
    await settled();
    const id = conversation.now().queue[0]?.id ?? '';
    latest().tell({ say: 'refused', id, refusal: { code: 'cannot-write' } });
    await settled();
    expect(conversation.now()).toMatchObject({ isHeldUp: true, queue: [{ id, state: 'waiting' }] });
    await jest.advanceTimersByTimeAsync(1_100);
    expect(latest().said()).toEqual(['Kept', 'Kept']);
    latest().tell({ say: 'taken', id });
    await settled();
    expect(conversation.now()).toMatchObject({ isHeldUp: false, queue: [] });
  });

  it('names the entry that it has last when it comes back, and shows another past as it is', async () => {
    const conversation = await openWelcome();
    latest().tell({ say: 'entries', entries: [answer(41)], seq: 41, last: 'answer-41' });
    latest().close();
    await jest.advanceTimersByTimeAsync(3_000);
    latest().open();
    expect(latest().sent[0]).toMatchObject({ do: 'hello', since: 41, last: 'answer-41' });
    latest().tell({
      ...welcome(),
      entries: [answer(7)],
      continues: false,
      seq: 7,
      last: 'answer-7',
    } as ToVisitor);
    await settled();
    expect(conversation.now().entries.map(({ seq }) => seq)).toEqual([7]);
  });

  it('tells that an answer has come while nobody looks, and that it was read once somebody does', async () => {
    await openWelcome();
    Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
    latest().tell({ say: 'entries', entries: [answer(60)], seq: 60, last: 'answer-60' });
    await settled();
    const told = () => latest().sent.filter(({ upTo }) => upTo === 60);
    expect(told()).toEqual([{ do: 'has', upTo: 60 }]);
    Object.defineProperty(document, 'visibilityState', { value: 'visible', configurable: true });
    document.dispatchEvent(new Event('visibilitychange'));
    expect(told()).toEqual([
      { do: 'has', upTo: 60 },
      { do: 'read', upTo: 60 },
    ]);
  });

  it('sends again what was on its way when the line broke, under the same id', async () => {
    const conversation = await openWelcome();
    conversation.say('On its way', []);
    await settled();
    const before = latest().sent.find((message) => message.do === 'say')?.id;
    latest().close();
    await jest.advanceTimersByTimeAsync(3_000);
    expect(PlayedSocket.all).toHaveLength(2);
    latest().open();
    latest().tell(welcome());
    await settled();
    expect(latest().sent.find((message) => message.do === 'say')?.id).toBe(before);
    expect(conversation.now().queue).toHaveLength(1);
  });

  it('asks since the seq that it has when it comes back', async () => {
    await openWelcome();
    latest().tell({
      say: 'entries',
      entries: [answer(41)],
      seq: 42,
      last: 'answer-42',
    });
    latest().close();
    await jest.advanceTimersByTimeAsync(3_000);
    latest().open();
    expect(latest().sent[0]).toMatchObject({ do: 'hello', since: 42 });
  });

  it('keeps what was refused, says why, and sends it again when asked to', async () => {
    const conversation = await openWelcome();
    conversation.say('Too much', []);
    await settled();
    const id = conversation.now().queue[0]?.id ?? '';
    latest().tell({ say: 'refused', id, refusal: { code: 'too-many', waitMs: 12_000 } });
    await settled();
    expect(conversation.now().queue[0]?.state).toBe('failed');
    expect(conversation.now().refusals[id]).toEqual({ code: 'too-many', waitMs: 12_000 });
    conversation.retry(id);
    await settled();
    expect(latest().said()).toEqual(['Too much', 'Too much']);
  });

  it('tells that an answer was read, once, and anew when the line broke', async () => {
    await openWelcome();
    latest().tell({ say: 'entries', entries: [answer(70)], seq: 70, last: 'answer-70' });
    latest().tell({ say: 'entries', entries: [answer(70)], seq: 70, last: 'answer-70' });
    const told = () => latest().sent.filter(({ do: did, upTo }) => did === 'read' && upTo === 70);
    expect(told()).toHaveLength(1);
    latest().close();
    await jest.advanceTimersByTimeAsync(3_000);
    latest().open();
    expect(told()).toHaveLength(0);
    latest().tell(welcome(70));
    expect(told()).toHaveLength(1);
  });

  it('gives up a line that has gone silent, and opens another', async () => {
    await openWelcome();
    await jest.advanceTimersByTimeAsync(90_000);
    expect(PlayedSocket.all.length).toBeGreaterThan(1);
  });

  it('tells that the visitor types now and then, not at every stroke', async () => {
    const conversation = await openWelcome();
    conversation.typing();
    conversation.typing();
    expect(latest().sent.filter((message) => message.do === 'typing')).toHaveLength(1);
    await jest.advanceTimersByTimeAsync(3_100);
    conversation.typing();
    expect(latest().sent.filter((message) => message.do === 'typing')).toHaveLength(2);
  });

  describe('before there is anything to note it in', () => {
    it('holds what somebody says of themselves, and sends it right after the first message', async () => {
      const conversation = open(null, 'door-holding');
      latest().open();
      latest().tell(welcome());
      await settled();
      const taken = conversation.giveDetails({ name: 'Wren' });
      const [asked] = latest().sent.filter((message) => message.do === 'check');
      latest().tell({ say: 'taken', id: idOf(asked) });
      expect(await taken).toBeNull();
      expect(latest().sent.some((message) => message.do === 'details')).toBe(false);
      conversation.say('Hello', []);
      await settled();
      const said = conversation.now().queue[0]?.id ?? '';
      latest().tell({ say: 'taken', id: said });
      await settled();
      expect(latest().sent.at(-1)).toMatchObject({ do: 'details', name: 'Wren' });
    });

    it('says beside which field something is wrong, and notes nothing', async () => {
      const conversation = open(null, 'door-checking');
      latest().open();
      latest().tell(welcome());
      await settled();
      const taken = conversation.giveDetails({ phone: '12' });
      const [asked] = latest().sent.filter((message) => message.do === 'check');
      latest().tell({
        say: 'refused',
        id: idOf(asked),
        refusal: { code: 'phone-not-understood', field: 'phone' },
      });
      expect(await taken).toEqual({ code: 'phone-not-understood', field: 'phone' });
      expect(conversation.now().held).toBeNull();
    });
  });

  describe('an order that is asked for', () => {
    it('is the same question when it is asked anew because no answer came through, and another one otherwise', async () => {
      const conversation = open(null, 'door-ordering');
      const meet = async (): Promise<void> => {
        latest().open();
        latest().tell(welcome());
        await settled();
      };
      const asks = () =>
        PlayedSocket.all.flatMap(({ sent }) => sent.filter((one) => one.do === 'order'));
      const ask = (number: string) => conversation.order(number, 'wren@post.example');
      await meet();
      const first = ask('QF-1');
      latest().close();
      expect(await first).toEqual({ code: 'order-not-now' });
      // When it comes back is a matter of luck; what comes too late is given up.
      const sockets = PlayedSocket.all.length;
      while (PlayedSocket.all.length === sockets) await jest.advanceTimersByTimeAsync(100);
      await meet();
      const again = ask('QF-1');
      latest().tell({ say: 'taken', id: idOf(asks().at(-1)) });
      expect(await again).toBeNull();
      const later = ask('QF-1');
      latest().tell({ say: 'taken', id: idOf(asks().at(-1)) });
      expect(await later).toBeNull();
      const [one, two, three] = asks().map(({ id }) => id);
      expect(two).toBe(one);
      expect(three).not.toBe(one);
    });
  });

  describe('where consent is asked', () => {
    const asking = viewOf(
      { ...plainDress(), consent: { isAsked: true, link: '' } },
      { name: 'Quillfern', address: '', picture: null, people: [], ways: [] },
      'de',
    );

    it('writes nothing to the device before the tick, and says in which language it was given', async () => {
      const conversation = open(asking, 'door-asking');
      latest().open();
      latest().tell(welcome());
      await settled();
      keep('porch:draft:door-asking', 'half a sentence');
      expect(localStorage).toHaveLength(0);
      conversation.agree();
      expect(localStorage.getItem('porch:draft:door-asking')).toBe('half a sentence');
      conversation.say('Hello', []);
      await settled();
      expect(latest().sent.at(-1)).toMatchObject({ do: 'say', text: 'Hello', consent: 'de' });
    });
  });
});
