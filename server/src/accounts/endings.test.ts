import { type House, openHouse, owner, setUp } from '../../test-kit/house';
import { openDevice, openTeamSocket, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';

const tokenIn = (link: string): string => link.split('#')[1] ?? '';

describe('what ends where sessions end', () => {
  let house: House;
  let cookie: string;
  beforeEach(async () => {
    house = await openHouse();
    ({ cookie } = await setUp(house));
  });
  afterEach(() => house.close());

  const post = (path: string, by = cookie, body: object = {}) =>
    house.ask('POST', path, { cookie: by, body });
  const cookieOf = (response: { headers: Record<string, unknown> }): string =>
    String(response.headers['set-cookie']).split(';')[0] ?? '';
  const signIn = async (password = owner.password) =>
    cookieOf(await post('/api/sign-in', '', { email: owner.email, password }));
  const changePassword = (by = cookie) =>
    house.ask('PUT', '/api/me/password', {
      cookie: by,
      body: { old: owner.password, new: 'another long password' },
    });
  const memberNamed = (name: string) => {
    const member = house.store.members.all().find((one) => one.name === name);
    if (!member) throw new Error(`there is no ${name}`);
    return member;
  };
  const setRole = (id: string, role: string) =>
    house.ask('PUT', `/api/members/${id}/role`, { cookie, body: { role } });
  const join = (token: string) =>
    house.ask('POST', '/api/join', {
      body: { token, name: 'New', email: 'new@quillfern.example', password: 'a long password' },
    });

  describe('sockets', () => {
    it.each([
      ['signing out everywhere', () => post('/api/sign-out', cookie, { everywhere: true })],
      ['signing out here', () => post('/api/sign-out', cookie, { everywhere: false })],
    ])('that have never said a word are closed by %s', async (_way, end) => {
      const silent = await openTeamSocket(house, cookie);
      const talking = await openDevice(house, cookie);
      const ends = Promise.all([silent.closed(), talking.closed()]);
      await end();
      await silent.hear('signed-out');
      expect(await ends).toEqual([4401, 4401]);
    });

    it('of somebody who is let go are closed, whether they have said hello or not', async () => {
      const theirs = await addHelper(house);
      const silent = await openTeamSocket(house, theirs);
      const ends = silent.closed();
      await post(`/api/members/${memberNamed('Tobias Ekwall').id}/leave`);
      expect(await ends).toBe(4401);
    });

    it('are told nothing on a hello that comes after the session has ended', async () => {
      const silent = await openTeamSocket(house, cookie);
      // The row is gone without anybody having been told, as where another process ends it.
      house.store.sessions.endAllOf(memberNamed(owner.name).id);
      const ends = silent.closed();
      silent.tell({ do: 'hello', since: 0 });
      expect(await ends).toBe(4401);
      expect(silent.heard.map(({ say }) => say)).toEqual(['signed-out']);
    });

    it('are told nothing of what happens before their hello', async () => {
      const [door] = house.store.doors.all();
      const silent = await openTeamSocket(house, cookie);
      const listening = await openDevice(house, cookie);
      await (await visit(house, door?.publicId ?? '', 'wren')).say('A secret');
      await listening.hear('entries');
      expect(silent.heard).toEqual([]);
    });

    it('on another device are closed by a changed password, and this one stays', async () => {
      const elsewhere = await openDevice(house, await signIn());
      const here = await openDevice(house, cookie);
      const ends = elsewhere.closed();
      expect((await changePassword()).status).toBe(204);
      expect(await ends).toBe(4401);
      here.tell({ do: 'pulse' });
      await here.hear('pulse');
    });
  });

  describe('a phone’s code', () => {
    const confirmed = async (by = cookie) => {
      const { body: made } = await post('/api/pairings', by);
      const { body: claim } = await post('/api/pairings/claim', '', { token: tokenIn(made.link) });
      await post(`/api/pairings/${made.id}/answer`, by, { isSame: true });
      return { made, collect: () => post('/api/pairings/collect', '', { token: claim.ticket }) };
    };

    it('that was confirmed gives a session while nothing has ended', async () => {
      const { collect } = await confirmed();
      const response = await collect();
      expect(response.body).toEqual({ state: 'done' });
      expect(cookieOf(response)).toMatch(/^porch=/);
    });

    it.each([
      ['signing out everywhere', () => post('/api/sign-out', cookie, { everywhere: true })],
      [
        'signing out on the screen that shows it',
        () => post('/api/sign-out', cookie, { everywhere: false }),
      ],
      ['a changed password', () => changePassword()],
    ])('gives none after %s', async (_way, end) => {
      const { collect } = await confirmed();
      await end();
      const response = await collect();
      expect(response.headers['set-cookie']).toBeUndefined();
      expect(response.body.state).toBe('stale');
    });

    it('that nobody has opened yet cannot be opened any more', async () => {
      const { body: made } = await post('/api/pairings');
      await changePassword();
      const claim = await post('/api/pairings/claim', '', { token: tokenIn(made.link) });
      expect(claim.body.code).toBe('link-stale');
    });

    it('of another screen stays where only this one is signed out', async () => {
      const { collect } = await confirmed(await signIn());
      await post('/api/sign-out', cookie, { everywhere: false });
      expect((await collect()).body.state).toBe('done');
    });
  });

  describe('a link', () => {
    const secondOwner = async () => {
      const theirs = await addHelper(house);
      const { id } = memberNamed('Tobias Ekwall');
      await setRole(id, 'owner');
      return { theirs, id };
    };
    const invite = async (by: string, role = 'owner') =>
      tokenIn((await post('/api/invites', by, { role })).body.link);

    it.each([
      ['has been let go', (id: string) => post(`/api/members/${id}/leave`)],
      ['is an owner no more', (id: string) => setRole(id, 'helper')],
      ['was signed out everywhere', (id: string) => post(`/api/members/${id}/sign-out`)],
    ])('dies with whoever made it, once they: %s', async (_what, end) => {
      const { theirs, id } = await secondOwner();
      const token = await invite(theirs);
      const mine = await invite(cookie, 'helper');
      await end(id);
      expect((await join(token)).body.code).toBe('link-stale');
      expect((await post('/api/links/look', '', { token })).body.code).toBe('link-stale');
      expect((await join(mine)).status).toBe(200);
    });

    it('is asked whether whoever made it may still make one, however that right has ended', async () => {
      const { theirs, id } = await secondOwner();
      const token = await invite(theirs);
      expect((await post('/api/links/look', '', { token })).status).toBe(200);
      // As where the right ends by another way than ours, which drops the link as well.
      house.store.members.setRole(id, 'helper');
      expect((await post('/api/links/look', '', { token })).body.code).toBe('link-stale');
      expect((await join(token)).body.code).toBe('link-stale');
      expect((await house.ask('GET', '/api/links', { cookie })).body).toEqual([]);
    });

    it('dies while somebody is on their way through it', async () => {
      const { theirs, id } = await secondOwner();
      const token = await invite(theirs);
      // The password is still being hashed when the right ends.
      const joining = join(token);
      await setRole(id, 'helper');
      expect((await joining).status).not.toBe(200);
    });

    it('to a new password for somebody who has left lets nobody in', async () => {
      await addHelper(house);
      const { id } = memberNamed('Tobias Ekwall');
      const { link } = (await post(`/api/members/${id}/new-password-link`)).body;
      await post(`/api/members/${id}/leave`);
      const use = await post('/api/new-password', '', {
        token: tokenIn(link),
        password: 'long enough it is',
      });
      expect(use.body.code).toBe('link-stale');
    });

    it('that is used ends the others of that person, and so does a changed password', async () => {
      await addHelper(house);
      const { id } = memberNamed('Tobias Ekwall');
      const make = async () =>
        tokenIn((await post(`/api/members/${id}/new-password-link`)).body.link);
      const [first, second] = [await make(), await make()];
      const use = (token: string) =>
        post('/api/new-password', '', { token, password: 'a brand new password' });
      const used = await use(first);
      expect(used.status).toBe(200);
      expect((await use(second)).body.code).toBe('link-stale');
      const third = await make();
      await house.ask('PUT', '/api/me/password', {
        cookie: cookieOf(used),
        body: { old: 'a brand new password', new: 'and yet another one' },
      });
      expect((await use(third)).body.code).toBe('link-stale');
    });

    it('for oneself is made by password only', async () => {
      const me = memberNamed(owner.name);
      const make = (body: object) => post(`/api/members/${me.id}/new-password-link`, cookie, body);
      expect((await make({})).body).toMatchObject({ code: 'password-wrong', field: 'password' });
      expect((await make({ password: 'wrong' })).body.code).toBe('password-wrong');
      expect((await make({ password: owner.password })).body.link).toContain('/new-password#');
    });

    it('is listed whatever it is for, with who made it, and can be withdrawn', async () => {
      const { theirs } = await secondOwner();
      const me = memberNamed(owner.name);
      const made = await post(`/api/members/${me.id}/new-password-link`, theirs, {});
      const { body } = await house.ask('GET', '/api/links', { cookie });
      expect(body).toEqual([
        expect.objectContaining({
          kind: 'new-password',
          name: owner.name,
          madeBy: 'Tobias Ekwall',
        }),
      ]);
      await house.ask('DELETE', `/api/links/${body[0].id}`, { cookie });
      const use = await post('/api/new-password', '', {
        token: tokenIn(made.body.link),
        password: 'a brand new password',
      });
      expect(use.body.code).toBe('link-stale');
    });

    it('that the command on the server made lets an owner in, however many are open', async () => {
      const me = memberNamed(owner.name);
      const invite = () => post('/api/invites', cookie, { role: 'helper' });
      for (let made = 0; made < 20; made += 1) expect((await invite()).status).toBe(200);
      expect((await invite()).body.code).toBe('too-many-of-these');
      const { link } = house.services.team.newPasswordLinkFromServer(me.id, 'http://porch.example');
      const use = await post('/api/new-password', '', {
        token: tokenIn(link),
        password: 'a brand new password',
      });
      expect(use.status).toBe(200);
    });
  });
});
