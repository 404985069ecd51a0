import { writeFileSync } from 'node:fs';
import type { LookupFunction } from 'node:net';
import { join } from 'node:path';
import type { Entry } from '@porch/core/conversation';
import sharp from 'sharp';
import { type House, openHouse, setUp } from '../../../test-kit/house';
import { becomes } from '../../../test-kit/network-house';
import { clientId, openDevice } from '../../../test-kit/panel';
import { openRealMessenger } from '../../../test-kit/real-messenger';
import { createOutside } from '../../security/outside';

const minute = 60_000;

/** Names of this test are on this machine. */
const resolve: LookupFunction = (_name, options, done) =>
  options.all ? done(null, [{ address: '127.0.0.1', family: 4 }]) : done(null, '127.0.0.1', 4);

/**
 * Against Prosody and slixmpp from Debian's packages: RFC 6120 and 6121, XEP-0085, XEP-0184, XEP-0308, XEP-0313,
 * XEP-0363.
 */
describe('a door to an open messenger', () => {
  let far: Awaited<ReturnType<typeof openRealMessenger>>;
  let wren: Awaited<ReturnType<typeof far.person>>;
  let house: House;
  let cookie: string;
  let doorId: string;
  let count = 0;
  let shop: string;

  beforeAll(async () => {
    far = await openRealMessenger();
    wren = await far.person('wren');
  }, 120_000);
  afterAll(() => far.close());

  const doors = (method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: object) =>
    house.ask(method, `/api/network-doors${path}`, { cookie, ...(body ? { body } : {}) });
  const isFailing = () => house.store.doors.health(doorId).why;
  const isConnected = () => house.store.doors.mark(doorId) !== '';
  const roll = <Kind extends Entry['kind']>(what: Kind) =>
    house.store.entries
      .since(0, 500)
      .filter((entry): entry is Extract<Entry, { kind: Kind }> => entry.kind === what);
  const said = (): string[] => roll('visitor-said').map(({ text }) => text);
  const hears = (text: string) => becomes(() => said().includes(text));
  const answer = (text: string, more: object = {}) =>
    house.ask('POST', `/api/conversations/${roll('visitor-said')[0]?.conversationId}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text, fileIds: [], ...more },
    });
  const steps = (): string[] => roll('receipt').map(({ step }) => step);
  const check = () => doors('POST', `/${doorId}/check`, {});
  const open = async (given: object = {}) => {
    const made = await doors('POST', '', {
      kind: 'xmpp',
      name: 'Messenger',
      given: { address: shop, password: 'right', server: far.server, ...given },
    });
    doorId = made.body.id;
    return check();
  };

  beforeEach(async () => {
    count += 1;
    shop = far.account(`shop${count}`);
    house = await openHouse({ publicOrigin: 'http://porch.example' }, ':memory:', {
      outside: createOutside({ allowed: far.near, resolve }),
    });
    ({ cookie } = await setUp(house));
  });
  afterEach(() => house.close());

  it('hears what somebody writes, tells them that it has arrived, and answers', async () => {
    expect((await open()).body.problem).toBeNull();
    await becomes(isConnected);
    wren.do({ to: shop, say: 'Is the bench open?', id: 'bench-1' });
    await hears('Is the bench open?');
    expect(roll('visitor-said')[0]).toMatchObject({ text: 'Is the bench open?' });
    expect(house.store.conversations.page('waiting', null, 5)).toHaveLength(1);
    await wren.waitFor(({ arrived }) => arrived === 'bench-1');
    await answer('Until four — come by 🌿');
    await wren.waitFor(({ heard, by }) => heard === 'Until four — come by 🌿' && by === shop);
    await becomes(() => steps().includes('arrived'));
  });

  it('passes on that somebody types, to them and to us', async () => {
    await open();
    await becomes(isConnected);
    wren.do({ to: shop, say: 'Hello' });
    await hears('Hello');
    const [{ conversationId = '' } = {}] = roll('visitor-said');
    const thread = house.store.threads.byId(roll('visitor-said')[0]?.threadId ?? '');
    if (thread) house.services.registry.tellTyping(thread);
    await wren.waitFor(({ typing }) => typing === shop);
    const device = await openDevice(house, cookie);
    wren.do({
      raw: `<message to='${shop}' type='chat'><composing xmlns='http://jabber.org/protocol/chatstates'/></message>`,
    });
    expect(await device.hear('typing')).toMatchObject({ conversationId });
    device.close();
  });

  it('takes what was changed and taken back by its writer, and by nobody else', async () => {
    await open();
    await becomes(isConnected);
    const robin = await far.person('robin');
    wren.do({ to: shop, say: 'Two ferns', id: 'same' });
    await hears('Two ferns');
    robin.do({ to: shop, say: 'Three mosses', id: 'same' });
    await hears('Three mosses');
    robin.do({
      to: shop,
      say: 'Four mosses',
      more: ["<replace xmlns='urn:xmpp:message-correct:0' id='same'/>"],
    });
    await becomes(() => roll('visitor-changed').length === 1);
    expect(roll('visitor-changed')[0]).toMatchObject({ text: 'Four mosses' });
    const ofRobin = roll('visitor-said').find(({ text }) => text === 'Three mosses');
    expect(roll('visitor-changed')[0]?.of).toBe(ofRobin?.seq);
    wren.do({
      raw: `<message to='${shop}' type='chat' id='back'><retract xmlns='urn:xmpp:message-retract:1' id='same'/></message>`,
    });
    await becomes(() => roll('visitor-withdrew').length === 1);
    await robin.leave();
  });

  it('reads what was said while nobody was there, once, and goes on from where it was', async () => {
    await open();
    await becomes(isConnected);
    const setClosed = (isClosed: boolean) =>
      house.ask('PUT', `/api/doors/${doorId}`, { cookie, body: { isClosed } });
    wren.do({ to: shop, say: 'Before' });
    await hears('Before');
    await setClosed(true);
    await becomes(() => !house.services.wires.isHeld(doorId));
    for (let nth = 1; nth <= 120; nth += 1) wren.do({ to: shop, say: `Line ${nth}` });
    wren.do({ to: wren.address, say: 'All is at the server' });
    await wren.waitFor(({ heard }) => heard === 'All is at the server');
    await setClosed(false);
    await hears('Line 120');
    const lines = Array.from({ length: 120 }, (_, nth) => `Line ${nth + 1}`);
    expect(said()).toEqual(['Before', ...lines]);
    await becomes(() => isFailing() === null);
  });

  it('takes nothing of what another account was told before the door had it', async () => {
    await open();
    await becomes(isConnected);
    // What lies unread at their server is news; what somebody has had there is not.
    const before = await far.person(`other${count}`);
    const other = before.address;
    wren.do({ to: other, say: 'Long before' });
    await before.waitFor(({ heard }) => heard === 'Long before');
    await before.leave();
    wren.do({ to: shop, say: 'To the first' });
    await hears('To the first');
    await doors('PUT', `/${doorId}`, { given: { address: other } });
    await becomes(() => house.store.doors.mark(doorId).startsWith(other));
    wren.do({ to: other, say: 'To the second' });
    await hears('To the second');
    expect(said()).not.toContain('Long before');
  });

  it('carries pictures both ways, by the server', async () => {
    await open();
    await becomes(isConnected);
    const bytes = await sharp({
      create: { width: 40, height: 30, channels: 3, background: '#3a7' },
    })
      .png()
      .toBuffer();
    const path = join(far.dir, 'fern.png');
    writeFileSync(path, bytes);
    wren.do({ to: shop, file: path, name: 'fern.png', type: 'image/png', size: bytes.length });
    await becomes(() => roll('file-came').length > 0);
    expect(roll('visitor-said')[0]).toMatchObject({ text: '', coming: ['fern.png'] });
    expect(roll('file-came')[0]?.file).toMatchObject({ name: 'fern.jpg', type: 'image/jpeg' });
    const id = clientId();
    const headers = { 'content-type': 'application/octet-stream', 'x-file-name': 'moss.png' };
    await house.ask('PUT', `/api/files/${id}`, { cookie, body: bytes, headers });
    await answer('', { fileIds: [id] });
    const { link = '' } = await wren.waitFor(({ link: one }) => Boolean(one?.includes('/moss')));
    expect(link).toMatch(/^http:\/\/files\.post\.test:/);
    await becomes(() => steps().includes('arrived'));
  });

  it('takes other words under an id that was used before, and what is read again once', async () => {
    await open();
    await becomes(isConnected);
    wren.do({ to: shop, say: 'Is the bench open?', id: '1' });
    await hears('Is the bench open?');
    wren.do({ to: shop, say: 'And the shed?', id: '1' });
    await hears('And the shed?');
    // After these what the server has kept of both comes once more, and says nothing new.
    for (let nth = 0; nth < 20; nth += 1) wren.do({ to: shop, say: `Line ${nth}`, id: `n${nth}` });
    await hears('Line 19');
    expect(said().slice(0, 3)).toEqual(['Is the bench open?', 'And the shed?', 'Line 0']);
    expect(said()).toHaveLength(22);
    wren.do({
      raw: `<message to='${shop}' type='chat' id='1'><replace xmlns='urn:xmpp:message-correct:0' id='1'/><body>And the barn?</body></message>`,
    });
    await becomes(() => roll('visitor-changed').length === 1);
    const shed = roll('visitor-said').find(({ text }) => text === 'And the shed?');
    expect(roll('visitor-changed')[0]?.of).toBe(shed?.seq);
    // The same words again, on another day: the server calls them otherwise.
    wren.do({ to: shop, say: 'Is the bench open?', id: '1' });
    await becomes(() => said().filter((text) => text === 'Is the bench open?').length === 2);
    // And directly one after the other.
    for (const times of [1, 2]) {
      wren.do({ to: shop, say: 'Hello?', id: '2' });
      await becomes(() => said().filter((text) => text === 'Hello?').length === times);
    }
  });

  it('shows what is encrypted as that, and no words that nobody wrote', async () => {
    await open();
    await becomes(isConnected);
    const raw = (inside: string) =>
      wren.do({ raw: `<message to='${shop}' type='chat' id='${clientId()}'>${inside}</message>` });
    const keys = "<header sid='1'><key rid='2'>aa</key></header>";
    raw(`<encrypted xmlns='eu.siacs.conversations.axolotl'>${keys}</encrypted>`);
    raw(
      `<encrypted xmlns='eu.siacs.conversations.axolotl'>${keys}<payload>bb</payload></encrypted><encryption xmlns='urn:xmpp:eme:0' namespace='eu.siacs.conversations.axolotl' name='OMEMO'/><body>I sent you an encrypted message</body>`,
    );
    raw(
      `<encrypted xmlns='urn:xmpp:omemo:2'>${keys}<payload>bb</payload></encrypted><body>Use another program</body>`,
    );
    raw("<x xmlns='jabber:x:encrypted'>bb</x><body>This message is encrypted.</body>");
    raw('<body>Open words</body>');
    await hears('Open words');
    expect(said()).toEqual([
      '[encrypted] OMEMO',
      '[encrypted] OMEMO',
      '[encrypted] OpenPGP',
      'Open words',
    ]);
  });

  it('leaves files that lie elsewhere as links, and fetches none of them', async () => {
    await open();
    await becomes(isConnected);
    const link = 'http://127.0.0.1:1/metadata.png';
    wren.do({
      to: shop,
      say: link,
      more: [`<x xmlns='jabber:x:oob'><url>${link}</url></x>`],
    });
    await hears(link);
    expect(roll('visitor-said')[0]).toMatchObject({ text: link, files: [] });
  });

  it('believes nobody who says what our own server has kept, or what became of a message', async () => {
    await open();
    await becomes(isConnected);
    wren.do({
      raw: `<message to='${shop}' type='chat'><result xmlns='urn:xmpp:mam:2' queryid='q' id='1'><forwarded xmlns='urn:xmpp:forward:0'><message xmlns='jabber:client' from='robin@post.test' type='chat'><body>I am robin</body></message></forwarded></result></message>`,
    });
    wren.do({
      raw: `<message to='${shop}' type='chat'><stanza-id xmlns='urn:xmpp:sid:0' by='${shop}' id='forged'/><body>Mine</body></message>`,
    });
    await hears('Mine');
    expect(said()).toEqual(['Mine']);
    expect(house.store.doors.mark(doorId)).not.toBe('forged');
    await answer('Yes');
    await wren.waitFor(({ heard }) => heard === 'Yes');
    const seq = roll('team-said')[0]?.seq;
    wren.do({
      raw: `<message to='${shop}' type='chat'><displayed xmlns='urn:xmpp:chat-markers:0' id='deliver ${seq}'/></message>`,
    });
    wren.do({ to: shop, say: 'After' });
    await hears('After');
    expect(steps()).not.toContain('read');
  });

  it('shows whoever asks to see it whether somebody is in', async () => {
    await open();
    await becomes(isConnected);
    wren.do({ watch: shop });
    await wren.waitFor(({ by, presence }) => by === shop && presence === 'available');
    const body = { state: 'dark', until: null };
    expect((await house.ask('PUT', '/api/lamp', { cookie, body })).status).toBe(200);
    await wren.waitFor(({ by, presence }) => by === shop && presence === 'away');
  });

  it('says why it cannot be opened, and what is wrong later on', async () => {
    expect((await open({ password: 'wrong' })).body.problem).toBe('key-refused');
    await becomes(() => isFailing() === 'key-refused');
    const right = { given: { password: 'right' } };
    await doors('PUT', `/${doorId}`, right);
    expect((await check()).body.problem).toBeNull();
    await becomes(() => isFailing() === null && isConnected());
    await doors('PUT', `/${doorId}`, { given: { server: '127.0.0.1:1' } });
    expect((await check()).body.problem).toBe('network-inside');
    expect((await doors('PUT', `/${doorId}`, { given: { server: 'a b' } })).body).toMatchObject({
      code: 'server-not-understood',
      field: 'server',
    });
    expect((await doors('PUT', `/${doorId}`, { given: { address: 'nobody' } })).body.code).toBe(
      'email-not-understood',
    );
  });

  it('comes again by itself once the server is there, and what waited goes out', async () => {
    await open();
    await becomes(isConnected);
    wren.do({ to: shop, say: 'Are you there?' });
    await hears('Are you there?');
    await wren.leave();
    await far.stop();
    await becomes(() => isFailing() === 'network-unreachable');
    await answer('Always');
    await becomes(() => house.store.jobs.isAnyUnder('deliver'));
    await far.start();
    wren = await far.person('wren');
    house.clock.advance(5 * minute);
    await becomes(() => isFailing() === null);
    house.clock.advance(15 * minute);
    await house.tick();
    await wren.waitFor(({ heard }) => heard === 'Always');
    expect(wren.told.filter(({ heard }) => heard === 'Always')).toHaveLength(1);
    expect(isFailing()).toBeNull();
  });

  it('says so where nobody of that name is there any more', async () => {
    await open();
    await becomes(isConnected);
    const robin = await far.person('robin');
    robin.do({ to: shop, say: 'Hello' });
    await hears('Hello');
    await robin.leave();
    far.dropAccount('robin');
    await answer('Good morning');
    await becomes(() => roll('receipt').some(({ why }) => why === 'person-unknown'));
  });

  it('is told of what is no message as what it is, and of nothing that it is not', async () => {
    await open();
    await becomes(isConnected);
    const raw = (inside: string, type = 'chat') =>
      wren.do({
        raw: `<message to='${shop}' type='${type}' id='${clientId()}'>${inside}</message>`,
      });
    raw('<body>To everybody</body>', 'headline');
    raw('<body>In a room</body>', 'groupchat');
    raw('<body/>');
    raw("<active xmlns='http://jabber.org/protocol/chatstates'/>");
    raw(
      "<geoloc xmlns='http://jabber.org/protocol/geoloc'><lat>55.1</lat><lon>-1.6</lon></geoloc>",
    );
    raw("<reactions xmlns='urn:xmpp:reactions:0' id='x'><reaction>🌿</reaction></reactions>");
    raw("<encryption xmlns='urn:xmpp:eme:0' namespace='x' name='Sealed'/>");
    raw("<body>Signed</body><nick xmlns='http://jabber.org/protocol/nick'>Wren Ash</nick>");
    await hears('Signed');
    expect(said()).toEqual(['geo:55.1,-1.6', '[reaction] 🌿', '[encrypted] Sealed', 'Signed']);
  });

  it('says characters that no stream may carry as what can be read, and goes on', async () => {
    await open();
    await becomes(isConnected);
    wren.do({ to: shop, say: 'Hello' });
    await hears('Hello');
    await answer('a\u0001b\ufffec');
    await answer('after');
    await wren.waitFor(({ heard }) => heard === 'after');
    expect(isFailing()).toBeNull();
  });
});
