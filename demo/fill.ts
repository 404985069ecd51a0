import { createECDH } from 'node:crypto';
import { readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Member } from '@porch/contract/people';
import { plainDress } from '@porch/core/dress';
import type { Greeting } from '@porch/core/greetings';
import { timeOnDay } from '@porch/core/hours';
import { createPasswords } from '@porch/server/accounts/passwords';
import { handClock } from '@porch/server/clock';
import { WEBSITE } from '@porch/server/doors/website/kind';
import type { Outside } from '@porch/server/security/outside';
import { type KeyFile, keyFile, keyPath } from '@porch/server/security/seal';
import { hashSecret } from '@porch/server/security/tokens';
import { createServices, type Services } from '@porch/server/services';
import { toSettings } from '@porch/server/settings';
import { createStore, openDatabase, type Store } from '@porch/server/store/index';
import { facts } from '@porch/street/site/facts';
import { sitePages } from '@porch/street/site/page';
import { taps } from './asked';
import { demoDoors } from './dresses';
import { demoGreetings } from './greetings';
import { type NetworkTalk, networkTalks } from './network-talks';
import { demoOrders } from './orders';
import { type Visitor, visitors } from './people';
import { businessPicture, facePicture, plantPicture } from './pictures';
import { ownWords, quickReplies as stored } from './quick-replies';
import { demoThings } from './shelf';
import { notes, threads, waiting } from './threads';

/** A line of ours as it is said: "> [shelf monstera] Here" has that with it. */
const answerIn = (line: string): { text: string; shelf?: string[] } => {
  const [, thing, text = ''] = /^> (?:\[shelf ([\w-]+)\] )?(.*)$/s.exec(line) ?? [];
  return thing ? { text, shelf: [`shelf-quillfern-${thing}`] } : { text };
};

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

interface Plan {
  start: number;
  lines: readonly string[];
  visitor: Visitor;
  end: 'answered' | 'wrapped-up' | 'put-by' | 'came-back' | 'open';
  index: number;
}

type Step = { at: number; do: () => Promise<unknown> };

interface Account {
  name: string;
  email: string;
  password: string;
  role: Member['role'];
}

/** A phone on the street that rings for somebody of the team. */
interface BellDevice {
  member: string;
  device: string;
  name: string;
  privateKey: string;
  auth: string;
}

const publicKeyOf = (privateKey: string): string => {
  const pair = createECDH('prime256v1');
  pair.setPrivateKey(privateKey, 'base64url');
  return pair.getPublicKey('base64url');
};

/** How the business and one of the street's networks know each other. */
interface NetworkAccount {
  /** Its path on the street. */
  network: string;
  kind: string;
  door: string;
  name: string;
  told: Readonly<Record<string, string>>;
  key: string;
  word: string;
}

const openNetwork = (
  { store, clock, registry }: Services,
  { network, kind, door, name, told, key, word }: NetworkAccount,
  street: string,
): void => {
  const id = `door-${door}`;
  const settings = { told: { ...told, url: `${street}/${network}` } };
  const shown = { id, publicId: door, kind, name, settings };
  store.doors.add({ ...shown, memberIds: null, closedAt: null, removedAt: null }, clock.now());
  registry.setSecret(id, JSON.stringify({ key, word }));
};

/** Mails to the business, which the house takes by a port of its own. */
const openMailDoor = ({ store, clock }: Services): void => {
  const settings = { told: { address: 'hello@quillfern.example' }, since: clock.now() };
  const door = {
    id: 'door-quillfern-mail',
    publicId: 'quillfern-mail',
    kind: 'mail',
    name: 'Mail',
  };
  const rest = { memberIds: null, closedAt: null, removedAt: null };
  store.doors.add({ ...door, settings, ...rest }, clock.now());
};

