import { FOLD_VERSION, type Happening, SCREEN } from '@porch/core/conversation';
import { buildApp } from '@porch/server/app';
import { systemClock } from '@porch/server/clock';
import { makeFindable } from '@porch/server/inbox/findable';
import { createRecorder } from '@porch/server/inbox/record';
import { createServices } from '@porch/server/services';
import { toSettings } from '@porch/server/settings';
import { createStore, newConversation, openDatabase } from '@porch/server/store/index';

const common = 'the a is do you have for with and can my it pot plant leaf water soil light'.split(
  ' ',
);

/** A vocabulary as uneven as speech: some words everywhere, most of them rare (after Zipf). */
const wordAt = (roll: number): string => {
  const rank = Math.floor(Math.exp(roll * Math.log(20_000)));
  return rank < common.length ? (common[rank] ?? 'the') : `word${rank}`;
};

/** The same made-up past each time: a linear congruential generator (Numerical Recipes' constants). */
const createDice = (): (() => number) => {
  let state = 20_261_112;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
};

const ENTRIES_EACH = 10;

/**
 * A server with a long past in a file: `conversations` of `each` entries. Gives a way to time its answers.
 */
export const openPast = async (path: string, conversations: number, each = ENTRIES_EACH) => {
  const db = openDatabase(path);
  // Filling is not what is measured; what is measured afterwards only reads.
  db.pragma('synchronous = OFF');
  const store = createStore(db);
  const start = Date.now() - conversations * 60_000;
  let now = start;
  const record = createRecorder({ store, clock: { ...systemClock, now: () => now } });
  const dice = createDice();
  const text = (): string => Array.from({ length: 12 }, () => wordAt(dice())).join(' ');
  const services = createServices(toSettings({ logLevel: 'silent' }), {
    clock: systemClock,
    store,
  });
  const { secret } = await services.accounts.setUp({
    code: services.firstCode.shown() ?? '',
    business: 'Past',
    zone: 'UTC',
    name: 'Owner',
    email: 'o@past.example',
    password: 'long enough to be taken',
  });
  const door = store.doors.all()[0];
  const member = store.members.all()[0];
  if (!door || !member) throw new Error('set-up made no door');

  const roll = (index: number): Happening[] =>
    Array.from({ length: each }, (_, at): Happening => {
      const isAnswer = at % 2 === 1;
      const isOpen = index % 10 === 0 && at === each - 1;
      return isAnswer && !isOpen
        ? { kind: 'team-said', memberId: member.id, text: text(), files: [], way: SCREEN }
        : { kind: 'visitor-said', text: text(), files: [], note: false, page: null };
    });

  for (let from = 0; from < conversations; from += 500) {
    store.atOnce(() => {
      for (let index = from; index < Math.min(conversations, from + 500); index += 1) {
        now += 60_000;
        const id = `conversation-${index}`;
        const conversation = store.conversations.write(newConversation(id, door.id));
        const writer = { doorId: door.id, address: `token-${index}` };
        store.threads.add({ ...writer, id, conversationId: id }, now);
        const happenings = roll(index).map((happening, at) => ({
          id: `past-entry-${index}-${at}`,
          happening,
        }));
        makeFindable(store, record.add(conversation, id, happenings).entries);
      }
    });
  }
  store.afterwards.setMark(store.entries.newestSeq());
  store.rowsBehind.setMark(store.entries.newestSeq());
  const app = await buildApp(toSettings({ logLevel: 'silent' }), services);
  const headers = { host: 'porch.example', cookie: `porch=${secret}` };

  return {
    entryCount: store.entries.newestSeq(),
    cookie: headers.cookie,
    /** Median milliseconds of a request, over `times` tries after a warm-up. */
    time: async (url: string, times: number): Promise<number> => {
      const took: number[] = [];
      for (let count = 0; count < times + 20; count += 1) {
        const begin = performance.now();
        const response = await app.inject({ method: 'GET', url, headers });
        if (response.statusCode !== 200) throw new Error(`${url} gave ${response.statusCode}`);
        if (count >= 20) took.push(performance.now() - begin);
      }
      return took.sort((a, b) => a - b)[Math.floor(took.length / 2)] ?? 0;
    },
    /** How long one deed takes, in milliseconds. */
    timeDeed: async (conversationId: string, deed: object): Promise<number> => {
      const begin = performance.now();
      const { statusCode, body } = await app.inject({
        method: 'POST',
        url: `/api/conversations/${conversationId}/deeds`,
        headers: { ...headers, origin: 'http://past.example', host: 'past.example' },
        payload: deed,
      });
      const took = performance.now() - begin;
      if (statusCode !== 200) throw new Error(`the deed gave ${statusCode}: ${body}`);
      return took;
    },
    /** So much is owed, every other of it done. */
    owe: (count: number): void =>
      store.atOnce(() => {
        for (let index = 0; index < count; index += 1) {
          const filed = {
            conversationId: `conversation-${index % conversations}`,
            threadId: null,
            seq: 0,
            at: start + index,
          };
          const id = `past-owed-${index}`;
          store.followUps.fold({
            ...filed,
            kind: 'owed',
            id,
            memberId: member.id,
            why: 'hand',
            what: text(),
            dueAt: start + index * 60_000,
            remindAt: null,
            whose: null,
          });
          if (index % 2 === 0) continue;
          const done = { kind: 'owed-done' as const, of: id, memberId: member.id };
          store.followUps.fold({ ...filed, ...done, id: `${id}-done` });
        }
      }),
    /** As if an earlier program had folded everything. */
    makeOld: (): void => {
      db.exec('UPDATE conversations SET fold = 0');
    },
    close: async () => {
      await app.close();
      store.close();
    },
  };
};

/**
 * Starts a server on a past that is there, and gives how many milliseconds pass from then until it has answered
 * with the first page of the line; while it folds everything anew, or not. What is left to fold is said as well.
 */
export const timeStart = async (
  path: string,
  cookie: string,
  isFolding: boolean,
): Promise<number> => {
  const begin = performance.now();
  const store = createStore(openDatabase(path));
  const settings = toSettings({ logLevel: 'silent' });
  const services = createServices(settings, { clock: systemClock, store });
  const app = await buildApp(settings, services);
  const folding = isFolding ? services.refold.run() : Promise.resolve();
  const headers = { host: 'porch.example', cookie };
  const { statusCode } = await app.inject({
    method: 'GET',
    url: '/api/line?group=answered',
    headers,
  });
  const took = performance.now() - begin;
  if (statusCode !== 200) throw new Error(`the line gave ${statusCode}`);
  if (isFolding && store.conversations.foldedBefore(FOLD_VERSION, 1).length === 0) {
    throw new Error('everything was folded before the line was asked for: nothing was measured');
  }
  services.refold.stop();
  await folding;
  await app.close();
  store.close();
  return took;
};
