import { newThing, type ShelfThing, shelfColumns } from '@porch/core/shelf';
import {
  page as aPage,
  picture as aPicture,
  fern,
  offer,
  onShelf,
  slots,
} from '@porch/core/test-kit/shelf';
import { parse } from 'csv-parse/sync';
import ICAL from 'ical.js';
import jsonld from 'jsonld';
import sharp from 'sharp';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { openMailHouse } from '../../test-kit/mailed';
import { openNetworkHouse } from '../../test-kit/network-house';
import { networkOf } from '../../test-kit/networks';
import { clientId, openDevice, until, visit, visitorToken } from '../../test-kit/panel';
import { sharesWhile } from '../../test-kit/tables';
import type { Asked } from '../security/outside';

const hour = 3_600_000;
const octets = { 'content-type': 'application/octet-stream' };

describe('the shelf', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };
  /** What is asked of elsewhere, and what comes from there. */
  const asked: Asked[] = [];
  let elsewhere: () => Promise<Buffer>;

  const green = (): Promise<Buffer> =>
    sharp({ create: { width: 30, height: 20, channels: 3, background: '#2f6247' } })
      .png()
      .toBuffer();

  beforeEach(async () => {
    asked.length = 0;
    elsewhere = green;
    house = await openHouse({ publicOrigin: 'http://porch.example' }, ':memory:', {
      anywhere: {
        may: () => true,
        whereIs: () => Promise.reject(new Error('nobody')),
        serviceAt: async () => null,
        ask: async (what: Asked) => {
          asked.push(what);
          return { status: 200, headers: {}, body: await elsewhere(), isCut: false };
        },
        end: () => undefined,
      },
    });
    ({ cookie, door } = await setUp(house));
    await house.ask('PUT', '/api/business', { cookie, body: { country: 'GB' } });
  });
  afterEach(() => house.close());

  const bring = async (): Promise<string> => {
    const id = clientId();
    await house.ask('PUT', `/api/files/${id}`, { cookie, body: await green(), headers: octets });
    return id;
  };
  const put = (
    thing: ShelfThing,
    { id = clientId(), revision = 0, fileId = null as string | null } = {},
  ) => house.ask('PUT', `/api/shelf/${id}`, { cookie, body: { revision, thing, fileId } });
  const kept = async (thing: ShelfThing, fileId: string | null = null): Promise<string> => {
    const { status, body } = await put(thing, { fileId });
    if (status !== 200) throw new Error(`${thing.name}: ${body.code} at ${body.field}`);
    return body.id;
  };
  const list = async (query = '') =>
    (await house.ask('GET', `/api/shelf${query}`, { cookie })).body;
  const namesIn = ({ things }: { things: { name: string }[] }) => things.map(({ name }) => name);
  const talk = (): string =>
    (['waiting', 'note', 'answered'] as const).flatMap((group) =>
      house.store.conversations.page(group, null, 1),
    )[0]?.id ?? '';
  const near = async (query = '') =>
    (await house.ask('GET', `/api/conversations/${talk()}/shelf?query=${query}`, { cookie })).body;
  const answer = (shelf: string[], text = '', id = clientId()) =>
    house.ask('POST', `/api/conversations/${talk()}/deeds`, {
      cookie,
      body: { do: 'say', id, text, fileIds: [], shelf },
    });
  const said = () =>
    house.store.entries
      .since(0, 500)
      .flatMap((entry) => (entry.kind === 'team-said' ? [entry] : []));
  const visitors = (who: string, file: string) =>
    house.ask('GET', `/door/${door.publicId}/files/${file}`, {
      headers: { authorization: `Bearer ${visitorToken(who)}` },
    });

  it('keeps what is written, once, and lists it by name and by kind', async () => {
    for (const thing of onShelf) await kept(thing);
    expect(namesIn(await list())).toEqual(onShelf.map(({ name }) => name).sort());
    expect(await list('?kind=offer')).toMatchObject({ count: 6, things: [offer], next: null });
    expect(namesIn(await list('?query=moist fer'))).toEqual([fern.name]);
    expect(namesIn(await list('?query=QF-FERN&kind=offer'))).toEqual([]);
    expect(await list('?query=%22%20OR%20*')).toMatchObject({ things: [] });
  });

  it('is whole however long it is, a page at a time', async () => {
    for (let at = 0; at < 65; at += 1)
      await kept({ ...newThing('item'), name: `Pot ${at % 7}`, sku: `${at}` });
    const seen: string[] = [];
    let after = '';
    do {
      const { things, next } = await list(`?after=${after}`);
      seen.push(...things.map(({ sku }: { sku: string }) => sku));
      after = next ?? '';
    } while (after);
    expect(seen).toHaveLength(65);
    expect(new Set(seen).size).toBe(65);
    // A mark that nobody gave is the first page again.
    expect((await list('?after=nonsense')).things).toHaveLength(30);
  });

  it('tells the second of two who change the same, and takes the same twice as once', async () => {
    const id = await kept(fern);
    expect((await put(fern, { id })).body).toMatchObject({ revision: 1 });
    const first = await put({ ...fern, price: '15' }, { id, revision: 1 });
    expect(first.body).toMatchObject({ price: '15', revision: 2 });
    const second = await put({ ...fern, price: '16' }, { id, revision: 1 });
    expect(second).toMatchObject({ status: 409, body: { code: 'changed-meanwhile' } });
    expect((await put({ ...fern, name: 'Other' })).body).toMatchObject({
      code: 'shelf-taken',
      field: 'name',
      what: fern.name,
    });
    expect((await put(fern, { revision: 3 })).status).toBe(404);
  });

  it.each([
    ['text-empty', 'name', { ...fern, name: ' ' }],
    ['text-too-long', 'text', { ...fern, text: 'x'.repeat(601) }],
    ['price-not-understood', 'price', { ...fern, price: 'ask' }],
    ['price-not-understood', 'currency', { ...fern, currency: 'ABC' }],
    ['link-not-understood', 'link', { ...fern, link: 'javascript:alert(1)' }],
    ['number-out-of-range', 'minutes', { ...slots, minutes: 2_000 }],
    [
      'too-many-of-these',
      'starts',
      { ...slots, starts: Array.from({ length: 21 }, (_n, at) => at) },
    ],
    ['bad-request', undefined, { ...fern, name: 'x'.repeat(5_000) }],
  ])('says %s at %s and keeps nothing', async (code, field, thing) => {
    const { status, body } = await put(thing);
    expect(status).toBeGreaterThanOrEqual(400);
    expect(body.code).toBe(code);
    if (field) expect(body.field).toBe(field);
    expect((await list()).count).toBe(0);
  });

  it('has pictures that the team has brought, and nobody else’s', async () => {
    const wren = await visit(house, door.publicId, 'wren');
    await house.app.inject({
      method: 'PUT',
      url: `/door/${door.publicId}/files/file-of-wren-1`,
      payload: await green(),
      headers: {
        authorization: `Bearer ${visitorToken('wren')}`,
        host: 'porch.example',
        origin: 'http://porch.example',
        ...octets,
      },
    });
    await wren.say('Look', clientId(), ['file-of-wren-1']);
    expect((await put(fern, { fileId: 'file-of-wren-1' })).body).toMatchObject({
      code: 'file-unknown',
      field: 'fileId',
    });
    expect((await put(fern, { fileId: 'never-made-001' })).body.code).toBe('file-unknown');
    const id = await kept(fern, await bring());
    expect((await house.ask('GET', `/api/shelf/${id}`, { cookie })).body.picture).toMatchObject({
      type: 'image/jpeg',
    });
  });

  it('puts a thing into an answer as a card, in the language of whoever reads it', async () => {
    const id = await kept(fern, await bring());
    const wren = await visit(house, door.publicId, 'wren');
    const asking = { text: 'Haben Sie Farne?', fileIds: [], page: null, language: 'de' };
    wren.tell({ do: 'say', id: clientId(), ...asking });
    await wren.hear('taken');
    const { things, isAny } = await near();
    expect(isAny).toBe(true);
    expect(things).toMatchObject([{ id, lines: ['14,50\u00a0£ · Vorrätig', fern.text] }]);
    expect((await answer([id, id], 'Ja:')).status).toBe(200);
    const { entries } = await wren.hear('entries', ({ entries: some }) =>
      some.some((one) => one.by === 'team'),
    );
    const [card] = entries.flatMap((one) => (one.by === 'team' ? (one.shelf ?? []) : []));
    expect(card).toMatchObject({
      name: fern.name,
      link: fern.link,
      files: [{ type: 'image/jpeg' }],
    });
    expect(said().map(({ shelf }) => shelf?.length)).toEqual([1]);
    // What stands on the roll stays as it was said.
    await put({ ...fern, price: '99' }, { id, revision: 1 });
    await house.ask('DELETE', `/api/shelf/${id}`, { cookie });
    expect(said()[0]?.shelf).toEqual([card]);
  });

  it('shows a picture to whom it was said and to no other visitor, also when it is off the shelf', async () => {
    const fileId = await bring();
    const id = await kept(fern, fileId);
    const robin = await visit(house, door.publicId, 'robin');
    await robin.say('Hello');
    await house.ask('POST', `/api/conversations/${talk()}/deeds`, {
      cookie,
      body: { do: 'wrap-up', id: clientId() },
    });
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Ferns?');
    expect((await visitors('wren', fileId)).status).toBe(404);
    await answer([id]);
    await house.ask('DELETE', `/api/shelf/${id}`, { cookie });
    house.clock.advance(72 * hour);
    house.services.files.tidy();
    expect((await visitors('wren', fileId)).status).toBe(200);
    expect((await visitors('robin', fileId)).status).toBe(404);
  });

  it('lets a picture go that stands nowhere any more, and no other', async () => {
    const [gone, stays] = [await bring(), await bring()];
    const id = await kept(fern, gone);
    await put(fern, { id, revision: 1, fileId: stays });
    house.clock.advance(72 * hour);
    house.services.files.tidy();
    expect(house.store.files.byId(gone)).toBeNull();
    expect(house.store.files.byId(stays)).not.toBeNull();
  });

  it('says an offer no more once it is over, also not one that waited offline', async () => {
    const id = await kept(offer);
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Is there anything off?');
    expect(namesIn(await near())).toEqual([offer.name]);
    house.clock.advance(49 * hour);
    expect((await near()).things).toEqual([]);
    expect((await near('bulb')).things).toEqual([]);
    const late = await answer([id], 'There is');
    expect(late).toMatchObject({
      status: 410,
      body: { code: 'offer-over', field: id, what: offer.name },
    });
    expect(said()).toEqual([]);
    expect((await list()).things).toMatchObject([{ isOver: true }]);
    expect((await answer(['never-made-001'])).body).toMatchObject({
      code: 'shelf-gone',
      field: 'never-made-001',
    });
  });

  it('has what was put into an answer last first', async () => {
    const ids: string[] = [];
    for (const name of ['One', 'Two', 'Three']) {
      ids.push(await kept({ ...newThing('item'), name }));
      house.clock.advance(1_000);
    }
    await (await visit(house, door.publicId, 'wren')).say('Pots?');
    expect(namesIn(await near())).toEqual(['Three', 'Two', 'One']);
    await answer(ids.slice(0, 1));
    expect(namesIn(await near())).toEqual(['One', 'Three', 'Two']);
  });

  it('counts as part of the answer, which may be no longer for it', async () => {
    const id = await kept({ ...newThing('page'), name: 'Care', link: 'https://quillfern.example' });
    await (await visit(house, door.publicId, 'wren')).say('How?');
    expect((await answer([id], 'x'.repeat(3_990))).body).toMatchObject({
      code: 'text-too-long',
      limit: 4_000,
    });
    expect((await answer([id], 'x'.repeat(3_900))).status).toBe(200);
  });

  it('is said once under one id, and not with something else under the same', async () => {
    const [one, two] = [await kept(fern), await kept(aPage)];
    await (await visit(house, door.publicId, 'wren')).say('Ferns?');
    const id = clientId();
    const first = await answer([one], 'Here', id);
    expect((await answer([one], 'Here', id)).body.entries).toEqual(first.body.entries);
    expect((await answer([two], 'Here', id)).body.code).toBe('id-taken');
    expect((await answer([], 'Here', id)).body.code).toBe('id-taken');
    expect(said()).toHaveLength(1);
  });

  it('goes with no more than three things, and with no text where there is one', async () => {
    const ids = await Promise.all(
      [1, 2, 3, 4].map((at) => kept({ ...newThing('item'), name: `Pot ${at}` })),
    );
    await (await visit(house, door.publicId, 'wren')).say('Pots?');
    expect((await answer(ids)).body.code).toBe('bad-request');
    expect((await answer([], '')).body.code).toBe('text-empty');
    expect((await answer(ids.slice(0, 3), '')).status).toBe(200);
    expect(said()[0]?.shelf).toHaveLength(3);
  });

  it('gives free times with a calendar of those that are still to come', async () => {
    const id = await kept(slots);
    await (await visit(house, door.publicId, 'wren')).say('When?');
    house.clock.advance(25 * hour);
    await answer([id]);
    const [file] = said()[0]?.shelf?.[0]?.files ?? [];
    expect(file).toMatchObject({ name: 'Repotting with Maren.ics', type: 'text/calendar' });
    const { bytes, headers } = await visitors('wren', file?.id ?? '');
    expect(headers['content-disposition']).toMatch(/^attachment/);
    const events = new ICAL.Component(ICAL.parse(bytes.toString())).getAllSubcomponents('vevent');
    expect(events).toHaveLength(1);
    const event = new ICAL.Event(events[0]);
    expect(event.startDate.toUnixTime() * 1_000).toBe(slots.starts[1]);
    expect(event.duration.toSeconds()).toBe(30 * 60);
    house.clock.advance(2 * hour);
    expect((await answer([id])).body.code).toBe('offer-over');
  });

  it('brings a picture here that lies elsewhere, once, when it is put into an answer', async () => {
    const id = await kept(fern);
    await (await visit(house, door.publicId, 'wren')).say('Ferns?');
    const ready = () => house.ask('POST', `/api/conversations/${talk()}/shelf/${id}`, { cookie });
    elsewhere = () => Promise.reject(new Error('ECONNREFUSED'));
    expect((await ready()).body).toMatchObject({ id, files: [] });
    elsewhere = async () => Buffer.from('<svg onload="alert(1)">');
    expect((await ready()).body).toMatchObject({ id, files: [] });
    elsewhere = green;
    expect((await ready()).body).toMatchObject({ files: [{ type: 'image/jpeg' }] });
    asked.length = 0;
    await ready();
    expect(asked).toEqual([]);
    // Nothing of ours goes with the question.
    elsewhere = green;
    const other = await kept({ ...aPicture });
    await house.ask('POST', `/api/conversations/${talk()}/shelf/${other}`, { cookie });
    expect(asked).toMatchObject([{ method: 'GET', address: aPicture.pictureUrl, headers: {} }]);
  });

  it('goes with a quick reply, and is gone from it while it is off the shelf', async () => {
    const id = await kept(fern);
    const reply = {
      revision: 0,
      isOwn: false,
      title: 'Fern',
      code: 'fern',
      text: 'Here',
      group: '',
    };
    const body = { ...reply, language: 'en', fileIds: [], shelfIds: [id] };
    const made = await house.ask('PUT', `/api/quick-replies/${clientId()}`, { cookie, body });
    expect(made.body.shelf).toEqual([{ id, name: fern.name }]);
    const other = { ...body, code: 'x', title: 'x', shelfIds: ['never-made-001'] };
    expect(
      (await house.ask('PUT', `/api/quick-replies/${clientId()}`, { cookie, body: other })).body,
    ).toMatchObject({ code: 'shelf-gone', field: 'shelfIds' });
    const all = async (known = '') =>
      (await house.ask('GET', `/api/quick-replies?known=${encodeURIComponent(known)}`, { cookie }))
        .body;
    const before = (await all()).mark;
    await put({ ...fern, name: 'Another fern' }, { id, revision: 1 });
    const { mark, replies } = await all(before);
    expect(replies).toMatchObject([{ shelf: [{ id, name: 'Another fern' }] }]);
    await house.ask('DELETE', `/api/shelf/${id}`, { cookie });
    // Devices that have them by that mark hear of it.
    const without = await all(mark);
    expect(without.replies).toMatchObject([{ shelf: [] }]);
    await put(fern, { id });
    expect((await all(without.mark)).replies).toMatchObject([{ shelf: [{ id }] }]);
  });

  it('tells the whole team’s devices of an answer with it', async () => {
    const id = await kept(fern);
    await (await visit(house, door.publicId, 'wren')).say('Ferns?');
    const phone = await openDevice(house, cookie);
    await answer([id]);
    const told = await phone.hear('entries', ({ entries }) =>
      entries.some(({ kind }) => kind === 'team-said'),
    );
    expect(told.entries.at(-1)).toMatchObject({ shelf: [{ name: fern.name }] });
  });

  describe('as a table', () => {
    const take = async (text: string | Buffer, as: 'csv' | 'json' = 'csv') =>
      house.ask('POST', `/api/shelf-tables?as=${as}`, {
        cookie,
        headers: octets,
        body: Buffer.isBuffer(text) ? text : Buffer.from(text),
      });
    const give = async (as: 'csv' | 'json') =>
      (await house.ask('GET', `/api/shelf-tables/written?as=${as}`, { cookie })).body;
    const shown = async () => (await house.ask('GET', '/api/shelf-tables', { cookie })).body;

    it('comes out as a second parser reads it, with nothing that a spreadsheet reckons, and in again as it was', async () => {
      for (const thing of onShelf) await kept(thing);
      for (const name of ['=1+1', '@SUM(A1)', '-2 degrees', '+44', 'a "quote"\tand, more']) {
        await kept({ ...newThing('item'), name });
      }
      const csv = await give('csv');
      const rows: Record<string, string>[] = parse(csv, { columns: true, bom: true });
      expect(Object.keys(rows[0] ?? {})).toEqual(Object.keys(shelfColumns));
      expect(rows).toHaveLength(11);
      const cells = rows.flatMap((row) => Object.values(row));
      expect(cells.filter((cell) => /^[=@+\-\t\r]/.test(cell))).toEqual([]);
      expect((await take(csv)).body).toMatchObject({ sameCount: 11, refusedCount: 0 });
    });

    it('comes out in the words of schema.org, as another parser reads it, and in again as it was', async () => {
      for (const thing of onShelf) await kept(thing);
      const json = await give('json');
      const document = { '@context': { '@vocab': 'https://schema.org/' } };
      const expanded = await jsonld.expand(json, {
        documentLoader: async (documentUrl: string) => ({ documentUrl, document }),
      });
      expect(expanded).toHaveLength(6);
      expect((await take(JSON.stringify(json), 'json')).body).toMatchObject({
        sameCount: 6,
        refusedCount: 0,
      });
      await house.ask('DELETE', '/api/shelf-tables', { cookie });
      expect((await take(JSON.stringify(expanded), 'json')).body).toMatchObject({ addedCount: 6 });
      expect((await list('?kind=slots')).things).toMatchObject([slots]);
    });

    it('is read in as often as one likes, with every row that was not taken and why', async () => {
      const head = 'Name;SKU;Price;In stock;Image link';
      const first = await take(
        [head, 'Fern;F1;14,50;yes;', ';F2;1;yes;', 'Moss;F3;cheap;yes;', 'Fig;F4;1;;x.jpg'].join(
          '\r\n',
        ),
      );
      expect(first.body).toEqual({
        addedCount: 1,
        changedCount: 0,
        sameCount: 0,
        refusedCount: 3,
        refused: [
          { row: 3, what: 'F2', why: 'name-missing' },
          { row: 4, what: 'Moss', why: 'price-wrong' },
          { row: 5, what: 'Fig', why: 'picture-wrong' },
        ],
      });
      const again = await take([head, 'Fern;F1;15;no;'].join('\r\n'));
      expect(again.body).toMatchObject({ addedCount: 0, changedCount: 1 });
      expect((await list()).things).toMatchObject([{ price: '15', currency: 'GBP', stock: 'out' }]);
    });

    it('keeps the picture of our own where a row says no other', async () => {
      const fileId = await bring();
      await kept({ ...fern, pictureUrl: '' }, fileId);
      const row = (picture: string) =>
        take(`name,sku,price,image\r\nNew name,${fern.sku},20,${picture}`);
      await row('');
      expect((await list()).things).toMatchObject([{ name: 'New name', picture: { id: fileId } }]);
      await row('https://quillfern.example/other.jpg');
      expect((await list()).things).toMatchObject([{ picture: null }]);
    });

    it.each([
      ['', 'csv', 'table-not-understood'],
      ['hello', 'csv', 'table-not-understood'],
      ['colour;size\r\ngreen;3', 'csv', 'table-not-understood'],
      ['', 'json', 'json-not-understood'],
      ['hello', 'json', 'json-not-understood'],
      ['[{"@type":"Product"', 'json', 'json-not-understood'],
      ['{"@graph":', 'json', 'json-not-understood'],
      ['7', 'json', 'json-not-understood'],
    ] as const)('of %j as %s is refused whole, and nothing is changed', async (text, as, code) => {
      await kept(fern);
      expect((await take(text, as)).body.code).toBe(code);
      expect(await shown()).toMatchObject({ count: 1, progress: null });
    });

    it('is understood in UTF-16', async () => {
      const text = 'name\tprice\r\n=Farn Größe M\t14,50';
      const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
      expect((await take(utf16)).body).toMatchObject({ addedCount: 1 });
      expect(namesIn(await list())).toEqual(['=Farn Größe M']);
      const json = '[{"@type":"Product","name":"Łąka"}]';
      const be = Buffer.from(`\ufeff${json}`, 'utf16le').swap16();
      expect((await take(be, 'json')).body).toMatchObject({ addedCount: 1 });
      expect(namesIn(await list('?query=%C5%82aka'))).toEqual(['Łąka']);
    });

    it('that breaks on the way says from which row on; what stands before that is kept', async () => {
      const product = (at: number) => JSON.stringify({ '@type': 'Product', name: `Pot ${at}` });
      const many = Array.from({ length: 200 }, (_none, at) => product(at));
      const { body } = await take(`{"@graph":[${many.join(',')},{"@type":"Prod`, 'json');
      expect(body).toMatchObject({
        addedCount: 200,
        refusedCount: 1,
        refused: [{ row: 201, what: '', why: 'row-broken' }],
      });
      // Nothing behind the break is taken, however much that is.
      const comma = await take(`[${product(1)},}${`,${product(300)}`.repeat(2_000)}]`, 'json');
      expect(comma.body).toMatchObject({
        addedCount: 0,
        sameCount: 1,
        refused: [{ row: 2, why: 'row-broken' }],
      });
      const soup = await take(`[${product(1)},{"@type":"Recipe"},7]`, 'json');
      expect(soup.body).toMatchObject({
        sameCount: 1,
        refused: [
          { row: 2, why: 'kind-wrong' },
          { row: 3, why: 'kind-wrong' },
        ],
      });
    });

    it('of many rows lets others have their turn meanwhile, and says how far it is', async () => {
      const rows = Array.from({ length: 3_000 }, (_none, at) => `Pot ${at},${at}`);
      const taking = take(['name,sku', ...rows].join('\n'));
      const seen = await sharesWhile(taking, async () => (await shown()).progress);
      expect((await taking).body).toMatchObject({ addedCount: 3_000 });
      expect(seen.length).toBeGreaterThan(1);
      expect(seen.every((share) => share >= 0 && share <= 1)).toBe(true);
      expect((await shown()).last).toMatchObject({ addedCount: 3_000 });
      expect((await give('csv')).split('\r\n')).toHaveLength(3_002);
    });

    it('is read one after the other, and all of it can be taken away', async () => {
      const rows = ['name', ...Array.from({ length: 600 }, (_none, at) => `Pot ${at}`)].join('\n');
      const both = await Promise.all([take(rows), take(rows)]);
      expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
      const { body } = await house.ask('DELETE', '/api/shelf-tables', { cookie });
      expect(body).toMatchObject({ count: 0, last: null });
      expect(await list('?query=pot')).toMatchObject({ things: [], count: 0 });
    });
  });
});