/** Networks that take whatever they are asked to carry: for what was said before the street was there. */
const willing = (): Outside => {
  let taken = 0;
  return {
    may: () => true,
    whereIs: () => Promise.reject(new Error('nobody is there')),
    serviceAt: async () => null,
    ask: async ({ address }) => {
      taken += 1;
      const id = `demo-carried-${taken}`;
      const token = { access_token: 'demo', expires_in: 60 };
      const listing = { chat: true, away_until: null, opening_hours: '' };
      const isListing = /\/listings\/[^/]+$/.test(address);
      const body = isListing ? listing : { id, letter: id, direct: id, chat: id, ...token };
      const said = address.includes('/texts/') ? `id=${id}` : JSON.stringify(body);
      return { status: 200, headers: {}, body: Buffer.from(said), isCut: false };
    },
    end: () => undefined,
  };
};

/** Answers that are stored, as often used as they would be after a year. */
/** What stands on the shelf, with its pictures. */
const storeShelf = async (services: Services, now: number, memberId: string): Promise<void> => {
  for (const { id, plant, thing } of demoThings(now)) {
    const fileId = plant === null ? null : `${id}-picture`;
    if (fileId) {
      const name = `${thing.name}.png`;
      await services.files.take(fileId, name, await plantPicture(plant ?? 0), { memberId });
    }
    services.shelf.put(id, { revision: 0, thing, fileId });
  }
};

const storeReplies = ({ quickReplies, store, clock }: Services, ownerId: string): void => {
  for (const word of ownWords) store.ownWords.add(word);
  for (const [index, { usedCount, isOwn = false, shelf = [], ...reply }] of stored.entries()) {
    const id = `demo-quick-reply-${String(index).padStart(2, '0')}`;
    const shelfIds = shelf.map((thing) => `shelf-quillfern-${thing}`);
    const typed = { ...reply, isOwn, language: 'en', revision: 0, fileIds: [], shelfIds };
    quickReplies.putNow(id, typed, ownerId);
    for (let used = 0; used < usedCount; used += 1) store.quickReplies.use(id, clock.now());
  }
};

const TURNS_MOST = 10_000;

/** What a network calls an answer that it has taken: jobs go on by themselves, and are waited for. */
const takenAs = async (store: Store, seq: number): Promise<string> => {
  for (let turn = 0; turn < TURNS_MOST; turn += 1) {
    const networkId = store.deliveries.bySeq(seq)?.networkId;
    if (networkId) return networkId;
    await new Promise((resolve) => setImmediate(resolve));
  }
  throw new Error(`nobody took the demo's answer ${seq}`);
};

/** What was said by a network: in by its door, and out as if the network had carried it. */
const stepsOfTalk = (
  services: Services,
  { kind, from, name, hoursAgo, lines, isDone, mail: letter, setAside }: NetworkTalk,
  { index, now, member, street }: { index: number; now: number; member: Member; street: string },
): Step[] => {
  const { store, write, receive, reply, delivering } = services;
  const door = store.doors.all().find((one) => one.kind === kind);
  if (!door) return [];
  const writer = { doorId: door.id, address: from };
  const talkId = (): string => store.threads.byWriter(writer)?.conversationId ?? '';
  const proves = from.startsWith('+') ? [{ kind: 'phone', address: from }] : [];
  const mail = letter && {
    rest: '',
    subject: letter.subject,
    pictures: letter.pictures.map((path) => street + path),
  };
  const said = { ...writer, from, name, fileIds: [], proves, mail, setAside };
  const email = letter ? from : undefined;
  const hear = (text: string, networkId: string) =>
    write(() => receive.inboundNow({ ...said, email, networkId, text }));
  const answer = async (text: string, id: string): Promise<void> => {
    const threadId = store.threads.byWriter(writer)?.id;
    const deed = { do: 'say' as const, id, text, fileIds: [], threadId };
    const { entries } = await reply.deed(talkId(), deed, member);
    const networkId = await takenAs(store, entries[0]?.seq ?? 0);
    await write(() => delivering.reportNow(door.id, { networkId, step: 'read' }));
  };
  const start = now - hoursAgo * HOUR_MS;
  const steps = lines.map((line, at): Step => {
    const id = `demo-network-${String(index).padStart(2, '0')}-${at}`;
    const say = () => (line.startsWith('> ') ? answer(line.slice(2), id) : hear(line, id));
    return { at: start + at * 4 * MINUTE_MS, do: say };
  });
  if (!isDone) return steps;
  const id = `demo-network-${String(index).padStart(2, '0')}-end`;
  const end = start + (lines.length + 4) * 4 * MINUTE_MS;
  return [...steps, { at: end, do: () => reply.deed(talkId(), { do: 'wrap-up', id }, member) }];
};

