import { plainPromises } from '@porch/core/promises';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, openDevice, visit } from '../../test-kit/panel';

const minute = 60_000;
const hour = 60 * minute;
const day = [{ from: 540, to: 1_050 }];
const plain = { week: [day, day, day, day, day, [], []], holidays: null, spells: [] };

/** November 2026 in London, on whose 12th, a Thursday, the house's clock stands at 10:00. */
const november = (date: number, atHour: number, minutes = 0): number =>
  Date.UTC(2026, 10, date, atHour, minutes);

describe('what is promised', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const goTo = async (at: number): Promise<void> => {
    house.clock.advance(at - house.clock.now());
    await house.tick();
  };
  const waiting = () => house.store.conversations.page('waiting', null, 10);
  const rowOf = async (cookie: string, group: string) =>
    (await house.ask('GET', `/api/line?group=${group}`, { cookie })).body.rows[0];
  const say = (cookie: string, id: string) =>
    house.ask('POST', `/api/conversations/${id}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text: 'Here', fileIds: [] },
    });
  const keepHours = (cookie: string, hours: unknown = plain) =>
    house.ask('PUT', '/api/hours', { cookie, body: { hours } });
  const promise = (cookie: string, part: object) =>
    house.ask('PUT', '/api/promises', { cookie, body: { ...plainPromises, ...part } });

  it('counts a visitor’s patience in open time, over the night', async () => {
    const { door, cookie } = await setUp(house);
    await keepHours(cookie);
    await goTo(november(12, 17, 29));
    await (await visit(house, door.publicId, 'wren')).say('Still there?');
    expect((await rowOf(cookie, 'waiting')).dueAt).toBe(november(13, 9, 1));
  });

  it('gives a note until a grace after the next opening, which the owner sets', async () => {
    const { door, cookie } = await setUp(house);
    await keepHours(cookie);
    await goTo(november(12, 22));
    await (await visit(house, door.publicId, 'wren')).say('For tomorrow');
    expect((await rowOf(cookie, 'note')).dueAt).toBe(november(13, 9, 30));
    await promise(cookie, { graceMinutes: 120 });
    expect((await rowOf(cookie, 'note')).dueAt).toBe(november(13, 11));
  });

  it('puts whoever waits elsewhere in the line when the hours become others, and says so', async () => {
    const { door, cookie } = await setUp(house);
    await keepHours(cookie);
    await goTo(november(12, 17, 25));
    await (await visit(house, door.publicId, 'wren')).say('First');
    const device = await openDevice(house, cookie);
    const [before] = waiting();
    expect(before?.placed?.place).toBe(november(12, 17, 27));
    await keepHours(cookie, {
      ...plain,
      week: [day, day, day, [{ from: 540, to: 1_046 }], day, [], []],
    });
    await device.hear('line');
    await house.services.dueTimes.run();
    expect(waiting()[0]?.placed?.place).toBe(november(13, 9, 1));
    expect((await rowOf(cookie, 'waiting')).place).toBe(november(13, 9, 1));
  });

  it('tells visitors how long an answer usually takes, from ten first answers on', async () => {
    const { door, cookie } = await setUp(house);
    const answerOne = async (nth: number): Promise<void> => {
      await (await visit(house, door.publicId, `wren-${nth}`)).say('How much?');
      const [one] = waiting();
      house.clock.advance(4 * minute);
      await say(cookie, one?.id ?? '');
    };
    for (let nth = 0; nth < 9; nth += 1) await answerOne(nth);
    house.clock.advance(minute);
    expect((await visit(house, door.publicId, 'early')).welcome.usual).toBeNull();
    await answerOne(9);
    house.clock.advance(minute);
    const shown = await house.ask('GET', '/api/promises', { cookie });
    expect(shown.body).toEqual({ promises: plainPromises, usualMinutes: 5, answers: 10 });
    expect((await visit(house, door.publicId, 'late')).welcome.usual).toBe(5);
    await promise(cookie, { showsUsual: false });
    expect((await visit(house, door.publicId, 'later')).welcome.usual).toBeNull();
    // After a month they tell nothing any more, and are let go.
    house.clock.advance(31 * 24 * hour);
    house.services.promises.tidy();
    expect(house.services.promises.shown()).toMatchObject({ usualMinutes: null, answers: 0 });
    expect(house.store.answerTimes.since(0)).toEqual([]);
  });

  it('tells nobody of five minutes while others wait for hours', async () => {
    const { door, cookie } = await setUp(house);
    for (let nth = 0; nth < 10; nth += 1)
      house.store.answerTimes.add(door.id, house.clock.now(), 0);
    for (const nth of [1, 2, 3]) await (await visit(house, door.publicId, `wren-${nth}`)).say('?');
    house.clock.advance(61_000);
    expect((await visit(house, door.publicId, 'soon')).welcome.usual).toBe(2);
    house.clock.advance(3 * hour);
    expect((await visit(house, door.publicId, 'late')).welcome.usual).toBe(240);
    expect(house.services.promises.shown()).toMatchObject({ usualMinutes: 1 });
    for (const { id } of waiting()) await say(cookie, id);
    house.clock.advance(61_000);
    expect((await visit(house, door.publicId, 'then')).welcome.usual).toBe(1);
  });

  it('counts open time only in how long an answer took', async () => {
    const { door, cookie } = await setUp(house);
    await keepHours(cookie);
    await goTo(november(12, 17, 28));
    await (await visit(house, door.publicId, 'wren')).say('Late');
    await goTo(november(13, 9, 3));
    await say(cookie, waiting()[0]?.id ?? '');
    expect(house.store.answerTimes.since(0)).toEqual([5 * minute]);
  });

  it.each([
    ['no grace', { graceMinutes: 0 }],
    ['a grace of a week', { graceMinutes: 7 * 24 * 60 }],
    ['a way that there is not', { whenLate: 'panic' }],
  ])('refuses %s', async (_what, part) => {
    const { cookie } = await setUp(house);
    expect((await promise(cookie, part)).status).toBe(400);
    expect((await house.ask('GET', '/api/promises', { cookie })).body.promises).toEqual(
      plainPromises,
    );
  });

  describe('when somebody’s patience is over and nobody has looked', () => {
    const waitTooLong = async () => {
      const set = await setUp(house);
      const panel = await visit(house, set.door.publicId, 'wren');
      await panel.say('Hello?');
      const [late] = waiting();
      house.clock.advance(2 * minute - 1);
      await house.tick();
      return { ...set, panel, id: late?.id ?? '' };
    };
    const asked = () => house.services.lamp.forTeam().ask;

    it('the team is asked once, and not again after it was answered', async () => {
      const { cookie, id } = await waitTooLong();
      expect(asked()).toBeNull();
      house.clock.advance(1);
      await house.tick();
      expect(asked()).toMatchObject({ conversationId: id });
      await house.ask('DELETE', '/api/lamp/ask', { cookie });
      house.clock.advance(10 * minute);
      await house.tick();
      expect(asked()).toBeNull();
      expect(house.services.lamp.forTeam().state).toBe('lit');
    });

    it('nobody is asked any more once somebody looks', async () => {
      const { cookie, id } = await waitTooLong();
      house.clock.advance(1);
      await house.tick();
      await house.ask('POST', `/api/conversations/${id}/deeds`, {
        cookie,
        body: { do: 'read', id: clientId(), upTo: waiting()[0]?.state.saidSeq },
      });
      house.clock.advance(1_000);
      await house.tick();
      expect(asked()).toBeNull();
    });

    it('nobody is asked where somebody has it in sight', async () => {
      const { cookie, id } = await waitTooLong();
      const device = await openDevice(house, cookie);
      device.tell({ do: 'sees', conversationId: id });
      device.tell({ do: 'pulse' });
      await device.hear('pulse');
      house.clock.advance(1);
      await house.tick();
      expect(asked()).toBeNull();
    });

    it('the light turns by itself where that is chosen, once, and the roll says so', async () => {
      const { cookie, id, panel } = await waitTooLong();
      await promise(cookie, { whenLate: 'itself' });
      house.clock.advance(1);
      await house.tick();
      const until = house.clock.now() + 30 * minute;
      const isSoon = ({ lamp }: { lamp: { state: string } }) => lamp.state === 'back-soon';
      expect((await panel.hear('lamp', isSoon)).lamp).toEqual({ state: 'back-soon', until });
      const roll = await house.ask('GET', `/api/conversations/${id}`, { cookie });
      expect(roll.body.entries.at(-1)).toMatchObject({ kind: 'turned-soon', until });
      house.clock.advance(31 * minute);
      await house.tick();
      await house.tick();
      expect(house.services.lamp.forTeam()).toMatchObject({ state: 'lit' });
    });

    it('nothing happens where that is chosen, nor outside the hours', async () => {
      const { cookie } = await waitTooLong();
      await promise(cookie, { whenLate: 'nothing' });
      house.clock.advance(hour);
      await house.tick();
      expect(asked()).toBeNull();
      await promise(cookie, { whenLate: 'ask' });
      const never = { ...plain, week: [[], [], [], [], [], [], []] };
      await keepHours(cookie, never);
      await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'lit', until: null } });
      await house.tick();
      expect(asked()).toBeNull();
    });
  });
});
