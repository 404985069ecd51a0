import { type Group, isForVisitor, isOnTheRoll, THREADS_MOST } from '@porch/core/conversation';
import Database from 'better-sqlite3';
import fc from 'fast-check';
import { openHouse, setUp, site } from '../../test-kit/house';
import { clientId, visit, visitorToken } from '../../test-kit/panel';
import { systemClock } from '../clock';
import { hashSecret } from '../security/tokens';
import { type ConversationRecord, createStore, openDatabase, toRow } from '../store';
import { createRecorder } from './record';
import { createRowsBehind } from './rows-behind';

const minute = 60_000;

/** A house with a second door, and what visitors and the owner do in it, without a socket. */
const open = async () => {
  const db = openDatabase(':memory:');
  const house = await openHouse({}, ':memory:', { db });
  const { cookie, member, door } = await setUp(house);
  const second = { ...door, id: 'second-door-1', publicId: 'second-door-public', name: 'Bench' };
  house.store.doors.add(second, house.clock.now());
  house.store.dresses.publish(second.id, house.services.dressing.published(door.id), 0);
  const { visiting, reply, persons, record } = house.services;
  const visitorOf = (index: number) => ({
    doorId: index % 2 ? second.id : door.id,
    tokenHash: hashSecret(visitorToken(`visitor-${index}-`)),
  });
  const threadOf = (index: number): string => visiting.stateOf(visitorOf(index))?.threadId ?? '';
  const say = (index: number, id = clientId(), text = id): Promise<string> =>
    visiting.message(visitorOf(index), { id, text, fileIds: [], page: null }, true);
  const deed = async (conversationId: string, what: object, id = clientId()) => {
    house.clock.advance(1_000);
    const path = `/api/conversations/${conversationId}/deeds`;
    return house.ask('POST', path, { cookie, body: { id, ...what } });
  };
  const groupOf = (id: string): Group | undefined => persons.rowOf(id)?.group;
  /** Everybody who has said something, by the conversations that they stand in. */
  const standing = () => {
    const all = [...house.store.conversations.batchAfter('')];
    return all.filter(({ threads }) => threads.length > 0);
  };
  const seenBy = (index: number): string[] => {
    const state = visiting.stateOf(visitorOf(index));
    return state
      ? house.services.website.before(state, Number.MAX_SAFE_INTEGER).entries.map(({ id }) => id)
      : [];
  };
  return {
    house,
    db,
    cookie,
    member,
    door,
    second,
    reply,
    persons,
    record,
    visitorOf,
    threadOf,
    say,
    deed,
    groupOf,
    standing,
    seenBy,
  };
};

type Open = Awaited<ReturnType<typeof open>>;

interface Written {
  seq: number;
  conversation: string;
  thread: string | null;
  kind: string;
  body: string;
}

/** Which entries of the whole concern each thread: told anew from what was written, one entry after the other. */
const concernsOf = (written: readonly Written[]): Map<string, number[]> => {
  const standsIn = new Map<string, string>();
  const concerns = new Map<string, number[]>();
  for (const { seq, conversation, thread, kind, body } of written) {
    if (thread !== null) {
      if (!standsIn.has(thread)) standsIn.set(thread, thread);
      continue;
    }
    const { threadIds = [], other = '', side } = JSON.parse(body);
    const to = kind === 'joined' || side === 'goes' ? conversation : other;
    for (const moved of threadIds as string[]) standsIn.set(moved, to);
    for (const [one, where] of standsIn) {
      if (where === conversation) concerns.set(one, [...(concerns.get(one) ?? []), seq]);
    }
  }
  return concerns;
};

/** A start finds everything as it is, also where the run before it was killed just now: before it had brought its rows up to date. */
const proveAfterKill = ({ db, standing }: Open): void => {
  const store = createStore(new Database(db.serialize()));
  const record = createRecorder({ store, clock: systemClock });
  createRowsBehind({ store, record, report: () => undefined }).find();
  const found = store.conversations.batchAfter('').filter(({ threads }) => threads.length > 0);
  const whole = ({ id, threads, fold, placed }: ConversationRecord) => ({
    id,
    threads,
    fold,
    placed,
  });
  expect(found.map(whole)).toEqual(standing().map(whole));
  store.close();
};