interface Page {
  url: string;
  title: string;
}

const pageCalled = (origin: string, title: string): Page => {
  const page = sitePages.find((one) => one.title === title);
  if (!page) throw new Error(`the demo's website has no page called ${title}`);
  return { url: origin + page.path, title: `${title} – Quillfern Nursery` };
};

/** What the first door says before anybody writes, and what came of it so far. */
const storeGreetings = (
  { store }: Services,
  doorId: string,
  members: readonly Member[],
): Greeting[] =>
  demoGreetings.map(({ greeting, by, seen, answered }) => {
    store.greetings.count(doorId, { greetingId: greeting.id, seen, answered });
    return { ...greeting, memberId: by === null ? null : (members[by]?.id ?? null) };
  });

/** Who of the team answers: mostly the owner. */
const memberFor = (members: readonly Member[], index: number): Member => {
  const member = members[index % 5 === 1 ? 1 : index % 7 === 2 ? 2 : 0];
  if (!member) throw new Error('the demo needs three members');
  return member;
};

/** When each thread happens: spread over six weeks in working hours, the open ones just now. */
const plansFor = (now: number): Plan[] => {
  const visitorAt = (index: number): Visitor => visitors[index % visitors.length] ?? {};
  const midnight = now - (now % DAY_MS);
  const past = Array.from({ length: 53 }, (_, index): Plan => {
    const daysAgo = 42 - Math.floor((index * 41) / 53);
    const start = midnight - daysAgo * DAY_MS + (9 + ((index * 37) % 8)) * HOUR_MS + index * 97_000;
    const lines = threads[index % threads.length] ?? [];
    const isThanked = !lines[lines.length - 1]?.startsWith('> ');
    const isDone = isThanked || index % 5 < 2;
    const end =
      index >= 50 ? 'put-by' : index === 49 ? 'came-back' : isDone ? 'wrapped-up' : 'answered';
    return { start, index, lines, visitor: visitorAt(index), end };
  });
  const left = notes.map(
    (lines, index): Plan => ({
      start: now - (11 - index * 2) * HOUR_MS,
      index: 53 + index,
      lines,
      visitor: visitorAt(53 + index),
      end: 'open',
    }),
  );
  const open = waiting.map(
    (lines, index): Plan => ({
      start: now - (14 - index * 6) * MINUTE_MS,
      index: 57 + index,
      lines,
      visitor: visitorAt(57 + index),
      end: 'open',
    }),
  );
  const tapped = taps.map(
    ({ daysAgo, cards }, index): Plan => ({
      start: midnight - daysAgo * DAY_MS + (10 + index) * HOUR_MS,
      index: 70 + index,
      lines: cards.map((card) => `[taps ${card}]`),
      visitor: {},
      end: 'open',
    }),
  );
  return [...past, ...left, ...open, ...tapped];
};

/** The nursery's week; its holidays are England's, and it is shut over the turn of the year. */
const openInWeek = async (services: Services, now: number): Promise<void> => {
  const span = ({ from, to }: { from: number; to: number }) => [{ from: from * 60, to: to * 60 }];
  const { shop, bench, winterBreak } = facts;
  const workday = span(shop.weekdays);
  const year = new Date(now).getUTCFullYear();
  await services.hours.set({
    week: [workday, workday, workday, workday, workday, span(shop.saturday), span(shop.sunday)],
    holidays: { country: 'GB', region: 'ENG', others: 'closed', choices: {} },
    spells: [
      {
        from: `${year}-${winterBreak.from}`,
        to: `${year + 1}-${winterBreak.to}`,
        spans: [],
        why: 'Winter break',
      },
    ],
  });
  // The bench rests on Sundays and Mondays.
  const [, benchDoor] = demoDoors;
  if (benchDoor) {
    const day = span(bench);
    services.hours.setDoor(benchDoor.id, [[], day, day, day, day, day, []]);
  }
};

