import type { House as HouseShown } from '@porch/contract/house';
import type { OtherWays } from '@porch/contract/visitor';
import { type NetworkHouse, openNetworkHouse } from '../../../test-kit/network-house';
import { networkOf } from '../../../test-kit/networks';
import { clientId, visit, visitorToken } from '../../../test-kit/panel';

const minute = 60_000;

describe('a door that the panel offers beside itself', () => {
  let here: NetworkHouse;
  let front: HouseShown['doors'][number];

  const doors = async (): Promise<HouseShown['doors']> =>
    (await here.house.ask('GET', '/api/house', { cookie: here.cookie })).body.doors;
  const offer = (isOffered: boolean) =>
    here.house.ask('PUT', `/api/doors/${here.doorId}`, {
      cookie: here.cookie,
      body: { isOffered },
    });
  const waysOf = async (which: string): Promise<OtherWays> =>
    (
      await here.house.ask('POST', `/door/${front.publicId}/ways`, {
        headers: { authorization: `Bearer ${visitorToken(which)}` },
        body: { language: 'en' },
      })
    ).body;
  const talks = (which: string) => visit(here.house, front.publicId, which);
  const text = (id: string, words: string) => here.hand({ what: 'said', id, text: words });
  const conversations = () => new Set(here.roll('visitor-said').map(({ threadId }) => threadId));
  const standing = (threadId: string | null) =>
    here.house.services.persons.standing(threadId ?? '')?.id;

  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('pigeonpost'));
    const first = (await doors()).find(({ isCarried }) => !isCarried);
    if (!first) throw new Error('there is no website door');
    front = first;
    await offer(true);
  });
  afterEach(() => here.house.close());

  it('is offered where the owner says so, open, and nowhere else', async () => {
    expect(front.isOffered).toBeNull();
    expect((await doors()).find(({ id }) => id === here.doorId)?.isOffered).toBe(true);
    const page = () => here.house.ask('GET', `/talk/${front.publicId}`);
    expect((await page()).body).toContain('"ways":["Far"]');
    await offer(false);
    expect((await page()).body).toContain('"ways":[]');
    expect((await waysOf('wren')).ways).toEqual([]);
  });

  it('leads to the network with a code for whoever has said something, by which it goes on as one', async () => {
    expect(await waysOf('wren')).toMatchObject({ code: null, ways: [{ name: 'Far' }] });
    const panel = await talks('wren');
    await panel.say('Do you have ferns?');
    const { code, ways } = await waysOf('wren');
    expect(ways[0]?.link).toContain(encodeURIComponent(code ?? 'none'));
    // The same one is shown again, so that a link that was opened stays good.
    expect((await waysOf('wren')).code).toBe(code);
    await text('a', `Hello! I was just writing to you (${code?.toLowerCase()}).`);
    expect(conversations().size).toBe(2);
    const [site, far] = here.roll('visitor-said');
    expect(standing(far?.threadId ?? '')).toBe(standing(site?.threadId ?? ''));
    expect(here.roll('joined')).toMatchObject([{ memberId: null, byCode: true }]);
    // They see nothing on the website of what they said elsewhere.
    const again = await visit(here.house, front.publicId, 'wren');
    expect(again.welcome.entries.map((entry) => entry.text)).toEqual(['Do you have ferns?']);
  });

  it('is answered only where it is said that the answer is for whoever came by the code', async () => {
    await (await talks('wren')).say('Do you have ferns?');
    const { code } = await waysOf('wren');
    await text('a', `I am Wren, ${code}`);
    const [site, far] = here.roll('visitor-said');
    const say = (words: string, threadId?: string | null) =>
      here.house.ask('POST', `/api/conversations/${site?.conversationId}/deeds`, {
        cookie: here.cookie,
        body: {
          do: 'say',
          id: clientId(),
          text: words,
          fileIds: [],
          ...(threadId && { threadId }),
        },
      });
    const refused = await say('The key is under the pot');
    expect([refused.status, refused.body.code]).toEqual([409, 'whom-unclear']);
    expect(here.roll('team-said')).toEqual([]);
    expect((await say('Who is it?', far?.threadId)).status).toBe(200);
    // Whoever was answered there is known.
    await text('b', 'Wren Ash');
    expect((await say('Ah, good')).status).toBe(200);
    expect(here.roll('team-said').map(({ threadId }) => threadId)).toEqual([
      far?.threadId,
      far?.threadId,
    ]);
  });

  it('knows nobody by a code that is used, too old, or was never made', async () => {
    await (await talks('wren')).say('Hello');
    const { code } = await waysOf('wren');
    await text('a', `${code}`);
    await (await talks('finch')).say('Me too');
    const late = (await waysOf('finch')).code;
    here.house.clock.advance(31 * minute);
    await text('b', `${late} ${code} ABC-2DE`);
    expect(here.roll('joined')).toHaveLength(1);
  });

  it('looks at few codes of one writer, so that nobody finds one by trying', async () => {
    await (await talks('wren')).say('Hello');
    const { code } = await waysOf('wren');
    for (let nth = 0; nth < 5; nth += 1) await text(`try-${nth}`, 'ABC-2DE FGH-3JK');
    await text('right', `${code}`);
    expect(here.roll('joined')).toHaveLength(0);
  });

  it('gives nobody a code for somebody else’s conversation', async () => {
    await (await talks('wren')).say('Hello');
    expect((await waysOf('finch')).code).toBeNull();
    const nobody = await here.house.ask('POST', `/door/${front.publicId}/ways`, { body: {} });
    expect(nobody.status).toBe(401);
  });
});