/** What is kept is what the entries come to, and every entry stands where it belongs. */
const prove = (it: Open): void => {
  proveAfterKill(it);
  const { house, db, record, persons, standing } = it;
  const all = standing();
  for (const conversation of all) {
    for (const thread of conversation.threads) {
      expect(record.foldAnew(thread.threadId, thread.doorId)).toEqual(thread);
    }
  }
  const threadIds = all.flatMap(({ threads }) => threads.map(({ threadId }) => threadId));
  expect(new Set(threadIds).size).toBe(threadIds.length);

  const rolls = all.map((one) =>
    house.store.entries.rollBefore(persons.scopeOf(one), Number.MAX_SAFE_INTEGER, 5_000),
  );
  const ofThreads = rolls.flat().filter(({ threadId }) => threadId !== null);
  const written = house.store.entries
    .since(0, 5_000)
    .filter(({ kind, threadId }) => isOnTheRoll(kind) && threadId !== null);
  const seqs = (entries: readonly { seq: number }[]) =>
    entries.map(({ seq }) => seq).sort((a, b) => a - b);
  expect(seqs(ofThreads)).toEqual(seqs(written));
  for (const roll of rolls) expect(seqs(roll)).toEqual(roll.map(({ seq }) => seq));
  const concerns = concernsOf(
    db
      .prepare<[], Written>(
        `SELECT seq, conversation_id AS conversation, thread_id AS thread, kind, body
         FROM entries ORDER BY seq`,
      )
      .all(),
  );
  for (const [index, { threads }] of all.entries()) {
    const ofWhole = (rolls[index] ?? []).filter(({ threadId }) => threadId === null);
    const expected = threads
      .flatMap(({ threadId }) => concerns.get(threadId) ?? [])
      .filter((seq) => isOnTheRoll(house.store.entries.bySeq(seq)?.kind ?? 'here'));
    expect(seqs(ofWhole)).toEqual([...new Set(expected)].sort((a, b) => a - b));
  }

  const inLine = all.map(toRow);
  const counts = house.store.conversations.counts();
  for (const group of Object.keys(counts) as Group[]) {
    const there = house.store.conversations.page(group, null, 100).map(({ id }) => id);
    const expected = inLine
      .filter((row) => row.group === group)
      .sort((a, b) => a.place - b.place || (a.id < b.id ? -1 : 1));
    expect([group, there]).toEqual([group, expected.map(({ id }) => id)]);
    expect(counts[group]).toBe(there.length);
  }
};

type Step =
  | { do: 'say'; who: number }
  | { do: 'answer' | 'wrap-up' | 'take-back' | 'read' | 'put-by' | 'part'; who: number }
  | { do: 'join'; who: number; with: number }
  | { do: 'settle'; most: number }
  | { do: 'wait' };

const who = fc.nat(4);
const anyStep: fc.Arbitrary<Step> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('say' as const), who }) },
  {
    weight: 5,
    arbitrary: fc.record({
      do: fc.constantFrom('answer', 'wrap-up', 'take-back', 'read', 'put-by' as const),
      who,
    }) as fc.Arbitrary<Step>,
  },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('join' as const), who, with: who }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('part' as const), who }) },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('settle' as const),
      most: fc.integer({ min: 1, max: 5 }),
    }),
  },
  { weight: 1, arbitrary: fc.constant<Step>({ do: 'wait' }) },
);