/** Whoever looks at night finds a light that was lit by hand, and people to answer. */
const lightFor = (services: Services, now: number): void => {
  const isOpen = services.hours.opening().isOpen(now);
  services.lamp.set({ state: isOpen ? 'by-hours' : 'lit', until: null });
};

/** What was promised by hand, to people who have their answer; and that somebody waits is known already. */
const promiseByHand = async (services: Services, store: Store, now: number): Promise<void> => {
  const [maren, tobias] = store.members.all();
  const answered = store.conversations.page('answered', null, promises.length);
  for (const [index, { what, inDays }] of promises.entries()) {
    const conversation = answered[index];
    const dueAt = timeOnDay(now, 'Europe/London', inDays, 10);
    const owed = { what, dueAt, remindAt: dueAt, whose: tobias?.id ?? null };
    if (!conversation || !maren) continue;
    await services.reply.deed(
      conversation.id,
      { do: 'owe', id: `promise-quillfern-${index}`, ...owed },
      maren,
    );
  }
  for (const id of store.conversations.idsIn('waiting')) {
    const waiting = store.conversations.byId(id);
    store.promises.noteLateAsked(id, waiting?.state.waitingSince ?? 0);
  }
};

const promises = [
  { what: 'Tell them when the fiddle-leaf figs are in', inDays: 1 },
  { what: 'Ask whether the repotted palm has settled', inDays: 7 },
];

/**
 * Fills a data folder with six weeks of Quillfern Nursery up to `now` (UTC epoch milliseconds).
 * Everything goes in the way it would have: through the same doors, in the order in which it happened.
 */
