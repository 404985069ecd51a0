import type { Dressed } from '@porch/contract/dress';
import { type Dress, plainDress } from '@porch/core/dress';
import { type House, openHouse, setUp, site } from '../../test-kit/house';
import { openPanel, visit, visitorToken } from '../../test-kit/panel';
import { hashSecret } from '../security/tokens';

const dressed = (change: (dress: Dress) => void): Dress => {
  const dress = plainDress();
  change(dress);
  return dress;
};

describe('the dressing room', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const open = async () => {
    const { cookie, door, member } = await setUp(house);
    const at = (what: string) => `/api/doors/${door.id}/${what}`;
    const look = async (): Promise<Dressed> =>
      (await house.ask('GET', at('dress'), { cookie })).body;
    const save = (dress: Dress, revision: number) =>
      house.ask('PUT', at('draft'), { cookie, body: { dress, revision } });
    const act = (what: 'publish' | 'undo', revision: number) =>
      house.ask('POST', at(what), { cookie, body: { revision } });
    const configuration = async (language = '') => {
      const response = await house.ask(
        'GET',
        `/door/${door.publicId}/configuration.js?language=${language}`,
        { headers: { origin: site } },
      );
      return JSON.parse(String(response.body).slice('export default '.length, -2));
    };
    return { cookie, door, member, at, look, save, act, configuration };
  };

  it('shows visitors nothing of a draft before it is published, and all of it after', async () => {
    const { look, save, act, configuration } = await open();
    const { revision } = await look();
    const left = dressed((dress) => {
      dress.look.side = 'left';
      dress.texts = { de: { 'plate.lit': 'Nur herein' } };
    });
    const saved = (await save(left, revision)).body as Dressed;
    expect(saved).toMatchObject({ isDraft: true, version: 1, changedBy: 'Maren Oduya' });
    expect((await configuration()).look.side).toBe('right');
    const published = (await act('publish', saved.revision)).body as Dressed;
    expect(published).toMatchObject({ isDraft: false, version: 2, canUndo: true });
    expect((await configuration()).look.side).toBe('left');
    expect((await configuration('de-AT')).texts.plate[0]).toBe('Nur herein');
    expect((await configuration('xx')).texts.plate[0]).toBe('Answering now');
  });

  it('takes publishing back, and keeps what was taken back as the draft', async () => {
    const { look, save, act, configuration } = await open();
    const left = dressed((dress) => {
      dress.look.side = 'left';
    });
    const saved = (await save(left, (await look()).revision)).body as Dressed;
    const published = (await act('publish', saved.revision)).body as Dressed;
    const undone = (await act('undo', published.revision)).body as Dressed;
    expect(undone).toMatchObject({ version: 1, isDraft: true, canUndo: false });
    expect(undone.draft.look.side).toBe('left');
    expect((await configuration()).look.side).toBe('right');
    expect((await act('undo', undone.revision)).body.code).toBe('nothing-to-undo');
  });

  it('takes publishing back a hundred times, and no further than what is kept', async () => {
    const { door, act, look } = await open();
    const bottomPx = (px: number) =>
      dressed((dress) => {
        dress.look.bottomPx = px;
      });
    for (let time = 1; time <= 130; time += 1) {
      house.store.dresses.publish(door.id, bottomPx(time), house.clock.now());
    }
    let undone = 0;
    for (let now = await look(); now.canUndo; now = await look()) {
      expect((await act('undo', now.revision)).status).toBe(200);
      undone += 1;
    }
    expect(undone).toBe(99);
    const { published, revision } = await look();
    expect(published.look.bottomPx).toBe(31);
    expect((await act('undo', revision)).body.code).toBe('nothing-to-undo');
  });

  it('tells the second of two who save at once, and changes nothing for them', async () => {
    const { look, save } = await open();
    const { revision } = await look();
    const mine = dressed((dress) => {
      dress.look.bottomPx = 40;
    });
    const theirs = dressed((dress) => {
      dress.look.bottomPx = 60;
    });
    expect((await save(mine, revision)).status).toBe(200);
    expect((await save(theirs, revision)).body.code).toBe('changed-meanwhile');
    expect((await look()).draft.look.bottomPx).toBe(40);
  });

  it('says which field is wrong, and keeps nothing of it', async () => {
    const { look, save } = await open();
    const { revision } = await look();
    const wrong: [string, string, (dress: Dress) => void][] = [
      ['colour-unknown', 'look.ground', (dress) => (dress.look.ground = 'sky')],
      [
        'text-too-long',
        'texts.en.sign.dark',
        (dress) => (dress.texts = { en: { 'sign.dark': 'x'.repeat(5_000) } }),
      ],
      [
        'gap-unknown',
        'texts.en.plate.soon',
        (dress) => (dress.texts = { en: { 'plate.soon': 'Back {tiem}' } }),
      ],
      ['number-out-of-range', 'look.sidePx', (dress) => (dress.look.sidePx = -3)],
      [
        'pattern-not-understood',
        'where.pages',
        (dress) => (dress.where.pages = { mode: 'only', these: ['a b'] }),
      ],
      [
        'choice-unknown',
        'where.countries',
        (dress) => (dress.where.countries = { mode: 'only', these: ['XX'] }),
      ],
      [
        'link-not-understood',
        'consent.link',
        (dress) => (dress.consent.link = 'javascript:alert(1)'),
      ],
    ];
    for (const [code, field, change] of wrong) {
      expect((await save(dressed(change), revision)).body).toMatchObject({ code, field });
    }
    expect(await look()).toMatchObject({ isDraft: false, revision });
  });

  it('opens a trial to whoever has its token, on a listed website, and not for long', async () => {
    const { cookie, door, at, look, save } = await open();
    await save(
      dressed((dress) => (dress.look.side = 'left')),
      (await look()).revision,
    );
    const { url, token } = (await house.ask('POST', at('trial'), { cookie })).body;
    expect(url).toBe(`https://quillfern.example/#hello-porch-trial=${token}`);
    const ask = (by: string, origin = site) =>
      house.ask('GET', `/door/${door.publicId}/trial`, {
        headers: { origin, authorization: `Bearer ${by}` },
      });
    expect((await ask(token)).body.configuration.look.side).toBe('left');
    expect((await ask(token)).body.view.look.side).toBe('left');
    expect((await ask('made-up')).body.code).toBe('link-stale');
    expect((await ask(token, 'https://elsewhere.example')).body.code).toBe('site-not-listed');
    house.clock.advance(31 * 60_000);
    expect((await ask(token)).body.code).toBe('link-stale');
  });

  it('keeps what is asked for by a draft that is tried, and asks visitors nothing of it', async () => {
    const { cookie, door, at, look, save } = await open();
    const question = { id: 'which-plant-1', kind: 'text' as const, label: 'Which?', choices: [] };
    await save(
      dressed((dress) => {
        dress.guestBook.own = [question];
        dress.consent = { isAsked: true, link: 'https://quillfern.example/privacy' };
      }),
      (await look()).revision,
    );
    const panel = await visit(house, door.publicId, 'maren');
    const answered = async (id: string, value: string) => {
      panel.tell({ do: 'details', id, own: [{ id: question.id, value }] });
      await panel.hear('taken', (told) => told.id === id);
      return mine()?.own;
    };
    await panel.say('Trying');
    const [{ id: talk } = { id: '' }] = house.store.conversations.page('waiting', null, 1);
    const mine = () => house.store.conversations.byId(talk)?.state;
    expect(await answered('details-00001', 'Too early')).toEqual([]);

    await house.ask('POST', at('trial'), { cookie });
    panel.tell({
      do: 'say',
      id: 'message-agrees',
      text: 'Yes',
      fileIds: [],
      page: null,
      consent: 'en',
    });
    await panel.hear('taken', (told) => told.id === 'message-agrees');
    expect(mine()?.hasConsented).toBe(true);
    const kept = [{ id: question.id, label: 'Which?', value: 'A fern' }];
    expect(await answered('details-00002', 'A fern')).toEqual(kept);
    await (await visit(house, door.publicId, 'wren')).say('Nobody asks me to agree');

    house.clock.advance(31 * 60_000);
    expect(await answered('details-00003', 'Too late')).toEqual(kept);
  });

  it('draws the door\u2019s link as a code to print', async () => {
    const { cookie, at } = await open();
    const svg = await house.ask('GET', at('qr.svg'), { cookie });
    expect(svg.headers['content-type']).toContain('image/svg+xml');
    expect(String(svg.body)).toContain('<svg');
    const png = await house.ask('GET', at('qr.png'), { cookie });
    expect(png.bytes.subarray(1, 4).toString()).toBe('PNG');
  });

  describe('with consent asked', () => {
    const asking = async () => {
      const house = await open();
      const saved = await house.save(
        dressed(
          (dress) => (dress.consent = { isAsked: true, link: 'https://quillfern.example/privacy' }),
        ),
        (await house.look()).revision,
      );
      await house.act('publish', saved.body.revision);
      return house;
    };
    it('keeps nothing of a visitor before they agree, and notes what they agreed to', async () => {
      const { door } = await asking();
      const panel = await openPanel(house, door.publicId);
      panel.tell({ do: 'hello', token: visitorToken('wren'), since: 0, site });
      expect((await panel.hear('welcome')).hasConsented).toBe(false);
      const say = (id: string, consent: string | null) =>
        panel.tell({ do: 'say', id, text: 'Hello', fileIds: [], page: null, consent });
      say('message-00001', null);
      expect((await panel.hear('refused')).refusal.code).toBe('consent-needed');
      const upload = (consent?: string) =>
        house.ask('PUT', `/door/${door.publicId}/files/file-0000001`, {
          headers: {
            authorization: `Bearer ${visitorToken('wren')}`,
            'content-type': 'application/octet-stream',
            'x-file-name': 'a.txt',
            ...(consent ? { 'x-consent': consent } : {}),
          },
          body: Buffer.from('words'),
        });
      expect((await upload()).body.code).toBe('consent-needed');
      expect(house.store.conversations.counts().waiting).toBe(0);
      expect(house.store.files.byId('file-0000001')).toBeNull();
      const address = hashSecret(visitorToken('wren'));
      expect(house.store.threads.byWriter({ doorId: door.id, address })).toBeNull();
      say('message-00001', 'de');
      await panel.hear('taken');
      const [conversation] = house.store.conversations.page('waiting', null, 1);
      const [first] = house.store.entries.allOf(conversation?.id ?? '');
      expect(first).toMatchObject({
        kind: 'consented',
        text: expect.stringContaining('einverstanden'),
        link: 'https://quillfern.example/privacy',
      });
      say('message-00002', null);
      await panel.hear('taken');
    });
  });

  it('keeps own answers with the question, a phone number in E.164 and a domain in lower case', async () => {
    const { door, look, save, act } = await open();
    const saved = await save(
      dressed((dress) => {
        dress.guestBook.own = [
          { id: 'which-plant-1', kind: 'text', label: 'Which plant?', choices: [] },
        ];
        dress.guestBook.lit.asks.push({ field: 'which-plant-1', isRequired: true });
      }),
      (await look()).revision,
    );
    await act('publish', saved.body.revision);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    panel.tell({ do: 'check', id: 'check-000001', phone: 'not a number' });
    expect((await panel.hear('refused')).refusal).toMatchObject({
      code: 'phone-not-understood',
      field: 'phone',
    });
    panel.tell({
      do: 'details',
      id: 'details-00001',
      email: 'Wren@Post.EXAMPLE',
      phone: '07700 900123',
      own: [
        { id: 'which-plant-1', value: ' A  fern ' },
        { id: 'never-asked-1', value: 'x' },
      ],
    });
    await panel.hear('taken', ({ id }) => id === 'details-00001');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    expect(conversation?.state).toMatchObject({
      email: 'Wren@post.example',
      phone: '+447700900123',
      own: [{ id: 'which-plant-1', label: 'Which plant?', value: 'A fern' }],
    });
  });
});