describe('something of the shelf on its way', () => {
  it.each(['wavelet', 'tintype', 'pigeonpost'])(
    'becomes good words with its link, and its picture, by %s',
    async (kind) => {
      const far = await openNetworkHouse(networkOf(kind));
      const { house, cookie } = far;
      try {
        await far.says('m-1');
        const fileId = clientId();
        const body = await sharp({
          create: { width: 30, height: 20, channels: 3, background: '#2f6247' },
        })
          .png()
          .toBuffer();
        await house.ask('PUT', `/api/files/${fileId}`, { cookie, body, headers: octets });
        const { body: thing } = await house.ask('PUT', `/api/shelf/${clientId()}`, {
          cookie,
          body: { revision: 0, thing: fern, fileId },
        });
        expect((await far.answer('We have one.', { shelf: [thing.id] })).status).toBe(200);
        await house.tick();
        await until(() => (far.far.carried().length > 0 ? true : undefined));
        const asked = far.far.carried().map(({ body: text }) => text);
        const words = asked.join('\n').replaceAll('\\n', '\n');
        expect(words).toContain('We have one.');
        expect(words).toContain('£14.50, In stock');
        expect(asked.join('\n')).toContain('quillfern.example/fern?pot=12');
        // The picture is there for whoever follows its link.
        const [link = ''] =
          /http:\/\/porch\.example(\/f\/[\w.-]+)/.exec(asked.join())?.slice(1) ?? [];
        const fetched = await house.ask('GET', link);
        expect(fetched).toMatchObject({ status: 200, headers: { 'content-type': 'image/jpeg' } });
      } finally {
        await house.close();
      }
    },
  );

  it('becomes good words with its link by mail', async () => {
    const mailed = await openMailHouse();
    const { house, cookie, door, out } = mailed;
    try {
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Ferns?');
      wren.tell({ do: 'details', id: clientId(), name: 'Wren', email: 'wren@post.example' });
      await until(() => (mailed.roll('details').length > 0 ? true : undefined));
      wren.close();
      await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
      house.clock.advance(60_000);
      await house.tick();
      const { body: thing } = await house.ask('PUT', `/api/shelf/${clientId()}`, {
        cookie,
        body: { revision: 0, thing: fern, fileId: null },
      });
      const talk = mailed.roll('visitor-said')[0]?.conversationId ?? '';
      await house.ask('POST', `/api/conversations/${talk}/deeds`, {
        cookie,
        body: { do: 'say', id: clientId(), text: 'One is left.', fileIds: [], shelf: [thing.id] },
      });
      for (let minute = 0; minute < 20 && out.mails.length === 0; minute += 1) {
        house.clock.advance(60_000);
        await house.tick();
      }
      await until(() => (out.mails.length > 0 ? true : undefined));
      const text = out.mails[0]?.text ?? '';
      expect(text).toContain('One is left.');
      expect(text).toContain('£14.50, In stock');
      expect(text).toContain(fern.link);
      expect(out.mails[0]?.html).toContain('Keep it moist.');
    } finally {
      await mailed.close();
    }
  });
});
