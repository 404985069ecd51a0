import { type House, openHouse, setUpOnly, site } from '../../test-kit/house';
import { openDevice, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';

describe('the checklist that watches by itself', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const open = async () => {
    const { cookie, door } = await setUpOnly(house);
    const checklist = async () => (await house.ask('GET', '/api/house', { cookie })).body.checklist;
    const seen = (origin: string, page?: string) =>
      page === undefined
        ? house.ask('GET', `/door/${door.publicId}/configuration.js`, { headers: { origin } })
        : Promise.resolve(house.services.sightings.note(door, origin, page));
    return { cookie, door, checklist, seen };
  };

  it('starts with nothing done, and sees each thing happen', async () => {
    const { cookie, door, checklist } = await open();
    expect(await checklist()).toEqual({
      sightings: [],
      phone: false,
      homeScreen: false,
      hours: false,
      rings: false,
      mail: false,
      answered: false,
      dressed: false,
      darkTexts: false,
      team: false,
    });
    const device = await openDevice(house, cookie);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('A test');
    const [conversation] = house.store.conversations.page('note', null, 1);
    await house.ask('POST', `/api/conversations/${conversation?.id}/deeds`, {
      cookie,
      body: { do: 'say', id: 'answer-00001', text: 'It works', fileIds: [] },
    });
    await device.hear('house');
    await house.ask('POST', '/api/ticks', { cookie, body: { tick: 'dark-texts' } });
    await addHelper(house);
    expect(await checklist()).toMatchObject({ answered: true, darkTexts: true, team: true });
  });

  it('knows when and on which page the snippet was seen, and on which website it may not stand', async () => {
    const { checklist, seen } = await open();
    await seen(site);
    await seen(site, '/shop?x=1#y');
    await seen('https://www.elsewhere.example');
    await house.tick();
    const { sightings } = await checklist();
    expect(sightings).toHaveLength(2);
    expect(sightings).toContainEqual(
      expect.objectContaining({
        origin: site,
        site: 'quillfern.example',
        page: '/shop',
        at: house.clock.now(),
        isListed: true,
      }),
    );
    expect(sightings).toContainEqual(
      expect.objectContaining({ site: 'elsewhere.example', page: '', isListed: false }),
    );
    house.clock.advance(59_000);
    await seen(site, '/other');
    await house.tick();
    house.clock.advance(1_000);
    const before = (await checklist()).sightings[0];
    await seen(site, '/again');
    await house.tick();
    const after = (await checklist()).sightings[0];
    expect([before.page, after.page]).toEqual(['/shop', '/again']);
  });

  it('takes few websites that are not on the list, and they push no listed one away', async () => {
    const { door, checklist, seen } = await open();
    await seen(site, '/shop');
    for (let round = 0; round < 5; round += 1) {
      for (let index = 0; index < 30; index += 1) {
        await seen(`https://s${round}-${index}.example`);
      }
      await house.tick();
      house.clock.advance(1_000);
    }
    const kept = house.store.sightings.ofDoor(door.id).map(({ origin }) => origin);
    expect(kept).toHaveLength(11);
    expect(kept).toContain(site);
    expect(
      (await checklist()).sightings.filter((one: { isListed: boolean }) => one.isListed),
    ).toHaveLength(1);
  });

  it('tells a helper no checklist and nobody else\u2019s address', async () => {
    await open();
    const { body } = await house.ask('GET', '/api/house', { cookie: await addHelper(house) });
    expect(body.checklist).toBeNull();
    expect(body.team.map(({ email }: { email: string }) => email).sort()).toEqual([
      '',
      'tobias@quillfern.example',
    ]);
  });

  it('takes the business\u2019s place and address, and says which is wrong', async () => {
    const { cookie } = await open();
    const put = async (body: object) =>
      (await house.ask('PUT', '/api/business', { cookie, body })).body;
    expect((await put({})).country).toBe('GB');
    expect(await put({ country: 'XX' })).toMatchObject({
      code: 'country-unknown',
      field: 'country',
    });
    expect(await put({ address: 'nowhere' })).toMatchObject({ code: 'email-not-understood' });
    expect(await put({ zone: 'Nowhere/At all' })).toMatchObject({ code: 'zone-unknown' });
    expect(await put({ address: ' Hello@Quillfern.EXAMPLE ', walkStep: 'website' })).toMatchObject({
      address: 'Hello@quillfern.example',
      walkStep: 'website',
      name: 'Quillfern Nursery',
    });
  });

  it('closes a door: no plate, no talk, and opens it again', async () => {
    const { cookie, door, seen } = await open();
    const set = (isClosed: boolean) =>
      house.ask('PUT', `/api/doors/${door.id}`, { cookie, body: { isClosed } });
    await set(true);
    expect(((await seen(site)) as { body: { code: string } }).body.code).toBe('door-closed');
    expect(String((await house.ask('GET', `/talk/${door.publicId}`)).body)).toContain(
      '"isClosed":true',
    );
    await set(false);
    expect(((await seen(site)) as { status: number }).status).toBe(200);
  });

  it('makes another door with its own snippet, in the language that was chosen', async () => {
    const { cookie } = await open();
    const { body } = await house.ask('POST', '/api/doors', {
      cookie,
      body: { name: 'Quillfern auf Deutsch', language: 'de' },
    });
    expect(body.snippet).toContain(body.publicId);
    expect(house.services.dressing.published(body.id).fallback).toBe('de');
    const page = String((await house.ask('GET', `/talk/${body.publicId}`)).body);
    expect(page).toContain('<html lang="de" dir="ltr"');
  });
});
