import { emptyConversation, type Happening } from '@porch/core/conversation';
import { buildApp } from '@porch/server/app';
import { systemClock } from '@porch/server/clock';
import { makeFindable } from '@porch/server/inbox/batch';
import { createRecorder } from '@porch/server/inbox/record';
import { createServices } from '@porch/server/services';
import { toSettings } from '@porch/server/settings';
import { createStore, openDatabase } from '@porch/server/store/index';

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

/** A server with a long past in a file: `conversations` of ten entries each. Gives a way to time its answers. */
export const openPast = async (path: string, conversations: number) => {
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
    Array.from({ length: ENTRIES_EACH }, (_, at): Happening => {
      const isAnswer = at % 2 === 1;
      const isOpen = index % 10 === 0 && at === ENTRIES_EACH - 1;
      return isAnswer && !isOpen
        ? { kind: 'team-said', memberId: member.id, text: text(), files: [] }
        : { kind: 'visitor-said', text: text(), files: [], note: false, page: null };
    });

  for (let from = 0; from < conversations; from += 500) {
    store.atOnce(() => {
      for (let index = from; index < Math.min(conversations, from + 500); index += 1) {
        now += 60_000;
        const tokenHash = `token-${index}`;
        const visitor = { id: `visitor-${index}`, doorId: door.id, tokenHash };
        store.visitors.add(visitor, now);
        const conversation = {
          id: `conversation-${index}`,
          doorId: door.id,
          visitorId: visitor.id,
          tokenHash,
          state: emptyConversation,
        };
        store.conversations.add(conversation);
        const happenings = roll(index).map((happening, at) => ({
          id: `past-entry-${index}-${at}`,
          happening,
        }));
        makeFindable(store, record(conversation, happenings).entries);
      }
    });
  }
  const app = await buildApp(toSettings({ logLevel: 'silent' }), services);
  const headers = { host: 'porch.example', cookie: `porch=${secret}` };

  return {
    entryCount: store.entries.newestSeq(),
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
    close: async () => {
      await app.close();
      store.close();
    },
  };
};
