import { type House, openHouse, setUp } from '../../../test-kit/house';
import { clientId, openPanel, visit, visitorToken } from '../../../test-kit/panel';

const hour = 3_600_000;

describe('a visitor who asks to be called back', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };

  beforeEach(async () => {
    house = await openHouse();
    ({ cookie, door } = await setUp(house));
    await offer(true);
  });
  afterEach(() => house.close());

  const offer = async (callBack: boolean): Promise<void> => {
    const path = `/api/doors/${door.id}`;
    const { body } = await house.ask('GET', `${path}/dress`, { cookie });
    const draft = { dress: { ...body.draft, callBack }, revision: body.revision };
    const { revision } = (await house.ask('PUT', `${path}/draft`, { cookie, body: draft })).body;
    await house.ask('POST', `${path}/publish`, { cookie, body: { revision } });
    expect(house.services.dressing.published(door.id).callBack).toBe(callBack);
  };
  const asks = async (callBack: object, text = 'About two ferns', who = 'wren') => {
    const wren = await visit(house, door.publicId, who);
    const id = clientId();
    wren.tell({ do: 'say', id, text, fileIds: [], page: null, callBack: callBack as never });
    const heard = await Promise.race([
      wren.hear('taken', (message) => message.id === id),
      wren.hear('refused', (message) => message.id === id),
    ]);
    return { wren, heard };
  };
  const entries = <Kind extends string>(kind: Kind) =>
    house.store.entries.since(0, 500).filter((entry) => entry.kind === kind);
  const owed = () => house.store.followUps.due(null, 50);

  it('stands in the line, and is owed for the time that they chose', async () => {
    const at = house.clock.now() + 26 * hour;
    const { wren } = await asks({ phone: '07700 900123', at });
    expect(entries('visitor-said')).toMatchObject([
      { text: 'About two ferns', callBack: { phone: '+447700900123', at } },
    ]);
    expect(house.store.conversations.page('waiting', null, 5)).toMatchObject([
      { state: { lastWords: '☎ About two ferns' } },
    ]);
    expect(owed()).toMatchObject([{ why: 'call-back', dueAt: at, remindAt: at, whose: null }]);
    const again = await visit(house, door.publicId, 'wren');
    expect(again.welcome.entries[0]).toMatchObject({ callBack: { phone: '+447700900123', at } });
    wren.close();
    again.close();
  });

  it('is owed soon where they chose no time, and at once where it has passed meanwhile', async () => {
    await asks({ phone: '07700 900123', at: null }, '');
    const [soon] = owed();
    expect(soon?.dueAt).toBeGreaterThan(house.clock.now());
    await asks({ phone: '07700 900124', at: house.clock.now() - hour }, 'Late', 'robin');
    expect(owed().some(({ dueAt }) => dueAt === house.clock.now())).toBe(true);
  });

  it('is not done by an answer in words, and rings when it is due', async () => {
    const at = house.clock.now() + 2 * hour;
    await asks({ phone: '07700 900123', at });
    const talk = entries('visitor-said')[0]?.conversationId;
    const body = { do: 'say', id: clientId(), text: 'We will', fileIds: [] };
    await house.ask('POST', `/api/conversations/${talk}/deeds`, { cookie, body });
    expect(owed()).toHaveLength(1);
    const [{ id: of } = { id: '' }] = owed();
    const done = { do: 'owe-done', id: clientId(), of };
    await house.ask('POST', `/api/conversations/${talk}/deeds`, { cookie, body: done });
    expect(owed()).toEqual([]);
  });

  it.each([
    ['a number that is none', { phone: 'tomorrow', at: null }, 'phone-not-understood'],
    ['no number', { phone: '', at: null }, 'phone-not-understood'],
    ['a time that is none', { phone: '07700 900123', at: 1.5 }, null],
    ['a number of a thousand letters', { phone: '0'.repeat(1_000), at: null }, null],
  ])('is refused with %s, and nothing is kept', async (_what, callBack, code) => {
    if (code === null) {
      const panel = await openPanel(house, door.publicId);
      panel.tell({ do: 'hello', token: visitorToken('wren'), since: 0, last: null, site: '' });
      await panel.hear('welcome');
      const nonsense = { do: 'say', id: clientId(), text: 'Hi', fileIds: [], page: null, callBack };
      panel.tell(nonsense as never);
      await panel.closed();
    } else {
      const { heard } = await asks(callBack);
      expect(heard).toMatchObject({ say: 'refused', refusal: { code } });
    }
    expect(entries('visitor-said')).toEqual([]);
  });

  it('is due no later than anything may be', async () => {
    await asks({ phone: '07700 900123', at: Number.MAX_SAFE_INTEGER });
    expect(owed()[0]?.dueAt).toBeLessThan(house.clock.now() + 3 * 366 * 24 * hour);
  });

  it('is not heard at a door that does not offer it', async () => {
    await offer(false);
    const { heard } = await asks({ phone: '07700 900123', at: null });
    expect(heard).toMatchObject({ say: 'refused', refusal: { code: 'choice-unknown' } });
    expect(owed()).toEqual([]);
  });
});
