import { type House, openHouse, setUp } from '../../test-kit/house';
import { firstWords, secondWords } from './two-words';

describe('signing a phone in by a code on a screen', () => {
  let house: House;
  let cookie: string;
  beforeEach(async () => {
    house = await openHouse();
    ({ cookie } = await setUp(house));
  });
  afterEach(() => house.close());

  const make = async () => {
    const { body } = await house.ask('POST', '/api/pairings', { cookie, body: {} });
    const look = async () => (await house.ask('GET', `/api/pairings/${body.id}`, { cookie })).body;
    const answer = (isSame: boolean) =>
      house.ask('POST', `/api/pairings/${body.id}/answer`, { cookie, body: { isSame } });
    return { ...body, secret: String(body.link).split('#')[1], look, answer };
  };
  const claim = (token: string) => house.ask('POST', '/api/pairings/claim', { body: { token } });
  const collect = (token: string) =>
    house.ask('POST', '/api/pairings/collect', { body: { token } });

  it('signs in only after both screens showed the same two words', async () => {
    const code = await make();
    expect(code.picture).toMatch(/^data:image\/png/);
    const phone = (await claim(code.secret)).body;
    expect(phone.words.split(' ')).toHaveLength(2);
    expect((await code.look()).words).toBe(phone.words);
    const waiting = await collect(phone.ticket);
    expect([waiting.body.state, waiting.headers['set-cookie']]).toEqual(['asking', undefined]);
    await code.answer(true);
    const done = await collect(phone.ticket);
    expect(done.body.state).toBe('done');
    const theirs = String(done.headers['set-cookie']).split(';')[0];
    expect((await house.ask('GET', '/api/house', { cookie: theirs })).body).toMatchObject({
      me: { name: 'Maren Oduya' },
      checklist: { phone: true },
    });
    expect((await collect(phone.ticket)).body.code).toBe('link-stale');
  });

  it('works once, for two minutes, and not when the words differ', async () => {
    const used = await make();
    const { ticket } = (await claim(used.secret)).body;
    expect((await claim(used.secret)).body.code).toBe('link-used');
    await used.answer(false);
    expect((await collect(ticket)).body.state).toBe('refused');
    const late = await make();
    house.clock.advance(2 * 60_000);
    expect((await claim(late.secret)).body.code).toBe('link-stale');
    expect((await late.look()).state).toBe('stale');
    const slow = await make();
    const phone = (await claim(slow.secret)).body;
    house.clock.advance(2 * 60_000);
    expect((await slow.answer(true)).body.code).toBe('link-stale');
    expect((await collect(phone.ticket)).body.state).toBe('stale');
  });

  it('has words that nobody mixes up: each once', () => {
    for (const words of [firstWords, secondWords]) {
      expect(new Set(words).size).toBe(40);
    }
  });
});