export const fill = async (options: {
  dataDir: string;
  now: number;
  siteOrigin: string;
  accounts: readonly Account[];
  devices?: readonly BellDevice[];
  /** Doors to the street's networks. */
  networks?: readonly NetworkAccount[];
  /** Where the key is that seals what the doors must not say; absent: nowhere, and nobody can open it. */
  keys?: KeyFile;
  /** Where mail goes out; absent: none does. */
  mailPort?: number;
}): Promise<void> => {
  const { now, siteOrigin } = options;
  const clock = handClock(now - 43 * DAY_MS);
  const store = createStore(openDatabase(join(options.dataDir, 'porch.sqlite')));
  const settings = toSettings({ dataDir: options.dataDir });
  const services = createServices(settings, {
    clock,
    store,
    keys: options.keys,
    outside: willing(),
  });
  const passwords = createPasswords(settings.passwordCost);

  store.business.write(
    {
      name: 'Quillfern Nursery',
      zone: 'Europe/London',
      country: 'GB',
      address: 'hello@quillfern.example',
      pictureId: null,
      pictureShape: 'round',
      walkStep: 'done',
    },
    clock.now(),
  );
  for (const [index, account] of options.accounts.entries()) {
    const passwordHash = await passwords.hash(account.password);
    const id = `member-quillfern-${index}`;
    store.members.add(
      { id, ...account, passwordHash, publicName: '', pictureId: null },
      clock.now() + index,
    );
  }
  const members = store.members.all();
  const whole = { left: 0, top: 0, side: 10_000 };
  for (const [index, member] of members.entries()) {
    const pictureId = await services.pictures.take(await facePicture(index), whole, member.id);
    const publicName = member.name.split(' ')[0] ?? '';
    store.members.update({ ...member, publicName, pictureId });
  }
  const pictureId = await services.pictures.take(
    await businessPicture(),
    whole,
    'member-quillfern-0',
  );
  const business = store.business.read();
  if (business) store.business.write({ ...business, pictureId }, clock.now());
  for (const [index, { dress, members: whom, ...shown }] of demoDoors.entries()) {
    const memberIds = whom?.flatMap((at) => members[at]?.id ?? []) ?? null;
    const sites = [new URL(siteOrigin).host, 'quillfern.example'];
    const door = {
      ...shown,
      kind: WEBSITE,
      settings: { sites },
      memberIds,
      closedAt: null,
      removedAt: null,
    };
    store.doors.add(door, clock.now() + index);
    store.dresses.publish(shown.id, plainDress(), clock.now());
    const greetings = index === 0 ? storeGreetings(services, shown.id, members) : [];
    store.dresses.publish(shown.id, { ...dress, greetings }, clock.now());
  }
  for (const network of options.networks ?? []) openNetwork(services, network, siteOrigin);
  if (options.mailPort) openMailDoor(services);
  const [first] = members;
  if (!first) throw new Error('the demo needs somebody who answers');
  await storeShelf(services, options.now, first.id);
  storeReplies(services, first.id);
  for (const order of demoOrders(options.now)) store.orders.put(order, options.now);
  const [door] = demoDoors;
  if (!door) throw new Error('the demo needs a door');
  store.ticks.set('team', clock.now());
  store.ticks.set('dark-texts', clock.now());

  const stepsOf = (plan: Plan): Step[] => {
    const { index, lines, visitor } = plan;
    const sender = { doorId: door.id, tokenHash: hashSecret(`demo visitor ${index}`) };
    const member = memberFor(members, index);
    let at = plan.start;
    let said = 0;
    let page = visitor.byLink ? null : pageCalled(siteOrigin, 'Houseplants');
    const id = (what: string): string => `demo-${what}-${String(index).padStart(3, '0')}-${said}`;
    const conversationId = (): string => services.visiting.stateOf(sender)?.threadId ?? '';
    const deed = (what: Parameters<typeof services.reply.deed>[1]) =>
      services.reply.deed(conversationId(), what, member);

    const say = async (line: string, thisId: string, page: Page | null): Promise<void> => {
      const text = line.replace('[picture]', '').trim();
      const fileIds: string[] = [];
      if (line.includes('[picture]')) {
        const threadId = services.visiting.threadFor(sender).id;
        const fileId = `${thisId}-picture`;
        const bytes = await plantPicture(index);
        await services.files.take(fileId, 'plant.png', bytes, { threadId, address: 'demo' });
        fileIds.push(fileId);
      }
      const zone = visitor.zone ?? 'Europe/London';
      await services.visiting.message(sender, { id: thisId, text, fileIds, page, zone }, true);
    };

    const steps: Step[] = [];
    const push = (afterMs: number, what: () => Promise<unknown>): void => {
      at += afterMs;
      steps.push({ at, do: what });
    };

    for (const line of lines) {
      said += 1;
      const thisId = id('said');
      const here = page;
      const goes = /^\[goes to (.+)\]$/.exec(line);
      const tapped = /^\[taps (.+)\]$/.exec(line);
      if (goes) {
        page = pageCalled(siteOrigin, goes[1] ?? '');
      } else if (tapped) {
        push(20_000, () =>
          services.visiting.tap(sender, { id: thisId, card: tapped[1] ?? '', page: here }, true),
        );
      } else if (line.startsWith('> ')) {
        push(95_000 + ((index * 53 + said * 29) % 11) * 20_000, () =>
          deed({ do: 'say', id: thisId, fileIds: [], ...answerIn(line) }),
        );
        push(6_000, () => services.visiting.progress(sender, 'visitor-read', 1e15));
      } else {
        push(said === 1 ? 0 : 40_000, () => say(line, thisId, here));
        if (said === 1 && (visitor.name || visitor.email || visitor.phone)) {
          const detailsId = id('gave');
          const { name, email, phone } = visitor;
          push(15_000, () => services.visiting.details(sender, detailsId, { name, email, phone }));
        }
      }
    }
    push(60_000, () => services.visiting.presence(sender, false));
    const endId = id('end');
    if (plan.end === 'wrapped-up') push(HOUR_MS / 4, () => deed({ do: 'wrap-up', id: endId }));
    if (plan.end === 'put-by') {
      const until = now + (plan.index - 49) * DAY_MS;
      push(HOUR_MS / 4, () => deed({ do: 'put-by', id: endId, until }));
    }
    if (plan.end === 'came-back') {
      push(HOUR_MS / 4, () => deed({ do: 'put-by', id: endId, until: now - 4 * MINUTE_MS }));
      steps.push({ at: now - 4 * MINUTE_MS, do: () => services.jobs.tick() });
    }
    return steps;
  };

  const networkSteps = networkTalks.flatMap((talk, index) =>
    stepsOfTalk(services, talk, {
      index,
      now,
      member: memberFor(members, index),
      street: siteOrigin,
    }),
  );

  const night = { state: 'dark', until: null } as const;
  const lamps: Step[] = [
    { at: now - 12 * HOUR_MS, do: () => openInWeek(services, now) },
    { at: now - 11.5 * HOUR_MS, do: async () => services.lamp.set(night) },
    { at: now - 40 * MINUTE_MS, do: async () => lightFor(services, now) },
    { at: now - MINUTE_MS, do: () => promiseByHand(services, store, now) },
  ];
  const steps = [...plansFor(now).flatMap(stepsOf), ...networkSteps, ...lamps]
    .filter((step) => step.at <= now)
    .sort((a, b) => a.at - b.at);
  // Until it had hours somebody was there day and night.
  const dayAndNight = Array.from({ length: 7 }, () => [{ from: 0, to: 1_440 }]);
  await services.hours.set({ week: dayAndNight, holidays: null, spells: [] });
  for (const { id } of members) services.here.note(id);
  for (const step of steps) {
    clock.set(step.at);
    await step.do();
  }
  for (const { member: name, device, privateKey, auth, ...shown } of options.devices ?? []) {
    const member = members.find((one) => one.name === name);
    if (!member) throw new Error(`nobody is called ${name}`);
    const { secret } = services.sessions.open(member, 'phone');
    store.bellDevices.put({
      id: `device-${device}`,
      memberId: member.id,
      sessionHash: hashSecret(secret),
      endpoint: `${siteOrigin}/push/to/${device}`,
      p256dh: publicKeyOf(privateKey),
      auth,
      name: shown.name,
      addedAt: now,
    });
    // Everybody has tried theirs out.
    store.bellDevices.rung(`device-${device}`, now);
  }
  if (options.mailPort) {
    store.mail.setSettings({
      outgoing: {
        host: '127.0.0.1',
        port: options.mailPort,
        security: 'none',
        user: '',
        from: 'hello@quillfern.example',
      },
      incoming: { kind: 'own', domain: 'quillfern.example' },
    });
  }
  services.afterwards.catchUp();
  services.rowsBehind.stop();
  store.close();
};

