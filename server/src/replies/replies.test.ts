import type { TakenIn } from '@porch/contract/replies';
import { REPLIES_MOST } from '@porch/core/replies';
import { parse } from 'csv-parse/sync';
import sharp from 'sharp';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';

const day = 24 * 3_600_000;
const octets = { 'content-type': 'application/octet-stream' };

describe('quick replies', () => {
  let house: House;
  let cookie: string;
  let helper: string;
  beforeEach(async () => {
    house = await openHouse();
    ({ cookie } = await setUp(house));
    helper = await addHelper(house);
  });
  afterEach(() => house.close());

  const typed = {
    revision: 0,
    isOwn: false,
    title: 'Opening hours',
    code: 'Hours',
    text: 'Hi {first name|there}, we open {next opening}.',
    group: 'Shop',
    language: 'en',
    fileIds: [] as string[],
    shelfIds: [] as string[],
  };
  const put = (change: object = {}, by = cookie, id = clientId()) =>
    house.ask('PUT', `/api/quick-replies/${id}`, { cookie: by, body: { ...typed, ...change } });
  const all = async (by = cookie, known = '') =>
    (
      await house.ask('GET', `/api/quick-replies?known=${encodeURIComponent(known)}`, {
        cookie: by,
      })
    ).body;
  const picture = async (by = cookie) => {
    const id = clientId();
    const body = await sharp({
      create: { width: 30, height: 20, channels: 3, background: '#2f6247' },
    })
      .png()
      .toBuffer();
    await house.ask('PUT', `/api/files/${id}`, { cookie: by, body, headers: octets });
    return id;
  };

  it('are the team’s or somebody’s own', async () => {
    await put({ code: '' });
    await put({ isOwn: true, code: '', title: 'Mine' });
    const titles = async (by: string) =>
      (await all(by)).replies.map(({ title }: { title: string }) => title).sort();
    expect(await titles(cookie)).toEqual(['Mine', 'Opening hours']);
    expect(await titles(helper)).toEqual(['Opening hours']);
  });

  it('of somebody’s own are nobody else’s to change or to drop', async () => {
    const { body } = await put({ isOwn: true });
    expect((await put({ revision: 1, text: 'x' }, helper, body.id)).status).toBe(404);
    const dropped = await house.ask('DELETE', `/api/quick-replies/${body.id}`, { cookie: helper });
    expect(dropped.status).toBe(404);
    expect((await all()).replies).toHaveLength(1);
  });

  it('are there once however often they are said, and build on what they were', async () => {
    const { body } = await put();
    expect(body).toMatchObject({ code: 'hours', revision: 1, usedCount: 0 });
    expect((await put({}, cookie, body.id)).body.revision).toBe(1);
    expect((await put({ text: 'Other' }, cookie, body.id)).body.code).toBe('changed-meanwhile');
    const next = await put({ text: 'Other', revision: 1 }, helper, body.id);
    expect(next.body).toMatchObject({ text: 'Other', revision: 2 });
    await house.ask('DELETE', `/api/quick-replies/${body.id}`, { cookie });
    const again = await house.ask('DELETE', `/api/quick-replies/${body.id}`, { cookie });
    expect(again.status).toBe(204);
    expect((await all()).replies).toEqual([]);
  });

  it('have a code of their own among all that somebody sees', async () => {
    await put();
    expect((await put({ title: 'Other', code: ' HOURS ' })).body).toMatchObject({
      code: 'short-code-taken',
      what: 'Opening hours',
    });
    expect((await put({ isOwn: true })).body.code).toBe('short-code-taken');
    await put({ isOwn: true, code: 'me', title: 'Mine' });
    expect((await put({ isOwn: true, code: 'me' }, helper)).status).toBe(200);
    expect((await put({ code: 'me' })).body).toMatchObject({ what: 'Mine' });
    expect((await put({ code: '!!' })).body.code).toBe('');
    expect((await put({ code: '!!' })).status).toBe(200);
  });

  it.each([
    ['without a text', { text: ' \u202e ' }, { code: 'text-empty', field: 'text' }],
    ['without a title', { title: '' }, { code: 'text-empty', field: 'title' }],
    [
      'with a text that is too long',
      { text: 'x'.repeat(4_001) },
      { code: 'text-too-long', field: 'text', limit: 4_000 },
    ],
    [
      'with a title that is too long',
      { title: 'x'.repeat(81) },
      { code: 'text-too-long', field: 'title', limit: 80 },
    ],
    [
      'in a group that is too long',
      { group: 'x'.repeat(41) },
      { code: 'text-too-long', field: 'group', limit: 40 },
    ],
    ['with a picture that nobody has', { fileIds: ['no-such-file-01'] }, { code: 'file-unknown' }],
    ['that build on what is not there', { revision: 3 }, { code: 'not-found' }],
  ])('are refused %s', async (_how, change, refusal) => {
    expect((await put(change)).body).toMatchObject(refusal);
    expect((await all()).replies).toEqual([]);
  });

  it('are told anew only when they have changed', async () => {
    await put();
    const { mark, replies } = await all();
    expect(replies).toHaveLength(1);
    expect(await all(cookie, mark)).toEqual({ mark, replies: null });
    await put({ code: 'b' });
    expect((await all(cookie, mark)).replies).toHaveLength(2);
  });

  it('are bounded in number', async () => {
    house.store.atOnce(() => {
      for (let at = 0; at < REPLIES_MOST; at += 1) {
        house.services.quickReplies.putNow(`reply-${at}-0000`, { ...typed, code: '' }, 'maren');
      }
    });
    expect((await put({ code: '' })).body).toMatchObject({
      code: 'too-many-of-these',
      limit: REPLIES_MOST,
    });
  });

  it('keep their pictures for as long as they have them, whoever of the team changes them', async () => {
    const fileId = await picture();
    const { body } = await put({ fileIds: [fileId] });
    expect(body.pictures).toMatchObject([{ id: fileId, name: expect.any(String) }]);
    house.clock.advance(2 * day);
    house.services.files.tidy();
    const changed = { fileIds: [fileId], text: 'Other', revision: 1 };
    expect((await put(changed, helper, body.id)).body.pictures).toHaveLength(1);
    // Deleted and brought back it has them again, whoever had brought them along.
    await house.ask('DELETE', `/api/quick-replies/${body.id}`, { cookie: helper });
    const back = (await put({ fileIds: [fileId] }, helper)).body;
    expect(back.pictures).toHaveLength(1);
    await put({ fileIds: [], revision: 1 }, helper, back.id);
    house.services.files.tidy();
    expect((await house.ask('GET', `/api/files/${fileId}`, { cookie })).status).toBe(404);
  });

  it('have no picture of a visitor’s', async () => {
    const [door] = house.store.doors.all();
    const wren = await visit(house, door?.publicId ?? '', 'wren');
    await wren.say('Look');
    const thread = house.store.entries.since(0, 50).find(({ kind }) => kind === 'visitor-said');
    const bytes = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const id = clientId();
    const by = { threadId: thread?.threadId ?? '', address: '1' };
    await house.services.files.take(id, 'leaf.png', bytes, by);
    expect((await put({ fileIds: [id] })).body.code).toBe('file-unknown');
  });

  it('count how often an answer was made from them, once an answer', async () => {
    const { body } = await put();
    const [door] = house.store.doors.all();
    const wren = await visit(house, door?.publicId ?? '', 'wren');
    await wren.say('When do you open?');
    const [talk] = (await house.ask('GET', '/api/line?group=waiting', { cookie })).body.rows;
    const say = {
      do: 'say',
      id: clientId(),
      text: 'At nine',
      fileIds: [],
      picked: { kind: 'reply', id: body.id },
    };
    const path = `/api/conversations/${talk.id}/deeds`;
    for (const _twice of [1, 2]) await house.ask('POST', path, { cookie, body: say });
    const [reply] = (await all()).replies;
    expect(reply).toMatchObject({ usedCount: 1, usedAt: house.clock.now() });
    const { entries } = (await house.ask('GET', `/api/conversations/${talk.id}`, { cookie })).body;
    expect(entries.at(-1)).toMatchObject({ text: 'At nine', picked: { id: body.id } });
    expect(JSON.stringify(await wren.hear('entries'))).not.toContain(body.id);
  });

  describe('as tables', () => {
    const take = async (bytes: Buffer | string, as = 'csv', by = cookie): Promise<TakenIn> =>
      (
        await house.ask('POST', `/api/quick-replies/table?as=${as}`, {
          cookie: by,
          body: Buffer.from(bytes as string),
          headers: octets,
        })
      ).body;
    const give = (as: string) => house.ask('GET', `/api/quick-replies/table?as=${as}`, { cookie });

    it('are read in, with what was not taken and why', async () => {
      await put();
      const table = [
        'Title;CODE;text;own',
        'Opening hours;hours;"We open at nine;',
        'at ten on Sundays";',
        'Empty;e;  ;',
        'Own;mine;Text;yes',
        ';;No title here. More;',
        'Again;mine;Text 2;',
        `${'x'.repeat(90)};l;Text;`,
      ].join('\r\n');
      const report = await take(table);
      expect(report).toMatchObject({ addedCount: 2, changedCount: 2, refusedCount: 2 });
      expect(report.refused).toEqual([
        { row: 3, why: 'text-empty', what: 'Empty' },
        { row: 7, why: 'title-too-long', what: 'x'.repeat(60) },
      ]);
      const { replies } = await all();
      const byCode = (code: string) => replies.find((one: { code: string }) => one.code === code);
      expect(byCode('hours')).toMatchObject({ text: 'We open at nine;\nat ten on Sundays' });
      expect(byCode('mine')).toMatchObject({ text: 'Text 2', memberId: null });
      expect(await take(table.replace('Own;mine;Text;yes\r\n', ''))).toMatchObject({
        addedCount: 0,
        changedCount: 0,
        sameCount: 3,
      });
    });

    it.each([
      ['UTF-16 with a mark', Buffer.from('\ufefftitle\ttext\nÜber\tGrün', 'utf16le')],
      ['UTF-16 without one', Buffer.from('title\ttext\nÜber\tGrün', 'utf16le')],
      [
        'UTF-16, the other way round',
        Buffer.from('\ufefftitle\ttext\nÜber\tGrün', 'utf16le').swap16(),
      ],
      ['the encoding of old spreadsheets', Buffer.from('title;text\nÜber;Grün', 'latin1')],
      ['UTF-8 with a mark', Buffer.from('\ufefftitle|text\nÜber|Grün')],
    ])('are understood in %s', async (_encoding, bytes) => {
      expect(await take(bytes)).toMatchObject({ addedCount: 1 });
      expect((await all()).replies).toMatchObject([{ title: 'Über', text: 'Grün' }]);
    });

    it.each(['', 'nothing of ours\nat all', '{"text": 1}', '\u0000\u0001\u0002'])(
      'are refused whole where they are none of ours (%j)',
      async (bytes) => {
        expect(await take(bytes)).toMatchObject({ code: 'table-not-understood' });
        expect(await take(bytes, 'json')).toMatchObject({ code: 'table-not-understood' });
        expect((await all()).replies).toEqual([]);
      },
    );

    it('come out as a second parser reads them, with nothing that a spreadsheet reckons, and in again as they were', async () => {
      const texts = [
        '=1+1',
        '@SUM(A1)',
        '-2 degrees',
        '+44 20 7946 0000',
        'a "quote"\nand, more',
        'plain',
      ];
      for (const [at, text] of texts.entries()) await put({ code: `c${at}`, text });
      const { body } = await give('csv');
      const rows: Record<string, string>[] = parse(body, { columns: true, bom: true });
      expect(rows.map(({ text }) => text).filter((text) => /^[=@+-]/.test(text ?? ''))).toEqual([]);
      expect(await take(body)).toMatchObject({ sameCount: texts.length, changedCount: 0 });
      const json = (await give('json')).body;
      expect(json.map(({ text }: { text: string }) => text).sort()).toEqual([...texts].sort());
      expect(await take(JSON.stringify(json), 'json')).toMatchObject({ sameCount: texts.length });
    });

    it('are whole however long they are, and whatever letters they have', async () => {
      const text = '🌿 Grün, ąęż '.repeat(300).trim();
      const rows = Array.from({ length: 40 }, (_none, at) => `${at}${'x'.repeat(at)},"${text}"`);
      await take(['title,text', ...rows].join('\n'));
      const { replies } = await all();
      expect(replies).toHaveLength(40);
      for (const reply of replies) expect(reply.text).toBe(text);
    });

    it('of a hundred thousand rows are taken as far as there is room, and the rest is counted', async () => {
      const rows = Array.from({ length: 100_000 }, (_none, at) => `c${at},Title ${at},Text ${at}`);
      const report = await take(['code,title,text', ...rows].join('\n'));
      expect(report).toMatchObject({
        addedCount: REPLIES_MOST,
        refusedCount: 100_000 - REPLIES_MOST,
      });
      expect(report.refused).toHaveLength(100);
      expect(report.refused[0]).toMatchObject({ row: REPLIES_MOST + 2, why: 'too-many-of-these' });
    });

    it('of another’s own are neither read nor written', async () => {
      const { body: own } = await put({ isOwn: true, code: 'mine' });
      expect(await take('title,code,text\nx,mine,y', 'csv', helper)).toMatchObject({
        addedCount: 1,
      });
      const theirs = await house.ask('GET', '/api/quick-replies/table?as=json', {
        cookie: helper,
      });
      expect(theirs.body).toMatchObject([{ text: 'y' }]);
      const { replies } = await all();
      expect(replies).toHaveLength(2);
      expect(replies).toContainEqual(own);
    });
  });
});
