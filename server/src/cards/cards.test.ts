import type { Card, Cards } from '@porch/core/cards';
import { cardOf as card } from '@porch/core/test-kit/cards';
import { dressingOf } from '../../test-kit/dresses';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, until, visit, visitorToken, write } from '../../test-kit/panel';

const hour = 3_600_000;

const delivery = card('card-delivery', {
  question: 'Do you deliver?',
  answer: 'Within ten miles, on Fridays.',
  link: 'https://quillfern.example/delivery',
  leads: { to: 'cards', ids: ['card-far-away', 'card-its-cost'] },
});
const far = card('card-far-away', {
  question: 'I live further away',
  leads: { to: 'ask', asks: { field: 'own', label: 'Postcode' }, next: 'card-its-cost' },
});
const cost = card('card-its-cost', { question: 'What does delivery cost?' });

const asked = (cards: Card[], first = cards.map(({ id }) => id)): Cards => ({
  cards,
  first: first.map((id) => ({ id, states: ['lit', 'back-soon', 'dark'] })),
});

describe('what is asked often', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };
  let owner: string;

  beforeEach(async () => {
    house = await openHouse();
    const made = await setUp(house);
    ({ cookie, door } = made);
    owner = made.member.id;
    await dress(asked([delivery, far, cost]));
  });
  afterEach(() => house.close());

  const dressing = () => dressingOf(house, cookie, door.id);
  const save = (change: object) => dressing().save((dress) => ({ ...dress, ...change }));
  const dress = (cards: Cards, more: object = {}): Promise<void> =>
    dressing().publish((before) => ({ ...before, asked: cards, ...more }));
  const turn = (state: 'lit' | 'dark') =>
    house.ask('PUT', '/api/lamp', { cookie, body: { state, until: null } });
  const entries = <Kind extends string>(kind: Kind) =>
    house.store.entries.since(0, 500).filter((entry) => entry.kind === kind);
  const groupOf = () =>
    (['waiting', 'note', 'wrapped-up', 'answered'] as const).find(
      (group) => house.store.conversations.page(group, null, 5).length > 0,
    );
  const counts = async (id: string) => {
    const { body } = await house.ask('GET', `/api/doors/${door.id}/cards/counts`, { cookie });
    return body.counts.find((one: { cardId: string }) => one.cardId === id);
  };
  const wren = async (who = 'wren') => {
    const panel = await visit(house, door.publicId, who);
    return {
      ...panel,
      tap: async (cardId: string, id = clientId(), consent: string | null = null) => {
        panel.tell({ do: 'tap', id, card: cardId, page: null, language: 'en', consent });
        return until(() => {
          const at = panel.heard.findIndex(
            (told) => (told.say === 'taken' || told.say === 'refused') && told.id === id,
          );
          return at < 0 ? undefined : panel.heard.splice(at, 1)[0];
        });
      },
      find: async (text: string, why: 'search' | 'note') => {
        const id = clientId();
        panel.tell({ do: 'find', id, text, language: 'en', for: why });
        const { cards } = await panel.hear('found', (message) => message.id === id);
        return cards.map((one) => one.question);
      },
      enough: async () => {
        const id = clientId();
        panel.tell({ do: 'enough', id });
        await panel.hear('taken', (message) => message.id === id);
      },
    };
  };

  it('comes with question and answer onto the roll, marked as a card, and nobody waits', async () => {
    const panel = await wren();
    await panel.tap(delivery.id);
    const { entries: told } = await panel.hear('entries', ({ entries: some }) => some.length > 1);
    expect(told).toMatchObject([
      { by: 'visitor', text: 'Do you deliver?', isTap: true },
      {
        by: 'door',
        text: 'Within ten miles, on Fridays.',
        card: {
          id: delivery.id,
          link: 'https://quillfern.example/delivery',
          offers: [
            { id: far.id, question: far.question },
            { id: cost.id, question: cost.question },
          ],
          asks: null,
        },
      },
    ]);
    expect(groupOf()).toBe('wrapped-up');
    expect(house.store.rounds.of(told[0]?.id ?? '')).toBeNull();
    const [row] = house.store.conversations.page('wrapped-up', null, 1);
    expect(row?.state).toMatchObject({ unread: [], lastWords: 'Do you deliver?' });
    const back = await wren();
    expect(back.welcome.entries).toMatchObject(told);
  });

  it('is tapped once under one id, also over letters and after the card has gone', async () => {
    const panel = await wren();
    const id = clientId();
    await panel.tap(delivery.id, id);
    await dress(asked([cost]));
    await panel.tap(delivery.id, id);
    await write(house, door.publicId, 'wren', [{ do: 'tap', id, card: delivery.id, page: null }]);
    expect(entries('visitor-said')).toHaveLength(1);
    expect(entries('door-sign')).toHaveLength(1);
    const other = await panel.tap(cost.id, id);
    expect(other).toMatchObject({ say: 'refused', refusal: { code: 'id-taken' } });
  });

  it('is refused where it is not answered any more, or never was', async () => {
    const panel = await wren();
    expect(await panel.tap('card-nobody-knows')).toMatchObject({
      say: 'refused',
      refusal: { code: 'card-gone' },
    });
    expect(entries('visitor-said')).toEqual([]);
    await save({ asked: asked([card('card-of-a-draft')]) });
    expect(await panel.tap('card-of-a-draft')).toMatchObject({ say: 'refused' });
  });

  it('keeps nothing before somebody agrees, where that is asked', async () => {
    await dress(asked([delivery, far, cost]), { consent: { isAsked: true, link: '' } });
    const panel = await wren();
    expect(await panel.tap(delivery.id)).toMatchObject({ refusal: { code: 'consent-needed' } });
    expect(await panel.tap(delivery.id, clientId(), 'en')).toMatchObject({ say: 'taken' });
    expect(entries('consented')).toHaveLength(1);
  });

  it('asks for a detail, which is kept as the guest book’s are', async () => {
    const panel = await wren();
    await panel.tap(far.id);
    const { entries: told } = await panel.hear('entries', ({ entries: some }) => some.length > 1);
    expect(told[1]?.card).toMatchObject({ asks: { field: 'own', label: 'Postcode' } });
    const id = clientId();
    panel.tell({ do: 'details', id, own: [{ id: far.id, value: ' LK1  2AB ' }] });
    await panel.hear('taken', (message) => message.id === id);
    expect(entries('details')).toMatchObject([
      { own: [{ id: far.id, label: 'Postcode', value: 'LK1 2AB' }] },
    ]);
  });

  it('passes it to somebody: they wait, also where whoever it was for has left', async () => {
    const pass = card('card-to-workshop', { leads: { to: 'pass', memberId: owner } });
    const gone = card('card-to-nobody-1', { leads: { to: 'pass', memberId: 'member-who-left' } });
    await dress(asked([pass, gone]));
    const panel = await wren();
    await panel.tap(gone.id);
    expect(groupOf()).toBe('waiting');
    await panel.tap(pass.id);
    expect(entries('visitor-said').map((entry) => 'tapped' in entry && entry.tapped)).toEqual([
      { card: gone.id },
      { card: pass.id, passedTo: owner },
    ]);
    expect(await counts(pass.id)).toEqual({ cardId: pass.id, tapped: 1, enough: 0 });
  });

  it('rings whom it is passed to first, and nobody else', async () => {
    const ines = 'member-ines-0001';
    const { store, clock } = house;
    const said = { name: 'Ines', role: 'helper' as const, email: 'ines@quillfern.example' };
    const rest = { passwordHash: '', publicName: '', pictureId: null };
    store.members.add({ id: ines, ...said, ...rest }, clock.now());
    for (const memberId of [ines, owner]) {
      const id = `bell-of-${memberId}`.slice(0, 40);
      store.sessions.add(id, memberId, 'phone', clock.now());
      store.bellDevices.put({
        id,
        memberId,
        sessionHash: id,
        endpoint: `https://push.example/${memberId}`,
        p256dh: 'A'.repeat(87),
        auth: 'A'.repeat(22),
        name: 'Phone',
        addedAt: clock.now(),
      });
    }
    await dress(asked([card('card-to-orders-1', { leads: { to: 'pass', memberId: ines } })]));
    const panel = await wren();
    await panel.tap('card-to-orders-1');
    const [talk] = store.conversations.page('waiting', null, 1);
    expect(store.rounds.of(talk?.id ?? '')?.rung).toEqual([ines]);
    const other = await wren('robin');
    await other.say('Hello');
    const second = store.conversations
      .page('waiting', null, 2)
      .find(({ state }) => state.lastWords === 'Hello');
    expect(store.rounds.of(second?.id ?? '')?.rung.sort()).toEqual([ines, owner].sort());
  });

  it('says the door sign too where it is passed to somebody and nobody is in', async () => {
    await dress(asked([card('card-to-workshop', { leads: { to: 'pass', memberId: owner } })]));
    await turn('dark');
    const panel = await wren();
    await panel.tap('card-to-workshop');
    expect(entries('door-sign')).toMatchObject([{ card: {} }, { until: null }]);
    expect(groupOf()).toBe('note');
  });

  it('leaves what is owed as it is', async () => {
    const panel = await wren();
    await panel.say('Do you have ferns?');
    await panel.tap(cost.id);
    expect(groupOf()).toBe('waiting');
    const [row] = house.store.conversations.page('waiting', null, 1);
    expect(row?.state.waitingSince).toBe(house.clock.now());
  });

  it('lets the first message after it be greeted as the first', async () => {
    await dress(asked([cost]), { hello: { isOn: true, days: [], from: 0, to: 0 } });
    const panel = await wren();
    await panel.tap(cost.id);
    await panel.say('And to the islands?');
    expect(entries('door-sign').filter((entry) => 'isHello' in entry)).toHaveLength(1);
  });

  it('was enough unless they write within the hour, and counts no more than was tapped', async () => {
    const panel = await wren();
    await panel.tap(cost.id);
    await panel.tap(delivery.id);
    expect(await counts(cost.id)).toEqual({ cardId: cost.id, tapped: 1, enough: 1 });
    await panel.say('And to the islands?');
    await panel.say('Hello?');
    expect(await counts(cost.id)).toEqual({ cardId: cost.id, tapped: 1, enough: 0 });
    expect(await counts(delivery.id)).toEqual({ cardId: delivery.id, tapped: 1, enough: 0 });
    await (await wren('robin')).tap(cost.id);
    await panel.say('Still here');
    expect(await counts(cost.id)).toEqual({ cardId: cost.id, tapped: 2, enough: 1 });
    await panel.tap(cost.id);
    house.clock.advance(hour + 1);
    await panel.say('Something else');
    expect(await counts(cost.id)).toEqual({ cardId: cost.id, tapped: 3, enough: 2 });
    await panel.tap(cost.id);
    house.services.cards.tidy();
    await panel.say('And that too');
    expect(await counts(cost.id)).toEqual({ cardId: cost.id, tapped: 4, enough: 2 });
  });

  describe('where somebody has left a note', () => {
    beforeEach(() => turn('dark'));

    it('is offered where it fits, and nothing where nothing does', async () => {
      const panel = await wren();
      expect(await panel.find('Hi, what would the delivery cost please?', 'note')).toContain(
        cost.question,
      );
      expect(await panel.find('Is my parcel lost somewhere', 'note')).toEqual([]);
      expect(await panel.find('', 'note')).toEqual([]);
    });

    it('settles it where they say so, and only then', async () => {
      const panel = await wren();
      await panel.say('What does delivery cost?');
      expect(groupOf()).toBe('note');
      await panel.enough();
      expect(groupOf()).toBe('note');
      await panel.tap(cost.id);
      expect(groupOf()).toBe('note');
      await panel.enough();
      expect(groupOf()).toBe('wrapped-up');
      expect(entries('wrapped-up')).toMatchObject([{ memberId: null }]);
      expect(house.store.followUps.due(null, 5)).toEqual([]);
      await panel.enough();
      expect(entries('wrapped-up')).toHaveLength(1);
      await panel.say('One more thing');
      expect(groupOf()).toBe('note');
    });

    it('settles nothing that was said after it, and nothing of anybody else', async () => {
      const panel = await wren();
      await panel.say('What does delivery cost?');
      await panel.tap(cost.id);
      await panel.say('And when does it come?');
      await panel.enough();
      expect(groupOf()).toBe('note');
      const stranger = await wren('robin');
      await stranger.enough();
      expect(entries('wrapped-up')).toEqual([]);
    });
  });

  it('is found by what it is about and by how its words begin', async () => {
    await dress(asked([cost, card('card-repotting', { question: 'How do I repot a fern?' })]));
    const panel = await wren();
    expect(await panel.find('repotting ferns', 'search')).toEqual(['How do I repot a fern?']);
    expect(await panel.find('rep', 'search')).toEqual(['How do I repot a fern?']);
    expect(await panel.find('quarz', 'search')).toEqual([]);
  });

  it('is offered to the team among what fits, and learned from', async () => {
    const panel = await wren();
    await panel.say('What would the delivery cost please?');
    const [row] = house.store.conversations.page('waiting', null, 1);
    const { body } = await house.ask('GET', `/api/conversations/${row?.id}/fits`, { cookie });
    expect(body.fits[0]).toMatchObject({ kind: 'card', id: cost.id, title: cost.question });
    const said = { do: 'say', id: clientId(), text: cost.answer, fileIds: [] };
    const picked = { kind: 'card', id: cost.id };
    await house.ask('POST', `/api/conversations/${row?.id}/deeds`, {
      cookie,
      body: { ...said, picked },
    });
    house.services.afterwards.catchUp();
    expect(house.store.answersGiven.picksOf('card', cost.id)).toHaveLength(1);
  });

  it('is offered to the team no more once its door is closed', async () => {
    const panel = await wren();
    await panel.say('What would the delivery cost please?');
    const [row] = house.store.conversations.page('waiting', null, 1);
    const fits = async () =>
      (await house.ask('GET', `/api/conversations/${row?.id}/fits`, { cookie })).body.fits;
    expect(await fits()).not.toEqual([]);
    const known = house.store.doors.byId(door.id);
    if (known) house.store.doors.update({ ...known, closedAt: house.clock.now() });
    expect(await fits()).toEqual([]);
  });

  it('is no question that somebody has to find an answer to', async () => {
    await dress(asked([card('card-to-workshop', { leads: { to: 'pass', memberId: owner } })]));
    const panel = await wren();
    await panel.tap('card-to-workshop');
    const [row] = house.store.conversations.page('waiting', null, 1);
    const { body } = await house.ask('GET', `/api/conversations/${row?.id}/fits`, { cookie });
    expect(body.fits).toEqual([]);
  });

  it('is there once, and leads to everything nowhere', async () => {
    const twice = await save({ asked: asked([cost, cost], [cost.id]) });
    expect([twice.status, twice.body.code]).toEqual([400, 'bad-request']);
    const ids = Array.from({ length: 60 }, (_none, at) => `card-number-${at}`);
    const all = ids.map((id) => card(id, { leads: { to: 'cards', ids } }));
    const tangled = await save({ asked: asked(all, ids.slice(0, 10)) });
    expect([tangled.status, tangled.body.code]).toEqual([400, 'too-many-of-these']);
  });

  describe('that keeps coming', () => {
    const people = ['wren', 'robin', 'finch', 'heron', 'stork'];
    const ask = async (who: string, text: string, answer: string): Promise<void> => {
      const panel = await wren(who);
      await panel.say(text);
      const [row] = house.store.conversations.page('waiting', null, 1);
      const body = { do: 'say', id: clientId(), text: answer, fileIds: [] };
      await house.ask('POST', `/api/conversations/${row?.id}/deeds`, { cookie, body });
      panel.close();
    };
    const proposed = async () =>
      (await house.ask('GET', `/api/doors/${door.id}/cards/proposals`, { cookie })).body.proposals;

    it('is proposed as a card, with the messages and the answer', async () => {
      const answer = 'From £10, on paper or by email.';
      for (const who of people.slice(0, 3))
        await ask(who, `Do you sell gift vouchers, I am ${who}`, answer);
      await ask('heron', 'Is my fern too wet?', 'Let it dry out first.');
      expect(await proposed()).toEqual([]);
      await ask('stork', 'Could I buy a gift voucher from you?', answer);
      expect(await proposed()).toMatchObject([
        {
          answer,
          language: 'en',
          count: 4,
          messages: expect.arrayContaining([
            expect.objectContaining({ text: 'Could I buy a gift voucher from you?' }),
          ]),
        },
      ]);
    });

    it('is not proposed where there is a card for it, or one person asks it all the time', async () => {
      for (const who of people)
        await ask(who, 'What does delivery cost please?', 'It is four pounds.');
      for (const count of [1, 2, 3, 4, 5]) {
        await ask('wren', `Do you sell gift vouchers? ${count}`, 'From ten pounds on.');
      }
      expect(await proposed()).toEqual([]);
    });
  });

  describe('as a table', () => {
    const table = (as: 'csv' | 'json') => `/api/doors/${door.id}/cards/table?as=${as}`;
    const read = (as: 'csv' | 'json', text: string | Buffer) =>
      house.ask('POST', table(as), {
        cookie,
        headers: { 'content-type': 'application/octet-stream' },
        body: Buffer.from(text),
      });

    it('goes out as it is worked on, and comes back the same', async () => {
      const csv = await house.ask('GET', table('csv'), { cookie });
      expect(csv.headers['content-disposition']).toContain('asked-often.csv');
      const json = await house.ask('GET', table('json'), { cookie });
      const fromCsv = await read('csv', csv.bytes);
      expect(fromCsv.body.rows.map((one: { cells: object }) => one.cells)).toEqual(json.body);
      expect(json.body[0]).toMatchObject({
        question: 'Do you deliver?',
        'leads to': expect.any(String),
      });
      expect((await read('json', json.bytes)).body.rows).toHaveLength(3);
    });

    it('is understood in other spellings, is bounded, and reckons nothing', async () => {
      const text = 'Question;Answer;Colour\r\n"=1+1";"two; three";red\r\n';
      const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
      expect((await read('csv', utf16)).body.rows).toEqual([
        { row: 2, cells: { question: '=1+1', answer: 'two; three' } },
      ]);
      const long = `question\n${'x\n'.repeat(5_000)}`;
      expect((await read('csv', long)).body.rows).toHaveLength(300);
    });

    it('is refused where it is none, or the door is none', async () => {
      expect((await read('csv', 'a,b\n1,2')).body.code).toBe('table-not-understood');
      expect((await read('json', '{')).body.code).toBe('table-not-understood');
      const path = '/api/doors/door-of-nobody/cards/table?as=csv';
      expect((await house.ask('GET', path, { cookie })).status).toBe(404);
    });
  });

  describe('with pictures', () => {
    const upload = async (id: string): Promise<void> => {
      const png = Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      );
      const { status } = await house.ask('PUT', `/api/files/${id}`, {
        cookie,
        headers: { 'content-type': 'application/octet-stream', 'x-file-name': 'pot.png' },
        body: png,
      });
      expect(status).toBe(200);
    };
    const fetched = (id: string, path = `/door/${door.publicId}/files/${id}`) =>
      house.ask('GET', path, {
        headers: { authorization: `Bearer ${visitorToken('wren')}`, 'x-site': '' },
      });

    it('shows them to everybody at its door, and keeps them though they were never sent', async () => {
      await upload('picture-of-a-pot');
      await dress(asked([card('card-with-pot-1', { pictureIds: ['picture-of-a-pot'] })]));
      house.clock.advance(48 * hour);
      house.services.files.tidy();
      await upload('picture-elsewhere');
      const panel = await wren();
      await panel.tap('card-with-pot-1');
      const { entries: told } = await panel.hear('entries', ({ entries: some }) => some.length > 1);
      expect(told[1]?.files).toMatchObject([{ id: 'picture-of-a-pot', name: 'pot.png' }]);
      expect((await fetched('picture-of-a-pot')).status).toBe(200);
      expect((await fetched('picture-elsewhere')).status).toBe(404);
    });

    it('takes none that a visitor has sent, or that is not there', async () => {
      const panel = await wren();
      await panel.say('Hello');
      await house.ask('PUT', `/door/${door.publicId}/files/picture-of-wren1`, {
        headers: {
          authorization: `Bearer ${visitorToken('wren')}`,
          'content-type': 'application/octet-stream',
          'x-file-name': 'a.txt',
        },
        body: Buffer.from('words'),
      });
      for (const id of ['picture-of-wren1', 'picture-of-nobody']) {
        const { status, body } = await save({
          asked: asked([card('card-a-00001', { pictureIds: [id] })]),
        });
        expect([status, body.code]).toEqual([422, 'file-unknown']);
      }
    });
  });

  it.each([
    ['leads back to itself', { leads: { to: 'cards', ids: ['card-a-00001'] } }, 'leads-back'],
    ['leads to nothing', { leads: { to: 'cards', ids: [] } }, 'leads-nowhere'],
    ['says nothing', { question: '' }, 'text-empty'],
    ['says too much', { answer: 'x'.repeat(4_001) }, 'text-too-long'],
    ['goes on to a script', { link: 'javascript:alert(1)' }, 'link-not-understood'],
  ] as [string, Partial<Card>, string][])(
    'is not saved where it %s',
    async (_how, change, code) => {
      const { status, body } = await save({ asked: asked([card('card-a-00001', change)]) });
      expect([status, body.code]).toEqual([400, code]);
    },
  );
});
