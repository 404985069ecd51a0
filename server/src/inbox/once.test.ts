import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, openDevice, visit, write } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';

describe('nothing is taken twice, and nothing is lost', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const entriesOf = (conversationId: string) =>
    house.store.entries.allOf(conversationId).filter(({ kind }) => kind === 'visitor-said');

  it('takes a message once, however often and however close together it is sent', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    const id = clientId();
    const message = { do: 'say' as const, id, text: 'Once', fileIds: [], page: null };
    panel.tell(message);
    panel.tell(message);
    const letters = await Promise.all([
      write(house, door.publicId, 'wren', [message]),
      write(house, door.publicId, 'wren', [message]),
    ]);
    await panel.hear('taken');
    await panel.hear('taken');
    for (const says of letters) expect(says).toContainEqual({ say: 'taken', id });
    const [conversation] = house.store.conversations.page('waiting', null, 5);
    expect(entriesOf(conversation?.id ?? '')).toHaveLength(1);
    expect(house.store.conversations.counts().waiting).toBe(1);
  });

  it('answers once when the same answer comes from two devices', async () => {
    const { cookie, door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const ask = () =>
      house.ask('POST', `/api/conversations/${conversation?.id}/deeds`, {
        cookie,
        body: { do: 'say', id: 'the-same-answer', text: 'Hi', fileIds: [] },
      });
    const answers = await Promise.all([ask(), ask()]);
    const seqs = answers.map(({ body }) => body.entries[0].seq);
    expect(new Set(seqs).size).toBe(1);
  });

  it('gives a visitor exactly what came after the seq they have', async () => {
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('First');
    const { seq } = await panel.hear('entries');
    panel.close();
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    await house.ask('POST', `/api/conversations/${conversation?.id}/deeds`, {
      cookie,
      body: { do: 'say', id: 'answer-0001', text: 'While you were away', fileIds: [] },
    });
    const again = await visit(house, door.publicId, 'wren', seq);
    expect(again.welcome.continues).toBe(true);
    expect(again.welcome.entries.map(({ text }) => text)).toEqual(['While you were away']);
  });

  it('gives a device exactly what it missed, over the socket and over HTTP', async () => {
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Before');
    const since = house.store.entries.newestSeq();
    await panel.say('Missed one');
    await panel.say('Missed two');
    const texts = (entries: { kind: string; text?: string }[]) =>
      entries.filter(({ kind }) => kind === 'visitor-said').map(({ text }) => text);
    const device = await openDevice(house, cookie, since);
    expect(texts(device.welcome.entries)).toEqual(['Missed one', 'Missed two']);
    const { body } = await house.ask('GET', `/api/since?seq=${since}`, { cookie });
    expect(texts(body.entries)).toEqual(['Missed one', 'Missed two']);
    expect(body.rows).toHaveLength(1);
    const says = [{ do: 'hello', since }, { do: 'pulse' }];
    const letter = await house.ask('POST', '/api/letters', { cookie, body: { says } });
    expect(letter.body.says).toMatchObject([{ say: 'welcome' }, { say: 'pulse' }]);
    expect(texts(letter.body.says[0].entries)).toEqual(['Missed one', 'Missed two']);
  });

  it('lets a device see by a letter that the house is another', async () => {
    const { cookie } = await setUp(house);
    const markNow = async (): Promise<string> => {
      const body = { says: [{ do: 'hello', since: 0 }] };
      const letter = await house.ask('POST', '/api/letters', { cookie, body });
      return letter.body.says[0].houseMark;
    };
    const mark = await markNow();
    expect(await markNow()).toBe(mark);
    const named = await house.ask('POST', '/api/ticks', { cookie, body: { tick: 'team' } });
    expect(named.status).toBeLessThan(300);
    expect(await markNow()).not.toBe(mark);
  });

  it('says so when a device missed more than is worth replaying, or comes from another past', async () => {
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    house.store.atOnce(() => {
      for (let index = 0; index < 600; index += 1) {
        house.store.entries.append(
          conversation?.id ?? '',
          conversation?.id ?? '',
          `filler-entry-${index}`,
          0,
          {
            kind: 'here',
          },
        );
      }
    });
    const far = await house.ask('GET', '/api/since?seq=1', { cookie });
    expect(far.body).toMatchObject({ isTooMuch: true, entries: [] });
    const ahead = await house.ask('GET', '/api/since?seq=99999', { cookie });
    expect(ahead.body.isTooMuch).toBe(true);
  });

  it('refuses one message of a moment without losing the others of that moment', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    const say = (id: string, text: string) =>
      panel.tell({ do: 'say', id, text, fileIds: [], page: null });
    say('message-good-1', 'One');
    say('message-empty-', '   ');
    say('message-good-2', 'Two');
    await panel.hear('taken', ({ id }) => id === 'message-good-2');
    const refused = await panel.hear('refused');
    expect(refused).toMatchObject({ id: 'message-empty-', refusal: { code: 'text-empty' } });
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    expect(entriesOf(conversation?.id ?? '')).toHaveLength(2);
  });
});