const start = async (): Promise<void> => {
  const dataDir = process.env.DATA_DIR ?? '.data/demo';
  const accounts = JSON.parse(readFileSync('demo/accounts.json', 'utf8')) as Account[];
  const devices = JSON.parse(readFileSync('demo/bell-devices.json', 'utf8')) as BellDevice[];
  const now = Number(process.env.DEMO_NOW ?? Date.now());
  const siteOrigin = process.env.STREET_ORIGIN ?? 'http://127.0.0.1:4870';
  // Made beside its place and moved there whole: whoever is interrupted has no half a past.
  const making = join(dataDir, 'making');
  rmSync(making, { recursive: true, force: true });
  const mailPort = Number(process.env.STREET_MAIL_PORT ?? 4875);
  const networks = JSON.parse(readFileSync('demo/networks.json', 'utf8')) as NetworkAccount[];
  const keys = keyFile(keyPath(dataDir));
  await fill({ dataDir: making, now, siteOrigin, accounts, devices, networks, keys, mailPort });
  for (const ending of ['', '-wal', '-shm']) {
    rmSync(join(dataDir, `porch.sqlite${ending}`), { force: true });
  }
  renameSync(join(making, 'porch.sqlite'), join(dataDir, 'porch.sqlite'));
  rmSync(making, { recursive: true, force: true });
};

if (process.argv[1]?.endsWith('fill.js')) {
  start().catch((error) => {
    process.stderr.write(`The demo data could not be made: ${error.stack}\n`);
    process.exit(1);
  });
}
