import { dressingOf, openTrial } from '../../test-kit/dresses';
import { type House, openHouse, setUp, site } from '../../test-kit/house';
import { clientId, until, visit } from '../../test-kit/panel';
import { sharesWhile } from '../../test-kit/tables';
import { provenId } from '../doors/bridge/signing';
import type { Asked } from '../security/outside';

const hour = 3_600_000;
const head = 'Order number;E-mail;Phone;Status;Expected;Link';
const ada = 'QF-1101;ada@post.example;;Packed;2026-12-01;https://carrier.example/1101';
const bram = 'QF-1102;;07700 900123;On its way;;';

describe('where an order is', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };
  /** What the shop is asked, and what it answers. */
  const asked: Asked[] = [];
  let answer: () => Promise<{ status: number; body: unknown }>;

  beforeEach(async () => {
    asked.length = 0;
    answer = async () => ({ status: 404, body: null });
    house = await openHouse({}, ':memory:', {
      outside: {
        may: (address: string) => address.startsWith('https://'),
        whereIs: () => Promise.reject(new Error('nobody')),
        serviceAt: async () => null,
        ask: async (what: Asked) => {
          asked.push(what);
          const { status, body } = await answer();
          return { status, headers: {}, body: Buffer.from(JSON.stringify(body)), isCut: false };
        },
        end: () => undefined,
      },
    });
    ({ cookie, door } = await setUp(house));
    await house.ask('PUT', '/api/business', { cookie, body: { country: 'GB' } });
  });
  afterEach(() => house.close());

  const take = async (text: string | Buffer) =>
    house.ask('POST', '/api/orders/table', {
      cookie,
      headers: { 'content-type': 'application/octet-stream' },
      body: Buffer.isBuffer(text) ? text : Buffer.from(text),
    });
  const shown = async () => (await house.ask('GET', '/api/orders', { cookie })).body;
  const table = (...rows: string[]): string => [head, ...rows].join('\r\n');
  const setShop = (url = 'https://shop.example/orders', key?: string) =>
    house.ask('PUT', '/api/orders/shop', { cookie, body: { url, key } });
  const rows = () => house.store.entries.since(0, 500);
  const wren = async (who = 'wren') => {
    const panel = await visit(house, door.publicId, who);
    return {
      ...panel,
      asks: async (number: string, contact: string, id = clientId(), isTrial?: boolean) => {
        panel.tell({ do: 'order', id, number, contact, page: null, language: 'en', isTrial });
        const told = await until(() => {
          const at = panel.heard.findIndex(
            (one) => (one.say === 'taken' || one.say === 'refused') && one.id === id,
          );
          return at < 0 ? undefined : panel.heard.splice(at, 1)[0];
        });
        return told.say === 'refused' ? told.refusal.code : told.say;
      },
    };
  };

  it('is said at once to whoever has its number and its email or phone, at any hour', async () => {
    await take(table(ada, bram));
    await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'dark', until: null } });
    const panel = await wren();
    expect(await panel.asks('#qf 1101', ' Ada@Post.example ')).toBe('taken');
    const { entries } = await panel.hear('entries', ({ entries: some }) => some.length > 1);
    expect(entries).toMatchObject([
      { by: 'visitor', text: 'Where is order QF-1101?', isTap: true },
      {
        by: 'door',
        text: 'Order QF-1101: Packed\nExpected on Tuesday 1 December\nhttps://carrier.example/1101',
        isOrder: true,
      },
    ]);
    expect(await panel.asks('1102', '07700 900123')).toBe('order-not-found');
    expect(await panel.asks('QF1102', '+44 7700 900123')).toBe('taken');
    // Nobody has to answer it.
    expect(house.store.conversations.page('wrapped-up', null, 2)).toHaveLength(1);
    expect(house.store.conversations.counts()).toMatchObject({ waiting: 0, note: 0 });
  });

  it('is once on the roll under one id, also after a killed connection', async () => {
    await take(table(ada));
    const id = clientId();
    await (await wren()).asks('QF-1101', 'ada@post.example', id);
    await take(table(ada.replace('Packed', 'Sent')));
    expect(await (await wren()).asks('QF-1101', 'ada@post.example', id)).toBe('taken');
    expect(rows().filter(({ kind }) => kind === 'door-sign')).toHaveLength(1);
  });

  it('says of a wrong pair neither whether the number nor whether the contact is known, and keeps nothing', async () => {
    await take(table(ada, bram));
    const panel = await wren();
    expect(await panel.asks('QF-1101', 'eve@post.example')).toBe('order-not-found');
    expect(await panel.asks('QF-9999', 'ada@post.example')).toBe('order-not-found');
    // Of an order without a mail address none is right.
    expect(await panel.asks('QF-1102', 'ada@post.example')).toBe('order-not-found');
    expect(await panel.asks('QF-1101', 'not a contact')).toBe('contact-not-understood');
    expect(await panel.asks('###', 'ada@post.example')).toBe('text-empty');
    expect(rows().filter(({ kind }) => kind === 'visitor-said')).toEqual([]);
    expect([...house.store.conversations.batchAfter('')]).toEqual([]);
  });

  it('is not found out by trying, by one visitor nor from one address, and nobody else is held up by who tries', async () => {
    await take(table(ada));
    const eve = await wren('eve');
    const codes: string[] = [];
    for (let time = 0; time < 15; time += 1) {
      codes.push(await eve.asks(`QF-${2_000 + time}`, 'ada@post.example'));
    }
    expect(codes.filter((code) => code === 'too-many').length).toBeGreaterThanOrEqual(3);
    // Whose order it is: all that was tried on its number is nothing to them.
    expect(await (await wren()).asks('QF-1101', 'ada@post.example')).toBe('taken');
    const tried: string[] = [];
    for (let time = 0; time < 40; time += 1) {
      const panel = await wren(`other-${time}`);
      tried.push(await panel.asks('QF-1101', `a${time}@post.example`));
    }
    expect(tried.at(-1)).toBe('too-many');
    house.clock.advance(hour);
    // Right ones are never counted: whoever looks again and again is told again and again.
    for (let time = 0; time < 50; time += 1) {
      const panel = await wren(`right-${time}`);
      expect(await panel.asks('QF-1101', 'ada@post.example')).toBe('taken');
    }
  });

  it('keeps nothing before somebody agrees, where that is asked', async () => {
    await take(table(ada));
    await dressingOf(house, cookie, door.id).publish((dress) => ({
      ...dress,
      consent: { ...dress.consent, isAsked: true },
    }));
    expect(await (await wren()).asks('QF-1101', 'ada@post.example')).toBe('consent-needed');
  });

  it('is said as a draft has it to whoever tries that, and to nobody else', async () => {
    await take(table(ada));
    await dressingOf(house, cookie, door.id).save((dress) => ({
      ...dress,
      texts: { en: { orderSaid: '{number} is now: {state}' } },
    }));
    // Who says so before it was opened there is told what everybody is.
    await house.ask('POST', `/api/doors/${door.id}/trial`, { cookie });
    await (await wren('eve')).asks('QF-1101', 'ada@post.example', clientId(), true);
    await openTrial(house, cookie, door, site);
    await (await wren()).asks('QF-1101', 'ada@post.example');
    await (await wren('maren')).asks('QF-1101', 'ada@post.example', clientId(), true);
    const firstLines = rows().flatMap((entry) =>
      entry.kind === 'door-sign' ? entry.text.split('\n')[0] : [],
    );
    expect(firstLines).toEqual([
      'Order QF-1101: Packed',
      'Order QF-1101: Packed',
      'QF-1101 is now: Packed',
    ]);
  });

  describe('in a table', () => {
    it('is read in as often as one likes, with every row that was not taken and why', async () => {
      const bad = 'QF-1103;;;Packed;;';
      const first = await take(table(ada, bram, bad, ';a@b.example;;Packed;;'));
      expect(first.body).toEqual({
        addedCount: 2,
        changedCount: 0,
        sameCount: 0,
        refusedCount: 2,
        refused: [
          { row: 4, what: 'QF-1103', why: 'contact-missing' },
          { row: 5, what: '', why: 'number-missing' },
        ],
      });
      const second = await take(table(ada.replace('Packed', 'Sent'), bram));
      expect(second.body).toMatchObject({ addedCount: 0, changedCount: 1, sameCount: 1 });
      expect(await shown()).toMatchObject({ count: 2, progress: null, last: second.body });
    });

    it('is understood in UTF-16 and with formulas in its cells, which are text', async () => {
      const text = table('QF-1101;ada@post.example;;=1+1;;');
      const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
      expect((await take(utf16)).body).toMatchObject({ addedCount: 1 });
      expect(house.store.orders.byNumber('QF-1101')?.state).toBe('=1+1');
    });

    it('that breaks on the way says from which row on; what stands before that is kept', async () => {
      const many = Array.from({ length: 200 }, (_none, at) => `N-${at};a@b.example;;Packed;;`);
      const { body } = await take(table(...many, '"N-200;a@b.example;;Packed;;', 'N-201;;;;;'));
      expect(body).toMatchObject({
        addedCount: 200,
        refusedCount: 1,
        refused: [{ row: 202, what: '', why: 'row-broken' }],
      });
      expect(await shown()).toMatchObject({ count: 200, progress: null, last: body });
      const whole = await take(table('"N-300;a@b.example;;Packed;;'));
      expect(whole.body).toMatchObject({ code: 'table-not-understood', limit: 2 });
    });

    it('is refused whole where it is none, and nothing is changed', async () => {
      await take(table(ada));
      for (const nonsense of ['', 'hello', 'name;colour\r\nfern;green', Buffer.alloc(9)]) {
        expect((await take(nonsense)).body.code).toBe('table-not-understood');
      }
      expect(await shown()).toMatchObject({ count: 1, progress: null });
    });

    it('of many rows lets others have their turn meanwhile, and says how far it is', async () => {
      const many = Array.from(
        { length: 3_000 },
        (_none, at) => `N-${at};a${at}@b.example;;Packed;;`,
      );
      const taking = take(table(...many));
      const seen = await sharesWhile(taking, async () => (await shown()).progress);
      expect((await taking).body).toMatchObject({ addedCount: 3_000 });
      expect(seen.length).toBeGreaterThan(1);
      expect(seen.every((share) => share >= 0 && share <= 1)).toBe(true);
    });

    it('is read one after the other, and all of it can be taken away', async () => {
      const many = Array.from({ length: 500 }, (_none, at) => `N-${at};a@b.example;;Packed;;`);
      const both = await Promise.all([take(table(...many)), take(table(...many))]);
      expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
      expect(both.find(({ status }) => status === 409)?.body.code).toBe('table-in-work');
      const { body } = await house.ask('DELETE', '/api/orders', { cookie });
      expect(body).toMatchObject({ count: 0, last: null });
    });
  });

  describe('one by one', () => {
    const typed = (change: object = {}) => ({
      number: 'QF-1200',
      email: 'Ada@post.example',
      phone: '',
      state: 'Packed',
      expectedOn: '1.12.2026',
      link: '',
      ...change,
    });
    const put = (order: object, before: object | null = null) =>
      house.ask('PUT', '/api/orders/one', { cookie, body: { before, order } });
    const list = async (query = '', after = '') =>
      (
        await house.ask('GET', `/api/orders/list?${new URLSearchParams({ query, after })}`, {
          cookie,
        })
      ).body;
    const numbers = async (query = '') =>
      (await list(query)).orders.map(({ number }: { number: string }) => number);

    it('is added, corrected and taken away', async () => {
      const added = await put(typed());
      expect(added.body).toMatchObject({ email: 'Ada@post.example', expectedOn: '2026-12-01' });
      const changed = await put(typed({ state: 'On the van' }), added.body);
      expect(changed.body.state).toBe('On the van');
      expect((await house.ask('GET', '/api/orders/one/qf1200', { cookie })).body.state).toBe(
        'On the van',
      );
      const panel = await wren();
      expect(await panel.asks('QF-1200', 'ada@post.example')).toBe('taken');
      const renamed = await put(typed({ number: 'QF-1201' }), changed.body);
      expect(renamed.body.number).toBe('QF-1201');
      expect(await numbers()).toEqual(['QF-1201']);
      const drop = () => house.ask('DELETE', '/api/orders/one/QF-1201', { cookie });
      expect((await drop()).status).toBe(204);
      expect((await drop()).status).toBe(404);
      expect((await shown()).count).toBe(0);
    });

    it.each([
      [{ number: ' - ' }, 'text-empty', 'number'],
      [{ number: 'Q'.repeat(41) }, 'text-too-long', 'number'],
      [{ email: '' }, 'contact-missing', 'email'],
      [{ email: 'ada' }, 'email-not-understood', 'email'],
      [{ phone: '12' }, 'phone-not-understood', 'phone'],
      [{ state: '' }, 'text-empty', 'state'],
      [{ state: 'x'.repeat(81) }, 'text-too-long', 'state'],
      [{ expectedOn: 'soon' }, 'day-not-understood', 'expectedOn'],
      [{ link: 'javascript:alert(1)' }, 'link-not-understood', 'link'],
    ])('with %j is refused at its field, and nothing is kept', async (change, code, field) => {
      expect((await put(typed(change))).body).toMatchObject({ code, field });
      expect((await shown()).count).toBe(0);
    });

    it('never takes the place of another one, nor of what somebody changed meanwhile', async () => {
      const { body: first } = await put(typed());
      await put(typed({ number: 'QF-1300' }));
      expect((await put(typed({ number: 'qf 1200' }))).body).toMatchObject({
        code: 'order-taken',
        field: 'number',
      });
      expect((await put(typed({ number: 'QF-1300' }), first)).body.code).toBe('order-taken');
      await put(typed({ state: 'Sent' }), first);
      expect((await put(typed({ state: 'Lost' }), first)).body.code).toBe('changed-meanwhile');
      await house.ask('DELETE', '/api/orders/one/QF-1200', { cookie });
      expect((await put(typed({ state: 'Lost' }), first)).body.code).toBe('not-found');
      expect(await numbers()).toEqual(['QF-1300']);
    });

    it('is found by number, email or phone; without words the newest come first, page by page', async () => {
      await take(table(ada, bram));
      house.clock.advance(1_000);
      await put(typed());
      expect(await numbers()).toEqual(['QF-1200', 'QF-1102', 'QF-1101']);
      expect(await numbers('qf 11')).toEqual(['QF-1101', 'QF-1102']);
      expect(await numbers('ADA@post.example')).toEqual(['QF-1200', 'QF-1101']);
      expect(await numbers('07700 900123')).toEqual(['QF-1102']);
      expect(await numbers('nobody@post.example')).toEqual([]);
      expect(await numbers('%')).toEqual([]);
      const many = Array.from({ length: 80 }, (_, nth) => `N-${nth};a@post.example;;Sent;;`);
      await take(table(...many));
      const seen: string[] = [];
      for (let after: string | null = ''; after !== null; ) {
        const { orders, next }: { orders: { number: string }[]; next: string | null } = await list(
          '',
          after,
        );
        seen.push(...orders.map(({ number }) => number));
        after = next;
      }
      expect(new Set(seen).size).toBe(83);
      expect(seen).toHaveLength(83);
    });
  });

  describe('at the shop', () => {
    const fromShop = {
      number: 'QF-7',
      email: 'ada@post.example',
      state: 'Sent',
      expected: '2026-12-02',
    };

    it('is asked for by one signed request, where no table has it', async () => {
      await setShop();
      const { key } = (await house.ask('GET', '/api/orders/shop/key', { cookie })).body;
      answer = async () => ({ status: 200, body: fromShop });
      await take(table(ada));
      const panel = await wren();
      expect(await panel.asks('QF-1101', 'ada@post.example')).toBe('taken');
      expect(asked).toHaveLength(0);
      expect(await panel.asks('qf 7', 'ada@post.example')).toBe('taken');
      const [{ body = '', headers, address } = {} as Asked] = asked;
      expect(address).toBe('https://shop.example/orders');
      expect(JSON.parse(String(body))).toEqual({ type: 'order.asked', number: 'qf 7' });
      const keys = { key, before: null };
      const given = headers as Record<string, string>;
      expect(provenId(keys, given, Buffer.from(body), house.clock.now())).not.toBeNull();
      expect(provenId(keys, given, Buffer.from('{}'), house.clock.now())).toBeNull();
      // Whoever ordered is not told to the shop, nor is a wrong contact.
      expect(String(body)).not.toContain('ada');
      expect(await panel.asks('QF-7', 'eve@post.example')).toBe('order-not-found');
    });

    it('says that it cannot be told now where the shop does not answer, or not as it should', async () => {
      await setShop();
      const panel = await wren();
      answer = async () => Promise.reject(new Error('ECONNREFUSED'));
      expect(await panel.asks('QF-7', 'ada@post.example')).toBe('order-not-now');
      answer = async () => ({ status: 500, body: null });
      expect(await panel.asks('QF-7', 'ada@post.example')).toBe('order-not-now');
      expect((await shown()).shop.problem).toBe('network-broken');
      answer = async () => ({ status: 200, body: { number: 'QF-7' } });
      expect(await panel.asks('QF-7', 'ada@post.example')).toBe('order-not-now');
      answer = async () => ({ status: 200, body: { ...fromShop, number: 'QF-8' } });
      expect(await panel.asks('QF-7', 'ada@post.example')).toBe('order-not-found');
      answer = async () => ({ status: 404, body: null });
      expect(await panel.asks('QF-7', 'ada@post.example')).toBe('order-not-found');
      expect((await shown()).shop.problem).toBeNull();
    });

    it('keeps its key sealed, and takes another one or none', async () => {
      expect((await setShop('http://10.0.0.1/')).body.code).toBe('link-not-understood');
      await setShop();
      const keyNow = async () =>
        (await house.ask('GET', '/api/orders/shop/key', { cookie })).body.key;
      const made = await keyNow();
      expect(made).toMatch(/^whsec_/);
      expect(house.store.orders.shop()?.secret.toString('latin1')).not.toContain(made);
      await setShop('https://shop.example/other');
      expect(await keyNow()).toBe(made);
      await setShop('https://shop.example/other', 'whsec_AAAA');
      expect(await keyNow()).toBe('whsec_AAAA');
      expect((await setShop('')).body.shop).toBeNull();
      expect(await keyNow()).toBeNull();
    });

    it('is tried by its owner', async () => {
      await setShop();
      const tried = () =>
        house.ask('POST', '/api/orders/shop/try', { cookie, body: { number: 'QF-7' } });
      expect((await tried()).body).toEqual({ orders: [] });
      answer = async () => ({ status: 200, body: fromShop });
      expect((await tried()).body.orders).toEqual([
        { number: 'QF-7', state: 'Sent', expectedOn: '2026-12-02', link: '' },
      ]);
      answer = async () => ({ status: 500, body: null });
      expect((await tried()).body.code).toBe('order-not-now');
    });
  });

  it('stands beside the conversation of whoever named it, or whose it is', async () => {
    await take(table(ada, bram, 'QF-1103;ada@post.example;;Sent;;'));
    const panel = await wren();
    await panel.say('Where is my order QF 1102? And the pot 12?');
    const [row] = house.store.conversations.page('waiting', null, 1);
    const beside = async () =>
      (await house.ask('GET', `/api/conversations/${row?.id}/orders`, { cookie })).body.orders.map(
        ({ number }: { number: string }) => number,
      );
    expect(await beside()).toEqual(['QF-1102']);
    const id = clientId();
    panel.tell({ do: 'details', id, email: 'Ada@post.example' });
    await panel.hear('taken', (told) => told.id === id);
    expect((await beside()).sort()).toEqual(['QF-1101', 'QF-1102', 'QF-1103']);
    expect((await beside())[0]).toBe('QF-1102');
  });

  it('says what shows that it is theirs: proven, number and contact, or only one that anybody can claim', async () => {
    await take(table(ada, 'QF-1103;ada@post.example;;Sent;;'));
    const panel = await wren();
    await panel.say('Where is my order QF-1101?');
    const [row] = house.store.conversations.page('waiting', null, 1);
    const shown = async () => {
      const { body } = await house.ask('GET', `/api/conversations/${row?.id}/orders`, { cookie });
      return Object.fromEntries(
        body.orders.map((one: { number: string; shownBy: string }) => [one.number, one.shownBy]),
      );
    };
    expect(await shown()).toEqual({ 'QF-1101': 'claim' });
    const id = clientId();
    panel.tell({ do: 'details', id, email: 'ada@post.example' });
    await panel.hear('taken', (told) => told.id === id);
    // Somebody typed the address of somebody else: of what they did not name that shows nothing.
    expect(await shown()).toEqual({ 'QF-1101': 'pair', 'QF-1103': 'claim' });
    const threadId = row?.threads[0]?.threadId ?? '';
    const way = { threadId, kind: 'email', key: 'ada@post.example', address: 'ada@post.example' };
    house.store.ways.write({ ...way, source: 'proven', at: house.clock.now() } as never);
    expect(await shown()).toEqual({ 'QF-1101': 'proven', 'QF-1103': 'proven' });
  });

  it('is put into an answer in the language of whoever reads it', async () => {
    await take(table(ada));
    const panel = await wren();
    const id = clientId();
    const text = 'Wo ist QF-1101?';
    panel.tell({ do: 'say', id, text, fileIds: [], page: null, language: 'de' });
    await panel.hear('taken', (told) => told.id === id);
    const [row] = house.store.conversations.page('waiting', null, 1);
    const { body } = await house.ask('GET', `/api/conversations/${row?.id}/orders`, { cookie });
    expect(body.orders[0].words).toContain('Dienstag, 1. Dezember');
  });
});
