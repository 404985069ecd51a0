import { foldAll } from '@porch/core/conversation';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { openDevice, until, visit } from '../../test-kit/panel';

const minute = 60_000;

describe('the line as time passes', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const open = async () => {
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const id = conversation?.id ?? '';
    const deed = (what: object) =>
      house.ask('POST', `/api/conversations/${id}/deeds`, {
        cookie,
        body: { id: `deed-${Math.random().toString(36).slice(2)}`, ...what },
      });
    const group = () => house.store.conversations.counts();
    return { cookie, door, panel, id, deed, group };
  };

  it('brings back by itself what was put by, and not a moment before', async () => {
    const { deed, group } = await open();
    await deed({ do: 'put-by', until: house.clock.now() + 60 * minute });
    expect(group()).toMatchObject({ waiting: 0, 'put-by': 1 });
    house.clock.advance(60 * minute - 1);
    await house.tick();
    expect(group()).toMatchObject({ 'put-by': 1 });
    house.clock.advance(1);
    await house.tick();
    expect(group()).toMatchObject({ waiting: 1, 'put-by': 0 });
  });

  it('refuses to put by until a time that has passed, or in years to come', async () => {
    const { deed } = await open();
    const past = await deed({ do: 'put-by', until: house.clock.now() });
    expect([past.status, past.body.code]).toEqual([400, 'time-not-ahead']);
    const far = await deed({ do: 'put-by', until: house.clock.now() + 800 * 24 * 60 * minute });
    expect(far.status).toBe(400);
  });

  it('reopens what was wrapped up when the visitor writes again', async () => {
    const { deed, group, panel } = await open();
    await deed({ do: 'wrap-up' });
    expect(group()).toMatchObject({ waiting: 0, 'wrapped-up': 1 });
    await panel.say('One more thing');
    expect(group()).toMatchObject({ waiting: 1, 'wrapped-up': 0 });
  });

  it('takes back what was wrapped up', async () => {
    const { deed, group } = await open();
    await deed({ do: 'wrap-up' });
    await deed({ do: 'take-back' });
    expect(group()).toMatchObject({ waiting: 1, 'wrapped-up': 0 });
  });

  it('gives a visitor who leaves the page the longer patience, after a moment of grace', async () => {
    const { panel, id } = await open();
    const row = () => house.store.conversations.byId(id)?.state;
    expect(row()?.isHere).toBe(true);
    panel.close();
    await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
    house.clock.advance(19_000);
    await house.tick();
    expect(row()?.isHere).toBe(true);
    house.clock.advance(1_000);
    await house.tick();
    expect(row()?.isHere).toBe(false);
  });

  it('keeps a visitor here who goes from page to page', async () => {
    const { panel, id, door } = await open();
    panel.close();
    await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
    house.clock.advance(5_000);
    await visit(house, door.publicId, 'wren');
    house.clock.advance(60_000);
    await house.tick();
    expect(house.store.conversations.byId(id)?.state.isHere).toBe(true);
  });

  it('tells the visitor that their message arrived on a device, and was read', async () => {
    const { cookie, panel, deed } = await open();
    const device = await openDevice(house, cookie);
    const seq = house.store.entries.newestSeq();
    await panel.say('Second');
    const news = await device.hear('entries');
    device.tell({ do: 'has', seq: news.seq });
    const arrived = await panel.hear('reached');
    expect(arrived.reached.hasSeq).toBeGreaterThan(seq);
    await deed({ do: 'read', upTo: news.seq });
    const read = await panel.hear('reached', ({ reached }) => reached.readSeq >= news.seq);
    expect(read.reached.readSeq).toBe(news.seq);
  });

  it('tells either side that the other writes', async () => {
    const { cookie, panel, id } = await open();
    const device = await openDevice(house, cookie);
    panel.tell({ do: 'typing' });
    expect(await device.hear('typing')).toMatchObject({ conversationId: id });
    device.tell({ do: 'typing', conversationId: id });
    expect(await panel.hear('typing')).toMatchObject({ name: 'Maren Oduya' });
  });

  it('keeps in each row exactly the fold of its entries', async () => {
    const { panel, deed, id } = await open();
    await deed({ do: 'say', text: 'Hi', fileIds: [] });
    panel.tell({ do: 'read', upTo: house.store.entries.newestSeq() });
    panel.tell({ do: 'details', id: 'details-0001', name: 'Wren', email: 'wren@post.example' });
    await panel.hear('taken', (message) => message.id === 'details-0001');
    await panel.say('Bye');
    expect(house.store.conversations.byId(id)?.state).toEqual(
      foldAll(house.store.entries.allOf(id)),
    );
  });
});

describe('the porch light', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('is told at once to the panel and to every device, and ends by itself', async () => {
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    const device = await openDevice(house, cookie);
    const until = house.clock.now() + 30 * minute;
    await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'back-soon', until } });
    expect((await panel.hear('lamp')).lamp).toEqual({ state: 'back-soon', until });
    expect((await device.hear('lamp')).lamp).toMatchObject({ state: 'back-soon', until });
    house.clock.set(until);
    await house.tick();
    expect((await panel.hear('lamp')).lamp.state).toBe('lit');
    expect((await device.hear('lamp')).lamp.state).toBe('lit');
  });

  it('makes what is written a note while it is not lit', async () => {
    const { cookie, door } = await setUp(house);
    await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'dark', until: null } });
    await (await visit(house, door.publicId, 'wren')).say('Anybody?');
    expect(house.store.conversations.counts()).toMatchObject({ note: 1, waiting: 0 });
  });

  it('refuses a time that has passed or lies beyond a day', async () => {
    const { cookie } = await setUp(house);
    const set = (until: number) =>
      house.ask('PUT', '/api/lamp', { cookie, body: { state: 'back-soon', until } });
    expect((await set(house.clock.now())).body.code).toBe('time-not-ahead');
    expect((await set(house.clock.now() + 25 * 60 * minute)).status).toBe(400);
  });
});
