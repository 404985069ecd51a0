import { type Greeting, newGreeting } from '@porch/core/greetings';
import { dressingOf, openTrial } from '../../test-kit/dresses';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, visit, write } from '../../test-kit/panel';

const site = 'https://quillfern.example';
const hour = 3_600_000;

const greeting = (change: Partial<Greeting> = {}): Greeting => ({
  ...newGreeting('greeting-0001', 'en'),
  text: 'Morning. Which fern are you after?',
  pages: ['/ferns/*'],
  afterSeconds: 8,
  ...change,
});

describe('a greeting at a door', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };
  let owner: string;

  beforeEach(async () => {
    house = await openHouse();
    const made = await setUp(house);
    ({ cookie, door } = made);
    owner = made.member.id;
  });
  afterEach(() => house.close());

  const at = (what: string): string => `/api/doors/${door.id}/${what}`;
  const dressing = () => dressingOf(house, cookie, door.id);
  const save = (greetings: Greeting[]) => dressing().save((dress) => ({ ...dress, greetings }));
  const publish = (greetings: Greeting[], more: object = {}): Promise<void> =>
    dressing().publish((dress) => ({ ...dress, greetings, ...more }));
  const asked = async (path: string, headers: object = {}) => {
    const response = await house.ask('GET', `/door/${door.publicId}/${path}`, {
      headers: { origin: site, ...headers },
    });
    return response.body;
  };
  const configuration = async (language = 'en') => {
    const body = await asked(`configuration.js?language=${language}`);
    return JSON.parse(String(body).slice('export default '.length, -2));
  };
  const seen = (id: string, origin = site) =>
    house.ask('POST', `/door/${door.publicId}/greeted/${id}`, { headers: { origin } });
  const counts = async () =>
    (await house.ask('GET', at('greetings/counts'), { cookie })).body.counts;
  const said = () =>
    house.store.entries
      .since(0, 500)
      .flatMap((entry) => (entry.kind === 'door-sign' && entry.greeting ? [entry] : []));
  const wren = async (who = 'wren') => {
    const panel = await visit(house, door.publicId, who);
    return {
      ...panel,
      says: async (text: string, greeted?: string, isTrial?: boolean) => {
        const id = clientId();
        panel.tell({ do: 'say', id, text, fileIds: [], page: null, greeted, isTrial });
        await panel.hear('taken', (told) => told.id === id);
      },
    };
  };

  it('comes with the door’s configuration in its language while it is on, and with nothing else', async () => {
    expect(await configuration()).toMatchObject({ acts: false, greetings: [] });
    await publish([
      greeting({ memberId: owner }),
      greeting({ id: 'greeting-off-1', isOn: false }),
      greeting({ id: 'greeting-de-01', language: 'de' }),
    ]);
    const { acts, greetings } = await configuration();
    expect(acts).toBe(true);
    expect(greetings).toEqual([
      {
        id: 'greeting-0001',
        text: 'Morning. Which fern are you after?',
        name: 'Maren Oduya',
        face: null,
        pages: ['/ferns/*'],
        afterSeconds: 8,
        visits: { least: 1, most: null },
        cameFrom: [],
        whileNotLit: false,
      },
    ]);
    expect((await configuration('de')).greetings).toMatchObject([{ id: 'greeting-de-01' }]);
  });

  it('is said in the business’s name where that stands before its people', async () => {
    await publish([greeting({ memberId: owner })], { people: 'business' });
    expect((await configuration()).greetings).toMatchObject([{ name: 'Quillfern Nursery' }]);
  });

  it('is said while nobody is in only where a note is taken then', async () => {
    const said = async (whenNotLit: string) => {
      await publish([greeting({ whileNotLit: true })], { whenNotLit });
      return (await configuration()).greetings[0].whileNotLit;
    };
    expect([await said('note'), await said('hours')]).toEqual([true, false]);
  });

  it('stands on the roll before what they answer, in the house’s own words, once a visit', async () => {
    await publish([greeting({ memberId: owner })]);
    const panel = await wren();
    await panel.says('A Boston fern', 'greeting-0001');
    const { entries } = await panel.hear('entries', ({ entries: some }) => some.length > 1);
    expect(entries).toMatchObject([
      {
        by: 'door',
        text: 'Morning. Which fern are you after?',
        name: 'Maren Oduya',
        greeting: 'greeting-0001',
      },
      { by: 'visitor', text: 'A Boston fern' },
    ]);
    await panel.says('Or two', 'greeting-0001');
    expect(said()).toHaveLength(1);
    expect(await counts()).toEqual([{ greetingId: 'greeting-0001', seen: 0, answered: 1 }]);
    house.clock.advance(13 * hour);
    await panel.says('Here again', 'greeting-0001');
    expect(said()).toHaveLength(2);
    // Whoever was greeted and wrote waits for an answer.
    const [row] = house.store.conversations.page('waiting', null, 1);
    expect(row?.state).toMatchObject({ lastWords: 'Here again' });
  });

  it('is answered by a card that is tapped, too', async () => {
    const card = {
      id: 'card-ferns-0001',
      language: 'en',
      question: 'Do you post ferns?',
      answer: 'We do.',
      link: '',
      pictureIds: [],
      leads: { to: 'end' },
    };
    const asked = { cards: [card], first: [{ id: card.id, states: ['lit'] }] };
    await publish([greeting()], { asked });
    await write(house, door.publicId, 'wren', [
      { do: 'tap', id: clientId(), card: card.id, page: null, greeted: 'greeting-0001' },
    ]);
    expect(said()).toHaveLength(1);
    expect(await counts()).toMatchObject([{ answered: 1 }]);
  });

  it('is nothing where nobody says it here: the message is taken without it', async () => {
    await publish([greeting()]);
    const panel = await wren();
    await panel.says('Hello', 'greeting-of-mine');
    expect(said()).toEqual([]);
    expect(house.store.conversations.page('waiting', null, 2)).toHaveLength(1);
    expect(await counts()).toEqual([]);
  });

  it('is counted where a listed website says that it was seen, and kept', async () => {
    await publish([greeting(), greeting({ id: 'greeting-off-1', isOn: false })]);
    expect((await seen('greeting-0001')).status).toBe(204);
    await seen('greeting-0001');
    await seen('greeting-off-1');
    await seen('greeting-nobody');
    expect((await seen('greeting-0001', 'https://elsewhere.example')).status).toBe(403);
    expect((await seen('greeting-0001', '')).status).toBe(403);
    const both = [{ greetingId: 'greeting-0001', seen: 2, answered: 0 }];
    expect(await counts()).toEqual(both);
    await house.tick();
    expect(house.store.greetings.counts(door.id)).toEqual(both);
    await house.tick();
    expect(await counts()).toEqual(both);
    await seen('greeting-0001');
    expect(await counts()).toMatchObject([{ seen: 3 }]);
  });

  it('is not counted on and on by one address', async () => {
    await publish([greeting()]);
    const statuses: number[] = [];
    for (let time = 0; time < 100; time += 1) statuses.push((await seen('greeting-0001')).status);
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThan(0);
    expect((await counts())[0].seen).toBeLessThan(100);
  });

  it('that is said after a first message is counted too: how often, and how often they wrote on', async () => {
    await publish([], { hello: { isOn: true, days: [], from: 0, to: 0 } });
    const panel = await wren();
    await panel.says('Do you have ferns?');
    expect(await counts()).toEqual([{ greetingId: 'first-hello', seen: 1, answered: 0 }]);
    await panel.says('Two of them');
    await panel.says('And a pot');
    const other = await wren('robin');
    await other.says('Hello');
    const [talk] = house.store.conversations.page('waiting', null, 2);
    await house.ask('POST', `/api/conversations/${talk?.id}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text: 'We do', fileIds: [] },
    });
    await panel.says('Lovely');
    await openTrial(house, cookie, door, site);
    const trying = await wren('maren');
    await trying.says('Trying', undefined, true);
    await trying.says('And on', undefined, true);
    expect(await counts()).toEqual([{ greetingId: 'first-hello', seen: 2, answered: 1 }]);
  });

  it('is no news to the team where somebody has seen it', async () => {
    await publish([greeting()]);
    await house.tick();
    const told = house.services.hub.houseMark();
    await seen('greeting-0001');
    await house.tick();
    expect(house.store.greetings.counts(door.id)).toMatchObject([{ seen: 1 }]);
    expect(house.services.hub.houseMark()).toBe(told);
  });

  it('is tried alone, on or off and whatever its rules but its pages; what is said then is not counted', async () => {
    const strict = { isOn: false, visits: { least: 5, most: 9 }, cameFrom: ['map.example'] };
    await save([greeting(strict), greeting({ id: 'greeting-0002' })]);
    const trial = async (greetingId?: string) => {
      const body = greetingId ? { greeting: greetingId } : {};
      const { token } = (await house.ask('POST', at('trial'), { cookie, body })).body;
      const authorization = `Bearer ${token}`;
      const told = await asked('trial?language=en', { authorization });
      return told.configuration.greetings.map(({ id }: { id: string }) => id);
    };
    expect(await trial('greeting-0001')).toEqual(['greeting-0001']);
    expect(await trial('greeting-gone')).toEqual([]);
    expect(await trial()).toEqual(['greeting-0002']);
    const panel = await wren();
    await panel.says('Trying', 'greeting-0001', true);
    expect(said()).toMatchObject([{ isTried: true }]);
    expect(await counts()).toEqual([]);
    expect((await configuration()).greetings).toEqual([]);
  });

  it.each([
    ['says nothing', { text: ' ' }, 'text-empty', 'text'],
    ['says too much', { text: 'x'.repeat(201) }, 'text-too-long', 'text'],
    ['is for no page', { pages: ['a b'] }, 'pattern-not-understood', 'pages'],
    ['comes from no website', { cameFrom: ['map'] }, 'host-not-understood', 'cameFrom'],
    ['never comes', { afterSeconds: 601 }, 'number-out-of-range', 'afterSeconds'],
    ['is for no visit', { visits: { least: 2, most: 1 } }, 'number-out-of-range', 'visits'],
  ])('is not saved where it %s', async (_how, change, code, part) => {
    const { status, body } = await save([greeting(change)]);
    expect([status, body.code, body.field]).toEqual([400, code, `greetings.greeting-0001.${part}`]);
  });
});
