import { DOORS_MOST } from '@porch/contract/doors';
import { type House, openHouse, setUp, site } from '../../test-kit/house';
import { openDevice, openPanel, visitorToken } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';

describe('the doors of a house', () => {
  let house: House;
  let cookie: string;
  let doorId: string;
  beforeEach(async () => {
    house = await openHouse();
    const made = await setUp(house);
    ({ cookie } = made);
    doorId = made.door.id;
  });
  afterEach(() => house.close());

  const change = async (body: object) =>
    (await house.ask('PUT', `/api/doors/${doorId}`, { cookie, body })).body;
  const make = (name: string) =>
    house.ask('POST', '/api/doors', { cookie, body: { name, language: 'en' } });

  it('change by what is said, and keep the rest', async () => {
    expect(await change({ name: '  Front   door ' })).toMatchObject({
      name: 'Front door',
      sites: ['quillfern.example'],
    });
    expect(await change({ name: ' ' })).toMatchObject({ code: 'text-empty', field: 'name' });
    expect(await change({ name: 'x'.repeat(90) })).toMatchObject({ code: 'text-too-long' });
    expect(await change({ sites: ['b\u00fccher.example'] })).toMatchObject({
      name: 'Front door',
      sites: ['xn--bcher-kva.example'],
    });
  });

  it('concern whom the owner says, never nobody, and nobody who is not there', async () => {
    await addHelper(house);
    const helper = house.store.members.all().find(({ role }) => role === 'helper');
    expect(await change({ memberIds: [helper?.id, helper?.id] })).toMatchObject({
      memberIds: [helper?.id],
    });
    expect(await change({ memberIds: ['somebody-else'] })).toMatchObject({
      code: 'choice-unknown',
      field: 'memberIds',
    });
    expect(await change({ memberIds: [] })).toMatchObject({ memberIds: null });
    await change({ memberIds: [helper?.id] });
    house.services.team.leave(helper?.id ?? '');
    expect(house.store.doors.byId(doorId)?.memberIds).toBeNull();
  });

  it('show visitors only the people whom they concern', async () => {
    await addHelper(house);
    const helper = house.store.members.all().find(({ role }) => role === 'helper');
    await change({ memberIds: [helper?.id] });
    const door = house.store.doors.byId(doorId);
    if (!door) throw new Error('there is no door');
    const names = () => house.services.shown.business(door).people.map(({ name }) => name);
    expect(names()).toEqual(['Tobias Ekwall']);
  });

  it('are as many as there is room for, and every device hears of a new one', async () => {
    const device = await openDevice(house, cookie);
    await make('Second');
    await device.hear('house');
    for (let count = 2; count < DOORS_MOST; count += 1) await make(`Door ${count}`);
    expect((await make('One too many')).body).toEqual({
      code: 'too-many-of-these',
      limit: DOORS_MOST,
    });
  });

  it('keep a conversation to themselves: a closed one takes nothing more', async () => {
    const { publicId } = house.store.doors.byId(doorId) ?? { publicId: '' };
    const panel = await openPanel(house, publicId);
    panel.tell({ do: 'hello', token: visitorToken('wren'), since: 0, site });
    await panel.hear('welcome');
    await change({ isClosed: true });
    panel.tell({ do: 'say', id: 'message-0001', text: 'Hello', fileIds: [], page: null });
    expect((await panel.hear('refused')).refusal.code).toBe('door-closed');
    expect(house.store.conversations.counts().waiting).toBe(0);
  });
});
