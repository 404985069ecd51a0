import { createHmac } from 'node:crypto';
import { type House, openHouse, setUp } from '../../../test-kit/house';
import { clientId, visit } from '../../../test-kit/panel';
import { provedPerson } from './signed';

const key = 'key-of-the-door';
const now = Date.UTC(2026, 10, 12);
const at = { now, country: 'GB' };
const sign = (person: unknown, by = key) => {
  const signed = typeof person === 'string' ? person : JSON.stringify(person);
  return { signed, signature: createHmac('sha256', by).update(signed).digest('hex') };
};

describe('who is signed in on a website', () => {
  // RFC 4231, test case 2: "what do ya want for nothing?" with the key "Jefe", HMAC-SHA-256.
  it('is signed as RFC 4231 has it', () => {
    expect(sign('what do ya want for nothing?', 'Jefe').signature).toBe(
      '5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843',
    );
  });

  it('is what was signed, in the form in which it is kept', () => {
    const person = { id: 42, name: ' Wren\n', email: 'wren@post.example', phone: '07700 900123' };
    expect(provedPerson(key, sign(person), at)).toEqual({
      id: '42',
      name: 'Wren',
      email: 'wren@post.example',
      phone: '+447700900123',
    });
  });

  it.each([
    ['by another key', sign({ email: 'a@b.example' }, 'other')],
    ['and changed', { ...sign({ email: 'a@b.example' }), signed: '{"email":"x@b.example"}' }],
    ['with no signature', { signed: '{}', signature: '' }],
    ['in no JSON', sign('wren')],
    ['as a list', sign(['wren'])],
    ['for a time that is over', sign({ email: 'a@b.example', until: now / 1_000 })],
  ])('is nobody where it is signed %s', (_what, given) => {
    expect(provedPerson(key, given, at)).toBeNull();
  });
});

describe('a visitor whom the website has signed in', () => {
  let house: House;
  let cookie: string;
  let publicId: string;
  let doorId: string;
  let made: string;
  beforeEach(async () => {
    house = await openHouse();
    const set = await setUp(house);
    ({ cookie } = set);
    ({ publicId, id: doorId } = set.door);
    const path = `/api/doors/${doorId}/person-key`;
    expect((await house.ask('GET', path, { cookie })).body.key).toBeNull();
    made = (await house.ask('POST', path, { cookie, body: {} })).body.key;
  });
  afterEach(() => house.close());

  const says = async (which: string, given: object) => {
    const panel = await visit(house, publicId, which);
    await panel.say(`Hello from ${which}`);
    const id = clientId();
    panel.tell({ do: 'details', id, ...given });
    await panel.hear('taken', (message) => message.id === id);
    const thread = house.store.entries
      .since(0, 100)
      .find((entry) => entry.kind === 'visitor-said' && entry.text.endsWith(which))?.threadId;
    return house.services.persons.standing(thread ?? '');
  };

  it('is one person on every device, proved by the signature', async () => {
    const person = { id: 'c-42', name: 'Wren', email: 'wren@post.example' };
    const phone = await says('phone', sign(person, made));
    const desk = await says('desk', sign(person, made));
    expect(phone?.state).toMatchObject({ name: 'Wren', email: 'wren@post.example' });
    expect(desk?.threads).toHaveLength(2);
  });

  it('is the same by their number there alone', async () => {
    await says('phone', sign({ id: 'c-42' }, made));
    expect((await says('desk', sign({ id: 'c-42' }, made)))?.threads).toHaveLength(2);
    expect((await says('other', sign({ id: 'c-43' }, made)))?.threads).toHaveLength(1);
  });

  it('is nobody’s word but their own without a signature, and is joined with nobody', async () => {
    await says('phone', { email: 'wren@post.example' });
    const desk = await says('desk', { email: 'wren@post.example', ...sign({ id: 1 }, 'guessed') });
    expect(desk?.state.email).toBe('wren@post.example');
    expect(desk?.threads).toHaveLength(1);
  });

  it('is proved by the newest key only', async () => {
    const path = `/api/doors/${doorId}/person-key`;
    const next = (await house.ask('POST', path, { cookie, body: {} })).body.key;
    expect(next).not.toBe(made);
    await says('phone', sign({ id: 1 }, made));
    expect((await says('desk', sign({ id: 1 }, made)))?.threads).toHaveLength(1);
  });
});
