import { type House, openHouse, owner, setUp } from '../../test-kit/house';
import { openDevice, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';

const day = 24 * 3_600_000;
const tokenIn = (link: string): string => link.split('#')[1] ?? '';

describe('the team', () => {
  let house: House;
  let cookie: string;
  beforeEach(async () => {
    house = await openHouse();
    ({ cookie } = await setUp(house));
  });
  afterEach(() => house.close());

  const invite = async (role = 'helper') =>
    (await house.ask('POST', '/api/invites', { cookie, body: { role } })).body;
  const join = (token: string, email = 'ines@quillfern.example') =>
    house.ask('POST', '/api/join', {
      body: { token, name: 'Ines Varga', email, password: 'orders on the shelf', device: 'phone' },
    });
  const memberNamed = (name: string) => {
    const member = house.store.members.all().find((one) => one.name === name);
    if (!member) throw new Error(`there is no ${name}`);
    return member;
  };
  const post = (path: string, by = cookie, body: object = {}) =>
    house.ask('POST', path, { cookie: by, body });

  it('takes somebody in by a link, once, within seven days', async () => {
    const { link } = await invite();
    expect(link).toMatch(/^http:\/\/porch\.example\/join#/);
    const seen = await house.ask('POST', '/api/links/look', { body: { token: tokenIn(link) } });
    expect(seen.body).toMatchObject({ kind: 'invite', role: 'helper', business: owner.business });
    expect((await join(tokenIn(link))).body).toMatchObject({ name: 'Ines Varga', role: 'helper' });
    expect((await join(tokenIn(link), 'other@quillfern.example')).body.code).toBe('link-used');
    const late = await invite();
    house.clock.advance(7 * day);
    expect((await join(tokenIn(late.link), 'late@quillfern.example')).body.code).toBe('link-stale');
    expect(house.store.members.all()).toHaveLength(2);
  });

  it('keeps an invitation that met a taken address or a short password', async () => {
    const { link } = await invite();
    expect((await join(tokenIn(link), owner.email)).body.code).toBe('email-taken');
    const short = await house.ask('POST', '/api/join', {
      body: { token: tokenIn(link), name: 'I', email: 'i@quillfern.example', password: 'short' },
    });
    expect(short.body.code).toBe('password-too-short');
    expect((await join(tokenIn(link))).status).toBe(200);
  });

  it('says for whom an invitation is, to owners and to whoever opens it', async () => {
    for (const name of ['Ines ', 'Tobias'])
      await post('/api/invites', cookie, { role: 'helper', name });
    const { link } = (await post('/api/invites', cookie, { role: 'helper', name: 'Ada' })).body;
    const open = (await house.ask('GET', '/api/links', { cookie })).body;
    expect(open.map(({ name }: { name: string }) => name).sort()).toEqual([
      'Ada',
      'Ines',
      'Tobias',
    ]);
    const seen = await house.ask('POST', '/api/links/look', { body: { token: tokenIn(link) } });
    expect(seen.body.name).toBe('Ada');
    // They are called as they say themselves.
    expect((await join(tokenIn(link))).body.name).toBe('Ines Varga');
    const long = { role: 'helper', name: 'x'.repeat(81) };
    expect((await post('/api/invites', cookie, long)).status).toBe(400);
  });

  it('lists open invitations without their secret, and withdraws one', async () => {
    const { link } = await invite();
    const { body } = await house.ask('GET', '/api/links', { cookie });
    expect(body).toHaveLength(1);
    expect(JSON.stringify(body)).not.toContain(tokenIn(link));
    await house.ask('DELETE', `/api/links/${body[0].id}`, { cookie });
    expect((await join(tokenIn(link))).body.code).toBe('link-stale');
  });

  it('lets somebody go: signed out at once, their words and name stay, their address is free', async () => {
    const theirs = await addHelper(house);
    const device = await openDevice(house, theirs);
    const tobias = memberNamed('Tobias Ekwall');
    await post(`/api/members/${tobias.id}/leave`);
    await device.hear('signed-out');
    expect((await house.ask('GET', '/api/line?group=waiting', { cookie: theirs })).status).toBe(
      401,
    );
    expect(memberNamed('Tobias Ekwall')).toMatchObject({ hasLeft: true, email: '' });
    expect((await join(tokenIn((await invite()).link), 'tobias@quillfern.example')).status).toBe(
      200,
    );
  });

  it('never loses its last owner', async () => {
    const maren = memberNamed('Maren Oduya');
    expect((await post('/api/me/leave')).body.code).toBe('last-owner');
    const down = await house.ask('PUT', `/api/members/${maren.id}/role`, {
      cookie,
      body: { role: 'helper' },
    });
    expect(down.body.code).toBe('last-owner');
    await addHelper(house);
    const { id } = memberNamed('Tobias Ekwall');
    await house.ask('PUT', `/api/members/${id}/role`, { cookie, body: { role: 'owner' } });
    expect((await post('/api/me/leave')).status).toBe(204);
    expect((await house.ask('GET', '/api/links', { cookie })).status).toBe(401);
  });

  it('gives somebody who forgot their password a new one by a link, once, and ends their sessions', async () => {
    const theirs = await addHelper(house);
    const { id } = memberNamed('Tobias Ekwall');
    const { link } = (await post(`/api/members/${id}/new-password-link`)).body;
    const use = (password: string) =>
      house.ask('POST', '/api/new-password', { body: { token: tokenIn(link), password } });
    expect((await use('short')).body.code).toBe('password-too-short');
    expect((await use('a brand new password')).status).toBe(200);
    expect((await use('a brand new password')).body.code).toBe('link-used');
    expect((await house.ask('GET', '/api/line?group=waiting', { cookie: theirs })).status).toBe(
      401,
    );
    const signIn = (password: string) =>
      post('/api/sign-in', '', { email: 'tobias@quillfern.example', password });
    expect((await signIn('a long enough password')).status).toBe(401);
    expect((await signIn('a brand new password')).status).toBe(200);
  });

  it('changes a password by the old one, and signs the other devices out', async () => {
    const elsewhere = String((await post('/api/sign-in', '', owner)).headers['set-cookie']).split(
      ';',
    )[0];
    const change = (old: string, fresh: string) =>
      house.ask('PUT', '/api/me/password', { cookie, body: { old, new: fresh } });
    expect((await change('wrong', 'another long password')).body).toMatchObject({
      code: 'password-wrong',
      field: 'old',
    });
    // The old one was right each time: nobody is slowed down for a new one that is too short.
    for (let tries = 0; tries < 4; tries += 1) {
      expect((await change(owner.password, 'short')).body).toMatchObject({
        code: 'password-too-short',
        field: 'new',
      });
    }
    expect((await change(owner.password, 'another long password')).status).toBe(204);
    const line = (by?: string) => house.ask('GET', '/api/line?group=waiting', { cookie: by });
    expect([(await line(cookie)).status, (await line(elsewhere)).status]).toEqual([200, 401]);
  });

  it('shows visitors the public name, or the business alone where its door says so', async () => {
    await house.ask('PUT', '/api/me', {
      cookie,
      body: { name: 'Maren Oduya', publicName: 'Maren' },
    });
    const [door] = house.store.doors.all();
    if (!door) throw new Error('there is no door');
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const answer = (text: string, id: string) =>
      post(`/api/conversations/${conversation?.id}/deeds`, cookie, {
        do: 'say',
        id,
        text,
        fileIds: [],
      });
    const named = async () =>
      (await panel.hear('entries', ({ entries }) => entries[0]?.by === 'team')).entries[0]?.name;
    await answer('One', 'answer-00001');
    expect(await named()).toBe('Maren');
    const { revision, draft } = house.services.dressing.of(door.id);
    const member = memberNamed('Maren Oduya');
    const saved = house.services.dressing.save(
      door.id,
      revision,
      { ...draft, people: 'business' },
      member,
    );
    house.services.dressing.publish(door.id, saved.revision, member);
    await answer('Two', 'answer-00002');
    expect(await named()).toBe(owner.business);
  });
});
