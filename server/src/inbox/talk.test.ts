import { type House, openHouse, setUp } from '../../test-kit/house';
import { openDevice, visit } from '../../test-kit/panel';

describe('a visitor and the owner talk', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('brings a message to the owner and the answer back', async () => {
    const { cookie, door } = await setUp(house);
    const device = await openDevice(house, cookie);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Is the big monstera still there?');
    const news = await device.hear('entries');
    const row = news.rows[0];
    expect(row?.group).toBe('waiting');
    expect(row?.state.lastWords).toBe('Is the big monstera still there?');
    const answer = await house.ask('POST', `/api/conversations/${row?.id}/deeds`, {
      cookie,
      body: { do: 'say', id: 'answer-0001', text: 'It is.', fileIds: [] },
    });
    expect(answer.status).toBe(200);
    expect(answer.body.row.group).toBe('answered');
    const heard = await panel.hear('entries', ({ entries }) => entries[0]?.by === 'team');
    expect(heard.entries[0]).toMatchObject({ text: 'It is.', name: 'Maren Oduya' });
  });
});
