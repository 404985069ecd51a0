import { createHmac } from 'node:crypto';
import { becomes, type NetworkHouse, openNetworkHouse } from '../../test-kit/network-house';
import { networkOf } from '../../test-kit/networks';
import { openDevice } from '../../test-kit/panel';

const minute = 60_000;
const hour = 60 * minute;

describe('the window of a network', () => {
  let here: NetworkHouse;
  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('pigeonpost'));
    await here.says('a');
  });
  afterEach(() => here.house.close());
  const rings = jest.fn();
  const advance = async (ms: number): Promise<void> => {
    here.house.clock.advance(ms);
    await here.house.tick();
  };

  it('lets answers through until it closes, and again once they have written', async () => {
    here.house.clock.advance(24 * hour - 1);
    expect((await here.answer()).status).toBe(200);
    here.house.clock.advance(1);
    expect((await here.answer()).body.code).toBe('window-closed');
    await here.says('b');
    expect((await here.answer()).status).toBe(200);
  });

  it('counts from when they wrote there, not from when it came here', async () => {
    await here.says('late', 2 * hour);
    // What came late was said before the first one: that counts.
    here.house.clock.advance(24 * hour - 2 * hour);
    expect((await here.answer()).status).toBe(200);
  });

  it('stands in the line before what is due later than it closes', async () => {
    const { services, store } = here.house;
    services.hours.set({
      week: [[], [], [], [], [], [], []],
      holidays: null,
      spells: [],
    });
    await here.says('b');
    const row = store.conversations.byId(here.talk());
    expect(row?.dueAt).toBeLessThanOrEqual(here.house.clock.now() + 24 * hour);
  });

  it('stands after all others in the line once it is closed, and among them again when they write', async () => {
    const { store } = here.house;
    const place = () => store.conversations.byId(here.talk())?.placed?.place ?? 0;
    /** Later than any moment. */
    const afterAll = 1e15;
    const device = await openDevice(here.house, here.cookie);
    await advance(24 * hour - 1);
    expect(place()).toBeLessThan(afterAll);
    await advance(1);
    await becomes(() => place() > afterAll);
    await device.hear('line');
    expect(store.conversations.byId(here.talk())?.dueAt).toBeNull();
    await here.says('c');
    expect(place()).toBeLessThan(afterAll);
  });

  it('stands last among notes too where it closed while the house was off', async () => {
    const { services, store, clock } = here.house;
    await here.answer();
    services.lamp.set({ state: 'dark', until: null });
    await here.says('b');
    const place = () => store.conversations.byId(here.talk())?.placed;
    expect(place()?.group).toBe('note');
    // Nothing is done meanwhile, as by a house that does not run.
    clock.advance(24 * hour);
    expect(place()?.place).toBeLessThan(1e15);
    await services.dueTimes.run();
    expect(place()?.place).toBeGreaterThan(1e15);
  });

  it('rings an hour before it closes while an answer is owed, and not otherwise', async () => {
    jest.spyOn(here.house.services.ringing, 'windowCloses').mockImplementation(rings);
    await advance(23 * hour - minute);
    expect(rings).not.toHaveBeenCalled();
    await advance(minute);
    await becomes(() => rings.mock.calls.length === 1);
    rings.mockClear();
    await here.says('b');
    await here.answer();
    await advance(24 * hour);
    expect(rings).not.toHaveBeenCalled();
  });
});

describe('a network that is asked for what it has', () => {
  let here: NetworkHouse;
  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('wavelet'));
  });
  afterEach(() => here.house.close());

  it('gives it page by page, and what a lost word was about with the next one', async () => {
    const { clock } = here.house;
    for (let nth = 0; nth < 7; nth += 1) {
      // Nobody tells the door: only the network knows.
      networkOf('wavelet').body({ what: 'said', id: `m${nth}`, text: `${nth}` }, clock.now());
    }
    await here.says('last');
    const texts = here.roll('visitor-said').map(({ text }) => text);
    expect(texts).toEqual(['0', '1', '2', '3', '4', '5', '6', 'Words of last']);
  });

  it('is asked again by and by, though it says nothing', async () => {
    await here.says('a');
    const { clock } = here.house;
    networkOf('wavelet').body({ what: 'said', id: 'b', text: 'Alone' }, clock.now());
    here.house.clock.advance(6 * minute);
    await here.house.tick();
    await becomes(() => here.roll('visitor-said').length === 2);
  });

  it('is said to fail while it does, and to be well again', async () => {
    here.far.next.push({ status: 500 });
    await here.handBody('{"page":"quillfern"}');
    await here.house.tick();
    const why = () => here.house.store.doors.health(here.doorId).why;
    await becomes(() => why() === 'network-broken');
    await here.says('a');
    await becomes(() => why() === null);
  });
});

describe('a network whose token expires', () => {
  let here: NetworkHouse;
  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('tintype'));
    await here.says('a');
  });
  afterEach(() => here.house.close());
  const tokens = () => here.far.asked.filter(({ address }) => address.endsWith('/token')).length;

  it('is asked for one when it is needed, and for another once it is over or good no more', async () => {
    await here.answer('1');
    await becomes(() => here.steps().length === 1);
    await here.answer('2');
    await becomes(() => here.steps().length === 2);
    expect(tokens()).toBe(1);
    here.house.clock.advance(571_000);
    await here.answer('3');
    await becomes(() => here.steps().length === 3);
    expect(tokens()).toBe(2);
    here.far.next.push({ status: 401 });
    await here.answer('4');
    await becomes(() => here.steps().length === 4);
    expect(tokens()).toBe(3);
    expect(here.house.store.doors.health(here.doorId).why).toBeNull();
  });
});

describe('a network that asks whether the door is meant', () => {
  it('hears its challenge back where it is sealed by the door’s word, and nothing otherwise', async () => {
    const here = await openNetworkHouse(networkOf('pigeonpost'));
    const greet = (word: string, challenge: string) => {
      const mark = createHmac('sha256', word).update(challenge).digest('hex');
      const query = new URLSearchParams({ challenge, seal: `sha256=${mark}` });
      return here.house.ask('GET', `${here.address}?${query}`);
    };
    expect((await greet(here.word, 'coo-1')).body).toBe('coo-1');
    expect((await greet(here.word, '<b>coo</b>')).body).toBe('bcoob');
    expect((await greet('other', 'coo-1')).status).toBe(401);
    await here.house.close();
  });
});

describe('a bag with something in it that cannot be read', () => {
  it('is taken all the same: what stands beside it is heard', async () => {
    const here = await openNetworkHouse(networkOf('pigeonpost'));
    const letter = { from: '+447700900222', at: here.house.clock.now(), kind: 'text', text: 'Hi' };
    const bag = {
      letters: [{ ...letter, id: 'a' }, { ...letter, id: 7 }, 'x', { ...letter, id: 'b' }],
    };
    expect((await here.handBody(JSON.stringify(bag))).status).toBe(204);
    expect(here.roll('visitor-said')).toHaveLength(2);
    await here.house.close();
  });
});