describe('conversations put together and parted', () => {
  it('are, whatever happened, what their entries come to; each entry once; and no visitor sees another', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyStep, { minLength: 10, maxLength: 40 }), async (steps) => {
        const it = await open();
        const expected = Array.from({ length: 5 }, (): string[] => []);
        const answeredTo = (threadId: string): number =>
          expected.findIndex((_seen, index) => it.threadOf(index) === threadId);
        const play = async (step: Step): Promise<void> => {
          it.house.clock.advance(minute);
          if (step.do === 'wait') {
            it.house.clock.advance(30 * minute);
            await it.house.tick();
            return;
          }
          if (step.do === 'settle') {
            it.house.store.atOnce(() => it.house.store.conversations.settle(step.most));
            proveAfterKill(it);
            return;
          }
          if (step.do === 'say') {
            const id = clientId();
            await it.say(step.who, id);
            expected[step.who]?.push(id);
            return;
          }
          const thread = it.threadOf(step.who);
          if (!thread) return;
          const until = it.house.clock.now() + 20 * minute;
          const deeds = {
            answer: { do: 'say', text: 'Yes', fileIds: [] },
            'wrap-up': { do: 'wrap-up' },
            'take-back': { do: 'take-back' },
            read: { do: 'read', upTo: 1e9 },
            'put-by': { do: 'put-by', until },
            join: { do: 'join', other: 'with' in step ? it.threadOf(step.with) || thread : '' },
            part: { do: 'part', threadIds: [thread] },
          };
          const { body } = await it.deed(thread, deeds[step.do]);
          for (const entry of body.entries ?? []) {
            if (entry.kind === 'team-said') expected[answeredTo(entry.threadId)]?.push(entry.id);
          }
        };
        for (const step of steps) await play(step);
        prove(it);
        for (const [index, seen] of expected.entries()) expect(it.seenBy(index)).toEqual(seen);
        await it.house.close();
      }),
      { numRuns: 40 },
    );
    // Forty houses: on a busy machine more than a test usually has.
  }, 180_000);

  it('stand in the line once, and go on from whoever of them is owed an answer', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(b, { do: 'wrap-up' });
    const { body } = await it.deed(b, { do: 'join', other: a });
    expect(body.row).toMatchObject({ id: b, group: 'waiting' });
    expect(it.house.store.conversations.counts()).toMatchObject({ waiting: 1, 'wrapped-up': 0 });
    expect(body.row.threads.map(({ doorId }: { doorId: string }) => doorId).sort()).toEqual(
      [it.door.id, it.second.id].sort(),
    );
    // Whoever asks for either finds the one that there is now.
    for (const id of [a, b]) {
      const roll = await it.house.ask('GET', `/api/conversations/${id}`, { cookie: it.cookie });
      expect(roll.body.row.id).toBe(b);
      expect(roll.body.entries.map(({ kind }: { kind: string }) => kind)).toEqual([
        'visitor-said',
        'visitor-said',
        'wrapped-up',
        'joined',
      ]);
    }
    prove(it);
    await it.house.close();
  });

  it('are answered together while they stand together, and owe what they owed when they are parted', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(a, { do: 'join', other: b });
    const { body } = await it.deed(a, { do: 'say', text: 'Yes', fileIds: [], threadId: a });
    expect(body.row).toMatchObject({ group: 'answered', state: { unread: [] } });
    await it.deed(a, { do: 'part', threadIds: [b] });
    expect([it.groupOf(a), it.groupOf(b)]).toEqual(['answered', 'waiting']);
    await it.deed(a, { do: 'join', other: b });
    expect(it.groupOf(a)).toBe('answered');
    // What is said after the answer is owed from then on, not from before it.
    it.house.clock.advance(7 * minute);
    await it.say(1);
    expect(it.persons.rowOf(a)?.state.waitingSince).toBe(it.house.clock.now());
    prove(it);
    await it.house.close();
  });

  it.each<[string, (it: Open, id: string) => Promise<unknown>, Group, Group]>([
    [
      'a hundred more entries',
      async (it) => {
        for (let index = 0; index < 100; index += 1) await it.say(index % 2);
      },
      'waiting',
      'waiting',
    ],
    ['a wrap-up', (it, id) => it.deed(id, { do: 'wrap-up' }), 'wrapped-up', 'wrapped-up'],
    [
      'a put-by that has come due',
      async (it, id) => {
        await it.deed(id, { do: 'put-by', until: it.house.clock.now() + 5 * minute });
        it.house.clock.advance(6 * minute);
        await it.house.tick();
      },
      'waiting',
      'waiting',
    ],
  ])('are parted again after %s, with nothing lost', async (_name, happens, ofA, ofB) => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(a, { do: 'join', other: b });
    await happens(it, a);
    const { body } = await it.deed(a, { do: 'part', threadIds: [b] });
    expect(body.rows).toHaveLength(1);
    expect([it.groupOf(a), it.groupOf(b)]).toEqual([ofA, ofB]);
    prove(it);
    await it.house.close();
  });

  it('stay with whom the conversation began: where that one is parted, the others go', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(a, { do: 'join', other: b });
    const part = { do: 'part', threadIds: [a, a] };
    await it.deed(a, part, 'part-deed-0001');
    // Said once more, because its acknowledgement was lost.
    const again = await it.deed(a, part, 'part-deed-0001');
    expect(again.body.entries).toMatchObject([{ kind: 'parted', threadIds: [b] }]);
    expect((await it.deed(a, { do: 'wrap-up' }, 'part-deed-0001')).body.code).toBe('id-taken');
    expect(it.standing().map(({ id, threads }) => [id, threads.length])).toEqual(
      [a, b].sort().map((id) => [id, 1]),
    );
    prove(it);
    await it.house.close();
  });

  it('are put together once, whoever else does it at the same moment, and once when it is said twice', async () => {
    const it = await open();
    for (const index of [0, 1, 2]) await it.say(index);
    const [a, b, c] = [it.threadOf(0), it.threadOf(1), it.threadOf(2)];
    const outcomes = await Promise.all([
      it.deed(a, { do: 'join', other: b }, 'join-deed-0001'),
      it.deed(c, { do: 'join', other: b }, 'join-deed-0002'),
    ]);
    expect(outcomes.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(outcomes.find(({ status }) => status === 409)?.body.code).toBe('moved-meanwhile');
    const again = await it.deed(a, { do: 'join', other: b }, 'join-deed-0001');
    expect(again.body.entries).toMatchObject([{ kind: 'joined', from: b }]);
    const other = await it.deed(a, { do: 'join', other: c }, 'join-deed-0001');
    expect(other.body.code).toBe('id-taken');
    const itself = await it.deed(a, { do: 'join', other: a });
    expect(itself.body.entries).toEqual([]);
    const nobody = await it.deed(a, { do: 'join', other: 'no-such-thread' });
    expect(nobody.status).toBe(404);
    const alone = await it.deed(c, { do: 'part', threadIds: [c] });
    expect(alone.body.code).toBe('moved-meanwhile');
    prove(it);
    await it.house.close();
  });

  it('are read together, also what came in that is older than what was read before', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(b, { do: 'read', upTo: 1e9 });
    await it.deed(b, { do: 'join', other: a });
    expect(it.persons.rowOf(b)?.state.unread).toHaveLength(1);
    const { body } = await it.deed(b, { do: 'read', upTo: 1e9 });
    expect(body.row.state.unread).toEqual([]);
    expect((await it.deed(b, { do: 'read', upTo: 1e9 })).body.entries).toEqual([]);
    prove(it);
    await it.house.close();
  });

  it('are put together once where two say the same at the same moment', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    const outcomes = await Promise.all([1, 2].map(() => it.deed(a, { do: 'join', other: b })));
    expect(outcomes.map(({ status }) => status)).toEqual([200, 200]);
    expect(outcomes.flatMap(({ body }) => body.entries)).toHaveLength(1);
    prove(it);
    await it.house.close();
  });

  it('let an answer go to whom it was for, though they were parted before it came', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(a, { do: 'join', other: b });
    const first = { do: 'say', text: 'For the second', fileIds: [], threadId: b };
    await it.deed(a, first, 'answer-lost-01');
    await it.deed(a, { do: 'part', threadIds: [b] });
    // Said once more, because its acknowledgement was lost; and another one that waited on a device.
    const again = await it.deed(a, first, 'answer-lost-01');
    expect(again.body).toMatchObject({ row: { id: b }, entries: [{ id: 'answer-lost-01' }] });
    const late = await it.deed(a, { ...first, text: 'One thing more' });
    expect(late.body).toMatchObject({ row: { id: b }, entries: [{ threadId: b }] });
    const said = it.house.store.entries.since(0, 99).filter(({ kind }) => kind === 'team-said');
    expect(said.map(({ threadId }) => threadId)).toEqual([b, b]);
    prove(it);
    await it.house.close();
  });

  it('take what was sent to either of them before it was known', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    const said = { do: 'say', text: 'One moment', fileIds: [] };
    await it.deed(b, said, 'answer-before-1');
    await it.deed(a, { do: 'join', other: b });
    const again = await it.deed(b, said, 'answer-before-1');
    expect(again.body).toMatchObject({ row: { id: a }, entries: [{ id: 'answer-before-1' }] });
    const { body } = await it.deed(b, { do: 'wrap-up' });
    expect(body.row).toMatchObject({ id: a, group: 'wrapped-up' });
    prove(it);
    await it.house.close();
  });

  it('are of twenty writers at most', async () => {
    const it = await open();
    for (let index = 0; index <= THREADS_MOST; index += 1) await it.say(index);
    const first = it.threadOf(0);
    for (let index = 1; index < THREADS_MOST; index += 1) {
      expect((await it.deed(first, { do: 'join', other: it.threadOf(index) })).status).toBe(200);
    }
    const { body } = await it.deed(first, { do: 'join', other: it.threadOf(THREADS_MOST) });
    expect(body).toEqual({ code: 'too-many-of-these', limit: THREADS_MOST });
    prove(it);
    await it.house.close();
  });

  it('show a visitor nothing but their own: live, on coming back, and of files', async () => {
    const it = await open();
    const { house, cookie, door } = it;
    const wren = await visit(house, door.publicId, 'wren');
    const robin = await visit(house, door.publicId, 'robin');
    await wren.say('From Wren');
    await robin.say('From Robin');
    const [a, b] = [...house.store.conversations.page('waiting', null, 2)].map(({ id }) => id);
    const ofWren = house.store.threads.byWriter({
      doorId: door.id,
      address: hashSecret(visitorToken('wren')),
    });
    const other = a === ofWren?.id ? b : a;
    await it.deed(ofWren?.id ?? '', { do: 'join', other });
    await house.ask('PUT', '/api/files/file-for-robin', {
      cookie,
      headers: { 'content-type': 'application/octet-stream', 'x-file-name': 'a.txt' },
      body: Buffer.from('for Robin'),
    });
    const answer = { do: 'say', text: 'For Robin', fileIds: ['file-for-robin'], threadId: other };
    await it.deed(ofWren?.id ?? '', answer);
    await robin.hear('entries', ({ entries }) => entries.some(({ text }) => text === 'For Robin'));
    expect(JSON.stringify(wren.heard)).not.toContain('Robin');
    const back = await visit(house, door.publicId, 'wren');
    expect(back.welcome.entries.map(({ text }) => text)).toEqual(['From Wren']);
    const fileFor = (which: string) =>
      house.ask('GET', `/door/${door.publicId}/files/file-for-robin`, {
        headers: { authorization: `Bearer ${visitorToken(which)}`, 'x-site': site },
      });
    expect((await fileFor('robin')).status).toBe(200);
    expect((await fileFor('wren')).status).toBe(404);
    await house.close();
  });

  it('are told to the team’s devices as they are put together, and to those that were away', async () => {
    const it = await open();
    await it.say(0);
    await it.say(1);
    const seq = it.house.store.entries.newestSeq();
    const [a, b] = [it.threadOf(0), it.threadOf(1)];
    await it.deed(a, { do: 'join', other: b });
    const since = await it.house.ask('GET', `/api/since?seq=${seq}`, { cookie: it.cookie });
    expect(since.body.entries).toMatchObject([{ kind: 'joined', conversationId: a, from: b }]);
    expect(since.body.rows.map(({ id }: { id: string }) => id)).toEqual([a]);
    expect(since.body.entries.some(({ kind }: { kind: never }) => isForVisitor(kind))).toBe(false);
    await it.house.close();
  });
});

describe('how somebody can be reached', () => {
  it('is kept as they said it and found however it is written; what is taken back is not kept', async () => {
    const it = await open();
    await it.say(0);
    const thread = it.threadOf(0);
    const { visiting } = it.house.services;
    const give = (email: string) => visiting.details(it.visitorOf(0), clientId(), { email });
    await give('Wren@Post.EXAMPLE');
    expect(it.house.store.ways.of(thread)).toMatchObject([
      { kind: 'email', key: 'wren@post.example', address: 'Wren@post.example', source: 'said' },
    ]);
    await give('wren@other.example');
    expect(it.house.store.ways.of(thread).map(({ address }) => address)).toEqual([
      'wren@other.example',
    ]);
    await give('');
    expect(it.house.store.ways.of(thread)).toEqual([]);
    await it.house.close();
  });
});
