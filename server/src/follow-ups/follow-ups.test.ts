import type { FollowUpsPage } from '@porch/contract/follow-ups';
import { groups, type Happening } from '@porch/core/conversation';
import { type FollowUp, foldFollowUp } from '@porch/core/promises';
import { type House, openHouse, owner, setUp } from '../../test-kit/house';
import { clientId, openDevice, until, visit } from '../../test-kit/panel';
import { openPushService } from '../../test-kit/push-service';
import { addHelper } from '../../test-kit/routes';
import { createRecorder } from '../inbox/record';
import { newConversation } from '../store';
import { oweOldNotes } from './follow-ups';

const minute = 60_000;
const hour = 60 * minute;
const day = [{ from: 540, to: 1_050 }];
const plain = { week: [day, day, day, day, day, [], []], holidays: null, spells: [] };

/** November 2026 in London, on whose 12th, a Thursday, the house's clock stands at 10:00. */
const november = (date: number, atHour: number, minutes = 0): number =>
  Date.UTC(2026, 10, date, atHour, minutes);

describe('follow-ups', () => {
  let house: House;
  let cookie: string;
  let doorId: string;
  let memberId: string;
  beforeEach(async () => {
    house = await openHouse();
    const made = await setUp(house);
    cookie = made.cookie;
    doorId = made.door.publicId;
    memberId = made.member.id;
    await house.ask('PUT', '/api/hours', { cookie, body: { hours: plain } });
  });
  afterEach(() => house.close());

  const goTo = async (at: number): Promise<void> => {
    house.clock.advance(at - house.clock.now());
    await house.tick();
  };
  const list = async (which = ''): Promise<FollowUpsPage> =>
    (await house.ask('GET', `/api/follow-ups${which}`, { cookie })).body;
  const only = async (): Promise<FollowUp> => {
    const { owed } = await list();
    expect(owed).toHaveLength(1);
    return (owed[0] as (typeof owed)[number]).followUp;
  };
  const deed = (id: string, what: object) =>
    house.ask('POST', `/api/conversations/${id}/deeds`, {
      cookie,
      body: { id: clientId(), ...what },
    });
  const talk = (): string =>
    groups.flatMap((group) => house.store.conversations.page(group, null, 5))[0]?.id ?? '';
  const leaveNote = async (which = 'wren') => {
    await goTo(november(12, 22));
    const panel = await visit(house, doorId, which);
    await panel.say('Two bonsai, please');
    return panel;
  };
  const owed = { what: 'Call about the pots', dueAt: november(16, 9), remindAt: null, whose: null };

  it('hold a left note, due a grace after the next opening, once', async () => {
    const panel = await leaveNote();
    await panel.say('And a fern');
    expect(await only()).toMatchObject({
      why: 'note',
      what: '',
      conversationId: talk(),
      dueAt: november(13, 9, 30),
      remindAt: november(13, 9, 30),
      whose: null,
      doneAt: null,
    });
    expect(await list()).toMatchObject({ late: 0, missed: 0, next: null });
    await goTo(november(13, 9, 30));
    expect((await list()).late).toBe(1);
  });

  it('are done by themselves by an answer, by whoever gave it, and are among the done ones', async () => {
    await leaveNote();
    const { id } = await only();
    await goTo(november(13, 9, 10));
    await deed(talk(), { do: 'say', text: 'They are yours', fileIds: [] });
    expect((await list()).owed).toEqual([]);
    const [done] = (await list('/done')).owed;
    expect(done?.followUp).toMatchObject({ id, doneAt: november(13, 9, 10), doneBy: memberId });
  });

  it('are done by wrapping up, and wait for what is put by', async () => {
    await leaveNote();
    await deed(talk(), { do: 'put-by', until: november(20, 9) });
    expect(await only()).toMatchObject({ dueAt: november(20, 9), remindAt: null });
    await deed(talk(), { do: 'wrap-up' });
    expect((await list()).owed).toEqual([]);
  });

  const leaves = async (panel: Awaited<ReturnType<typeof visit>>): Promise<void> => {
    panel.close();
    await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
    house.clock.advance(minute);
    await house.tick();
  };

  it('hold whoever left without an answer and can be reached', async () => {
    const panel = await visit(house, doorId, 'wren');
    await panel.say('Are you there?');
    panel.tell({ do: 'details', id: clientId(), email: 'wren@post.example' });
    await panel.hear('taken');
    await leaves(panel);
    expect(await only()).toMatchObject({ why: 'left', dueAt: house.clock.now() + 30 * minute });
    expect((await list()).missed).toBe(0);
  });

  it('count whoever cannot be reached as missed, unless they come back', async () => {
    const panel = await visit(house, doorId, 'wren');
    await panel.say('Are you there?');
    await leaves(panel);
    expect(await list()).toMatchObject({ owed: [], missed: 1 });
    const again = await visit(house, doorId, 'wren');
    await again.say('Back again');
    expect((await list()).missed).toBe(0);
  });

  it('are made by hand, changed, given, done and undone; an answer leaves them as they are', async () => {
    await (await visit(house, doorId, 'wren')).say('Do you have pots?');
    await addHelper(house);
    const other = house.store.members.all().find(({ role }) => role === 'helper')?.id ?? '';
    const id = clientId();
    await deed(talk(), { do: 'owe', ...owed, id });
    expect(await only()).toMatchObject({ id, why: 'hand', ...owed });
    await deed(talk(), { do: 'say', text: 'I will call', fileIds: [] });
    await deed(talk(), { do: 'owe-otherwise', of: id, ...owed, whose: other });
    expect(await only()).toMatchObject({ whose: other });
    await deed(talk(), { do: 'owe-done', of: id });
    expect((await list()).owed).toEqual([]);
    await deed(talk(), { do: 'owe-again', of: id });
    expect((await only()).doneAt).toBeNull();
  });

  it('are done once, however often it is said', async () => {
    await leaveNote();
    const { id } = await only();
    const said = clientId();
    for (let time = 0; time < 2; time += 1) {
      const { status } = await deed(talk(), { do: 'owe-done', of: id, id: said });
      expect(status).toBe(200);
    }
    const done = house.store.entries.allOf(talk()).filter(({ kind }) => kind === 'owed-done');
    expect(done).toHaveLength(1);
  });

  it.each([
    ['of another conversation', { do: 'owe-done', of: 'nobody-has-this' }, 'not-found'],
    ['of nobody of the team', { do: 'owe', ...owed, whose: 'nobody-has-this' }, 'not-found'],
    ['in a hundred years', { do: 'owe', ...owed, dueAt: Date.UTC(2126, 0, 1) }, 'bad-request'],
    ['of endless words', { do: 'owe', ...owed, what: 'x'.repeat(201) }, 'bad-request'],
  ])('are refused %s', async (_what, body, code) => {
    await (await visit(house, doorId, 'wren')).say('Hello');
    expect((await deed(talk(), body)).body.code).toBe(code);
    expect((await list()).owed).toEqual([]);
  });

  it('come a page at a time, the first due first, and the done ones the last done first', async () => {
    await (await visit(house, doorId, 'wren')).say('Hello');
    const ids: string[] = [];
    for (let nth = 0; nth < 60; nth += 1) {
      const id = clientId();
      ids.unshift(id);
      await deed(talk(), { do: 'owe', ...owed, id, dueAt: november(30, 9) - nth * minute });
    }
    const first = await list();
    const rest = await list(`?after=${first.next}`);
    const shown = [...first.owed, ...rest.owed].map(({ followUp }) => followUp.id);
    expect([shown, rest.next]).toEqual([ids, null]);
    for (const of of ids) await deed(talk(), { do: 'owe-done', of });
    const done = await list('/done');
    const doneRest = await list(`/done?after=${done.next}`);
    const all = [...done.owed, ...doneRest.owed].map(({ followUp }) => followUp.id);
    expect(new Set(all)).toEqual(new Set(ids));
    expect((await house.ask('GET', '/api/follow-ups?after=x', { cookie })).status).toBe(400);
  });

  it('ring when their time has come, unless they are done by then', async () => {
    const push = await openPushService();
    await house.close();
    house = await openHouse({ pushNear: [push.origin] });
    const made = await setUp(house);
    cookie = made.cookie;
    await push.addDevice(house, cookie, 'phone-of-maren');
    await (await visit(house, made.door.publicId, 'wren')).say('Hello');
    await deed(talk(), { do: 'read', upTo: house.store.conversations.byId(talk())?.state.saidSeq });
    const heard = () =>
      push.loadsOf('phone-of-maren').filter((load) => load.say === 'ring' && load.cause === 'owed');
    const atRest = () => until(() => (house.store.jobs.isAnyUnder('push ') ? undefined : true));
    const at = house.clock.now() + hour;
    const [kept, done] = [clientId(), clientId()];
    await deed(talk(), { do: 'owe', ...owed, id: kept, dueAt: at, remindAt: at });
    await deed(talk(), { do: 'owe', ...owed, id: done, dueAt: at, remindAt: at });
    await deed(talk(), { do: 'owe-done', of: done });
    await goTo(at - 1);
    await atRest();
    expect(heard()).toEqual([]);
    await goTo(at);
    await goTo(at + 1_000);
    await until(() => (heard().length > 0 ? true : undefined));
    await atRest();
    expect(heard()).toMatchObject([{ words: 'Call about the pots' }]);
    await push.close();
  });

  it('are what the rolls say, folded anew', async () => {
    await leaveNote();
    const id = clientId();
    await deed(talk(), { do: 'owe', ...owed, id });
    await deed(talk(), { do: 'owe-otherwise', of: id, ...owed, what: 'Write' });
    await deed(talk(), { do: 'owe-done', of: (await list()).owed[0]?.followUp.id });
    const entries = house.store.entries.allOf(talk());
    const made = entries.filter(({ kind }) => kind === 'owed');
    expect(made).toHaveLength(2);
    for (const one of made) {
      const anew = entries
        .slice(entries.indexOf(one))
        .reduce<FollowUp | null>(
          (known, entry) =>
            entry.kind === 'owed' && entry.id !== one.id ? known : foldFollowUp(known, entry),
          null,
        );
      expect(house.store.followUps.byId(one.id)).toEqual(anew);
    }
  });

  it('are told live, and stand where their conversation does after it was put together', async () => {
    await leaveNote('wren');
    const from = talk();
    const panel = await visit(house, doorId, 'robin');
    await panel.say('It is me again');
    const others = groups.flatMap((group) => house.store.conversations.page(group, null, 5));
    const into = others.find(({ id }) => id !== from)?.id ?? '';
    const device = await openDevice(house, cookie);
    await deed(into, { do: 'join', other: from });
    const { owed: both } = await list();
    expect(new Set(both.map(({ row }) => row.id))).toEqual(new Set([into]));
    await deed(into, { do: 'say', text: 'Here', fileIds: [] });
    expect((await list()).owed).toEqual([]);
    await device.hear('entries', ({ entries }) => entries.some(({ kind }) => kind === 'owed-done'));
  });

  it('hold the notes that were left before there was such a list, once', async () => {
    const { store, clock } = house;
    const door = store.doors.all()[0]?.id ?? '';
    const id = 'left-before-0001';
    store.atOnce(() => {
      const note = store.conversations.write(newConversation(id, door));
      store.threads.add({ id, doorId: door, address: 'long-ago', conversationId: id }, clock.now());
      const said: Happening = {
        kind: 'visitor-said',
        text: 'Hello',
        files: [],
        note: true,
        page: null,
      };
      createRecorder({ store, clock }).add(note, id, [{ id: clientId(), happening: said }]);
    });
    expect((await list()).owed).toEqual([]);
    oweOldNotes(house.services);
    const { id: of } = await only();
    await deed(id, { do: 'owe-done', of });
    oweOldNotes(house.services);
    expect((await list()).owed).toEqual([]);
  });

  describe('as a calendar', () => {
    const asks = (who: string, password: string) =>
      house.ask('POST', '/api/me/feed', { cookie: who, body: { password } });
    const make = async (who = cookie): Promise<string> => {
      return new URL((await asks(who, owner.password)).body.address).pathname;
    };

    it('are made by nobody who does not know the password, and end where sessions do', async () => {
      expect((await asks(cookie, 'not the password')).body).toMatchObject({
        code: 'password-wrong',
        field: 'password',
      });
      expect((await house.ask('POST', '/api/me/feed', { cookie, body: {} })).status).toBe(400);
      const first = await make();
      const body = { old: owner.password, new: 'another fern by the window' };
      const changed = await house.ask('PUT', '/api/me/password', { cookie, body });
      expect(changed.status).toBeLessThan(300);
      expect((await house.ask('GET', first)).status).toBe(404);
    });

    it('end with signing out everywhere', async () => {
      const first = await make();
      expect((await house.ask('GET', first)).status).toBe(200);
      const ended = await house.ask('POST', '/api/sign-out', {
        cookie,
        body: { everywhere: true },
      });
      expect(ended.status).toBeLessThan(300);
      expect((await house.ask('GET', first)).status).toBe(404);
    });

    it('are read by their secret address, one’s own and nobody’s, until it is renewed', async () => {
      const helper = await addHelper(house);
      const other = house.store.members.all().find(({ role }) => role === 'helper')?.id ?? '';
      await (await visit(house, doorId, 'wren')).say('Hello');
      await deed(talk(), { do: 'owe', ...owed, what: 'Anybody' });
      await deed(talk(), { do: 'owe', ...owed, what: 'Tobias only', whose: other });
      const [mine, theirs] = [await make(), await make(helper)];
      const read = async (path: string) => (await house.ask('GET', path)).body;
      expect(await read(mine)).toContain('Anybody');
      expect(await read(mine)).not.toContain('Tobias only');
      expect(await read(theirs)).toContain('Tobias only');
      const renewed = await make();
      expect((await house.ask('GET', mine)).status).toBe(404);
      expect((await house.ask('GET', renewed)).headers['content-type']).toContain('text/calendar');
      expect((await house.ask('GET', '/api/me/feed', { cookie })).body.madeAt).not.toBeNull();
      await house.ask('DELETE', '/api/me/feed', { cookie });
      expect((await house.ask('GET', renewed)).status).toBe(404);
    });

    it('are read by nobody who has left, nor by whoever guesses', async () => {
      const helper = await addHelper(house);
      const theirs = await make(helper);
      await house.ask('POST', '/api/me/leave', { cookie: helper, body: {} });
      expect((await house.ask('GET', theirs)).status).toBe(404);
      expect((await house.ask('GET', `/feeds/${'x'.repeat(43)}.ics`)).status).toBe(404);
      expect((await house.ask('GET', '/feeds/.ics')).status).toBe(404);
    });
  });
});
