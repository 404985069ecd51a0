import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, until, visit } from '../../test-kit/panel';

describe('whoever may be the same person', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };

  beforeEach(async () => {
    house = await openHouse();
    ({ cookie, door } = await setUp(house));
  });
  afterEach(() => house.close());

  /** Somebody writes, on a device, and says who they are; gives their conversation. */
  const writes = async (
    which: string,
    details: { name?: string; email?: string; phone?: string } = {},
    device?: string,
    at = door.publicId,
  ): Promise<string> => {
    const panel = await visit(house, at, which);
    const id = clientId();
    const said = { do: 'say' as const, id, text: `I am ${which}`, fileIds: [], page: null };
    panel.tell({ ...said, ...(device ? { device } : {}) });
    await panel.hear('taken', (message) => message.id === id);
    const more = clientId();
    panel.tell({ do: 'details', id: more, ...details });
    await panel.hear('taken', (message) => message.id === more);
    panel.close();
    const entry = house.store.entries
      .since(0, 500)
      .find((one) => one.kind === 'visitor-said' && one.text === `I am ${which}`);
    return entry?.conversationId ?? '';
  };
  const alike = async (id: string): Promise<[string, string[]][]> => {
    const { body } = await house.ask('GET', `/api/conversations/${id}/alike`, { cookie });
    return body.alike.map((one: { row: { id: string }; reasons: string[] }) => [
      one.row.id,
      one.reasons,
    ]);
  };
  const notSame = (id: string, other: string, as = cookie) =>
    house.ask('PUT', `/api/conversations/${id}/not-same/${other}`, { cookie: as, body: {} });
  const deed = (id: string, what: object) =>
    house.ask('POST', `/api/conversations/${id}/deeds`, {
      cookie,
      body: { id: clientId(), ...what },
    });

  it('is proposed with the reasons, the likeliest first, and joined by nobody', async () => {
    const device = clientId();
    const wren = await writes('wren', { name: 'Wren Ash', email: 'wren@post.example' }, device);
    const byName = await writes('one', { name: 'WREN  ash' });
    const byMail = await writes('two', { email: 'Wren@Post.example', name: 'Wren' });
    const byDevice = await writes('three', { name: 'Somebody Else' }, device);
    const both = await writes('four', { name: 'Wren Ásh' }, device);
    await writes('five', { name: 'Robin Oak', phone: '07700 900123' }, clientId());
    expect(await alike(wren)).toEqual([
      [both, ['device', 'name']],
      [byMail, ['email']],
      [byDevice, ['device']],
      [byName, ['name']],
    ]);
    expect(house.store.conversations.page('waiting', null, 10)).toHaveLength(6);
  });

  it('is the same from both sides, and by a number in any form', async () => {
    const one = await writes('one', { phone: '07700 900123' });
    const other = await writes('two', { phone: '+44 7700 900123' });
    expect(await alike(one)).toEqual([[other, ['phone']]]);
    expect(await alike(other)).toEqual([[one, ['phone']]]);
  });

  it('is not proposed any more once they took back what they said, or are one', async () => {
    const one = await writes('one', { name: 'Wren Ash' });
    const other = await writes('two', { name: 'Wren Ash' });
    const panel = await visit(house, door.publicId, 'two');
    panel.tell({ do: 'details', id: clientId(), name: '' });
    await until(() => (house.store.likeness.names.alike(one).length === 0 ? true : undefined));
    panel.tell({ do: 'details', id: clientId(), name: 'Wren Ash' });
    await until(() => (house.store.likeness.names.alike(one).length === 1 ? true : undefined));
    panel.close();
    await deed(one, { do: 'join', other });
    expect(await alike(one)).toEqual([]);
  });

  it('is not proposed again where somebody has said that they are two', async () => {
    const one = await writes('one', { name: 'Wren Ash' });
    const other = await writes('two', { name: 'Wren Ash' });
    expect((await notSame(one, other)).status).toBe(204);
    expect((await notSame(one, other)).status).toBe(204);
    expect([await alike(one), await alike(other)]).toEqual([[], []]);
    // Joined and parted again they are asked about no more; joined they were, for a while.
    await deed(one, { do: 'join', other });
    await deed(one, { do: 'part', threadIds: [other] });
    expect(await alike(one)).toEqual([]);
  });

  it('is told to the team and to nobody else', async () => {
    const one = await writes('one', { name: 'Wren Ash' });
    const path = `/api/conversations/${one}`;
    expect((await house.ask('GET', `${path}/alike`, {})).status).toBe(401);
    expect((await notSame(one, one, '')).status).toBe(401);
    expect((await notSame(one, 'nobody-here-1')).status).toBe(404);
    const unknown = '/api/conversations/nobody-here-1/alike';
    expect((await house.ask('GET', unknown, { cookie })).status).toBe(404);
  });

  it('is at most five, however many are called the same', async () => {
    const [first] = await Promise.all(
      Array.from({ length: 8 }, (_, nth) => writes(`nth-${nth}`, { name: 'Wren Ash' })),
    );
    expect(await alike(first ?? '')).toHaveLength(5);
  });
});