describe('an id that is taken', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const open = async () => {
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('First words', 'message-id-01');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const deed = (body: object, by = cookie) =>
      house.ask('POST', `/api/conversations/${conversation?.id}/deeds`, { cookie: by, body });
    const say = async (id: string, text: string, fileIds: string[] = []) => {
      panel.tell({ do: 'say', id, text, fileIds, page: null });
      const { refusal } = await panel.hear('refused', (one) => one.id === id);
      return refusal.code;
    };
    return { cookie, panel, deed, say, id: conversation?.id ?? '' };
  };

  it('by other words is refused, and by the same words acknowledged once more', async () => {
    const { panel, say } = await open();
    expect(await say('message-id-01', 'Other words')).toBe('id-taken');
    expect(await say('message-id-01', 'First words', ['some-file-0001'])).toBe('id-taken');
    await panel.say('First words', 'message-id-01');
    // As it is kept: what is cleaned away is no other word.
    await panel.say('  First words\r\n', 'message-id-01');
  });

  it('by a deed of another kind, or somebody else’s, is refused', async () => {
    const { deed, say } = await open();
    expect(
      (await deed({ do: 'say', id: 'message-id-01', text: 'First words', fileIds: [] })).body.code,
    ).toBe('id-taken');
    await deed({ do: 'say', id: 'answer-id-01', text: 'Hi', fileIds: [] });
    expect(await say('answer-id-01', 'Hi')).toBe('id-taken');
    expect((await deed({ do: 'say', id: 'answer-id-01', text: 'Ho', fileIds: [] })).body.code).toBe(
      'id-taken',
    );
    expect((await deed({ do: 'wrap-up', id: 'answer-id-01' })).body.code).toBe('id-taken');
    const helper = await addHelper(house);
    expect(
      (await deed({ do: 'say', id: 'answer-id-01', text: 'Hi', fileIds: [] }, helper)).body.code,
    ).toBe('id-taken');
    expect((await deed({ do: 'say', id: 'answer-id-01', text: 'Hi', fileIds: [] })).status).toBe(
      200,
    );
    const until = house.clock.now() + 3_600_000;
    await deed({ do: 'put-by', id: 'put-by-id-01', until });
    expect((await deed({ do: 'put-by', id: 'put-by-id-01', until: until + 1 })).body.code).toBe(
      'id-taken',
    );
    expect((await deed({ do: 'put-by', id: 'put-by-id-01', until })).status).toBe(200);
  });

  it('by other details is refused, and by the same taken once', async () => {
    const { panel, id } = await open();
    const give = (name: string, email: string) =>
      panel.tell({ do: 'details', id: 'details-id-1', name, email });
    give('Wren', 'Wren@Post.EXAMPLE');
    await panel.hear('taken', (one) => one.id === 'details-id-1');
    give('Wren', 'Wren@post.example');
    await panel.hear('taken', (one) => one.id === 'details-id-1');
    give('Robin', 'Wren@post.example');
    expect((await panel.hear('refused')).refusal.code).toBe('id-taken');
    const given = house.store.entries.allOf(id).filter(({ kind }) => kind === 'details');
    expect(given).toHaveLength(1);
  });

  it('by other bytes is refused, and by the same taken once', async () => {
    const { cookie } = await open();
    const put = (bytes: string) =>
      house.ask('PUT', '/api/files/file-id-0001', {
        cookie,
        body: Buffer.from(bytes),
        headers: { 'content-type': 'application/octet-stream', 'x-file-name': 'a.txt' },
      });
    expect((await put('one')).status).toBe(200);
    expect((await put('two')).body.code).toBe('id-taken');
    expect((await put('one')).status).toBe(200);
  });
});
