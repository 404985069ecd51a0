import { createHmac } from 'node:crypto';
import { becomes, type NetworkHouse, openNetworkHouse } from '../../../test-kit/network-house';
import { networkOf } from '../../../test-kit/networks';

const minute = 60_000;

/** A second of silence (RIFF, WAVE: PCM, mono, 8 kHz, 8 bit). */
const silence = (): Buffer => {
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + 8_000, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(8_000, 24);
  head.writeUInt32LE(8_000, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(8_000, 40);
  return Buffer.concat([head, Buffer.alloc(8_000, 128)]);
};

describe('the phone line', () => {
  let here: NetworkHouse;
  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('phone'));
  });
  afterEach(() => here.house.close());

  const event = (what: object, from = '+447700900123') =>
    JSON.stringify({ call: 'call-1', from, at: here.house.clock.now(), ...what });
  const told = async (body: string) => {
    const answer = await here.handBody(body);
    return { status: answer.status, body: answer.body };
  };
  const set = (given: object) => here.doors('PUT', `/${here.doorId}`, { given });
  const lamp = (state: string) =>
    here.house.ask('PUT', '/api/lamp', { cookie: here.cookie, body: { state, until: null } });
  let texts = { address: '', word: '' };
  const openTexts = async (): Promise<void> => {
    const { kind, given } = networkOf('text');
    const { body } = await here.doors('POST', '', { kind, name: 'Texts', given });
    texts = { address: new URL(body.shows.address).pathname, word: body.shows.word };
    here.far.takesTexts();
  };
  const byText = (fields: Record<string, string>) => {
    const body = new URLSearchParams(fields).toString();
    const headers = networkOf('text').prove(body, texts.word, here.house.clock.now());
    return here.house.ask('POST', texts.address, { body, headers });
  };
  const reported = (status: string) => byText({ event: 'report', id: 'net-1', status });
  const calls = () => here.roll('visitor-said').map(({ call, text }) => ({ call, text }));

  it('makes a conversation of a missed call, once, with the number it came from', async () => {
    for (let nth = 0; nth < 3; nth += 1) await told(event({ event: 'missed' }));
    expect(calls()).toEqual([{ call: { seconds: 0 }, text: '' }]);
    const { phone, lastWords } = here.house.store.conversations.byId(here.talk())?.state ?? {};
    expect([phone, lastWords]).toEqual(['+447700900123', '☎']);
  });

  it('makes one of what was spoken, with its sound and what was written down of it', async () => {
    here.far.files.set('sound', silence());
    const recording = 'https://network.example/api/recordings/sound';
    await told(event({ event: 'spoken', seconds: 12, recording, text: 'Two ferns, please.' }));
    await becomes(() => calls().length === 1);
    expect(calls()).toEqual([{ call: { seconds: 12 }, text: 'Two ferns, please.' }]);
    await becomes(() => here.roll('file-came').length === 1);
    const file = here.roll('file-came')[0]?.file;
    expect(file?.type).toMatch(/^audio\//);
    // It is played where it stands, and nothing in it can run.
    const sound = await here.house.ask('GET', `/api/files/${file?.id}`, { cookie: here.cookie });
    expect(sound.headers).toMatchObject({
      'content-type': file?.type,
      'content-disposition': expect.stringMatching(/^inline/),
      'content-security-policy': expect.stringContaining('sandbox'),
      'x-content-type-options': 'nosniff',
    });
  });

  it('takes a call of somebody who keeps their number to themselves', async () => {
    const words = ['', 'anonymous', 'Private number'];
    for (const [at, from] of words.entries()) {
      await told(event({ event: 'missed', call: `kept-back-${at}` }, from));
    }
    expect(calls()).toHaveLength(words.length);
    const threads = here.roll('visitor-said').map(({ threadId }) => threadId ?? '');
    // Nobody knows that these are one person.
    expect(new Set(threads).size).toBe(words.length);
    expect(threads.flatMap((id) => here.house.store.ways.of(id))).toEqual([]);
  });

  it('tells the exchange what callers hear: those whom it concerns while somebody is in, the message of the day otherwise', async () => {
    await set({ ring: '+44 7700 900555, +447700900556', order: 'in-order', say: 'We are shut.' });
    const plan = await told(event({ event: 'calls' }));
    expect(plan.body).toMatchObject({
      ring: ['+447700900555', '+447700900556'],
      order: 'in-order',
      say: 'We are shut.',
      record: true,
    });
    await lamp('dark');
    expect((await told(event({ event: 'calls' }))).body).toMatchObject({ ring: [] });
    expect(calls()).toHaveLength(0);
  });

  it('refuses numbers that are none, and an order that nobody knows', async () => {
    expect((await set({ ring: '+447700900555, none' })).body.field).toBe('ring');
    expect((await set({ order: 'loudest' })).body.field).toBe('order');
  });

  it('is answered by text where there is a door for that, and says so where there is none', async () => {
    await told(event({ event: 'missed' }));
    expect((await here.answer('We call back')).body.code).toBe('door-mute');
    await openTexts();
    expect((await here.answer('We call back')).status).toBe(200);
    await becomes(() => here.steps().includes('sent'));
    const [sent] = here.far.carried();
    expect(new URLSearchParams(sent?.body).get('to')).toBe('+447700900123');
    // What the gateway tells of it is told of the answer.
    await reported('delivered');
    expect(here.steps()).toEqual(['sent', 'arrived']);
  });

  it('is not answered by text where its number wants no more texts', async () => {
    await told(event({ event: 'missed' }));
    await openTexts();
    await byText({ event: 'text', id: 'stop-1', from: '+447700900123', text: 'STOP', at: '1' });
    await here.answer('We call back', { threadId: here.roll('visitor-said')[0]?.threadId });
    await becomes(() => here.steps().includes('failed'));
    expect(here.roll('receipt').at(-1)?.why).toBe('person-stopped');
    expect(here.far.carried()).toEqual([]);
  });

  it.each([
    ['another word', (body: string) => ({ body, by: 'other' })],
    ['a time long past', (body: string) => ({ body, agoMs: 10 * minute })],
  ])('takes nothing that is proved by %s', async (_what, change) => {
    const {
      body,
      by = here.word,
      agoMs = 0,
    } = change(event({ event: 'missed' })) as {
      body: string;
      by?: string;
      agoMs?: number;
    };
    const seconds = Math.floor((here.house.clock.now() - agoMs) / 1_000);
    const mark = createHmac('sha256', by).update(`${seconds}.${body}`).digest('hex');
    const headers = { 'content-type': 'application/json', 'exchange-proof': `${seconds}.${mark}` };
    const { status } = await here.house.ask('POST', here.address, { body, headers });
    expect(status).toBe(401);
  });
});
