import type { IncomingMessage, ServerResponse } from 'node:http';
import type { FastifyBaseLogger, FastifyInstance, RawServerDefault } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { createAccounts } from './accounts/accounts';
import { createAttempts } from './accounts/attempts';
import { createEndings } from './accounts/endings';
import { createFirstCode } from './accounts/first-code';
import { createPasswords } from './accounts/passwords';
import { createSessions } from './accounts/sessions';
import { createCards } from './cards/cards';
import { createFinding } from './cards/finding';
import { createProposing } from './cards/proposing';
import { createCardTables } from './cards/tables';
import type { Clock } from './clock';
import { createDarkroom, decoderInside, type StartDecoder } from './darkroom/darkroom';
import { createDisk } from './disk/disk';
import { createBellDevices } from './doorbell/devices';
import { createPusher } from './doorbell/push';
import { createPushing } from './doorbell/pushing';
import { ringingOn } from './doorbell/ring-on';
import { createRinging } from './doorbell/ringing';
import { createTrials } from './doorbell/trials';
import { createVapid } from './doorbell/vapid';
import { createWindows } from './doorbell/windows';
import { createAsking } from './doors/asking';
import { bridgeDoor } from './doors/bridge/kind';
import { createDelivering } from './doors/delivering';
import { createFailing } from './doors/failing';
import { createFetching } from './doors/fetching';
import { createListedQuestions } from './doors/listed-questions';
import { createListings } from './doors/listing';
import { mailDoor } from './doors/mail/kind';
import { createNetworks } from './doors/networks';
import { phoneDoor } from './doors/phone/kind';
import { pigeonpostDoor } from './doors/pigeonpost/kind';
import { createPulling } from './doors/pulling';
import { createRegistry, type DoorKind } from './doors/registry';
import { createTaking } from './doors/taking';
import { textDoor } from './doors/text/kind';
import { tintypeDoor } from './doors/tintype/kind';
import { townfinderDoor } from './doors/townfinder/kind';
import { waveletDoor } from './doors/wavelet/kind';
import { websiteDoor } from './doors/website/kind';
import { createOtherWays } from './doors/website/other-ways';
import type { PanelFiles } from './doors/website/page';
import { createPresence } from './doors/website/presence';
import { createSightings } from './doors/website/sightings';
import { createWebsite } from './doors/website/standing';
import { createVisiting } from './doors/website/visiting';
import { createWires } from './doors/wires';
import { xmppDoor } from './doors/xmpp/kind';
import { createDressing } from './dress/dressing';
import { createShown } from './dress/shown';
import { createFiles } from './files/files';
import { createSharedFiles } from './files/shared';
import { createFollowUps, createOwing } from './follow-ups/follow-ups';
import { reminding } from './follow-ups/reminding';
import { createGreetings } from './greetings/greetings';
import { type AskCalendar, askCalendar } from './hours/calendar';
import { createHours } from './hours/hours';
import { createAfterwards } from './inbox/afterwards';
import { createBatch } from './inbox/batch';
import { createClaims } from './inbox/claims';
import { createDueTimes } from './inbox/due-times';
import { makeFindable } from './inbox/findable';
import { createLikely } from './inbox/likely';
import { createLine } from './inbox/line';
import { createPersons } from './inbox/persons';
import { createReach } from './inbox/reach';
import { createReceive } from './inbox/receive';
import { createRecorder, type Follow } from './inbox/record';
import { createRefold } from './inbox/refold';
import { createReply } from './inbox/reply';
import { returning } from './inbox/returning';
import { createRowsBehind } from './inbox/rows-behind';
import { createSearch } from './inbox/search';
import { createWorker, type JobKind } from './jobs/worker';
import { createHere } from './lamp/here';
import { createLamp } from './lamp/lamp';
import { createLate } from './lamp/late';
import { createUnlooked } from './lamp/unlooked';
import { createHub, type News } from './live/hub';
import { createAlertMails } from './mail/alerts';
import { createElsewhere } from './mail/elsewhere';
import { askingDns, type MailAsking } from './mail/finding';
import { createMailboxes } from './mail/mailbox';
import { createMailPort } from './mail/own-port';
import { createMailReader, mailReaderInside, type StartMailReader } from './mail/reader';
import { refusing } from './mail/refusing';
import { createReplyAddresses } from './mail/reply-addresses';
import { createMailSettings } from './mail/settings';
import { createMailTaking } from './mail/taking';
import { createVisitorMails } from './mail/visitors';
import { createOrders } from './orders/orders';
import { createShop } from './orders/shop';
import { createPairings } from './pairing/pairing';
import { createPictures } from './pictures/pictures';
import { createPromises } from './promises/promises';
import { createFitting } from './replies/fitting';
import { createLearning } from './replies/learning';
import { createQuickReplies } from './replies/replies';
import { createReplyTables } from './replies/tables';
import { createBuckets } from './security/bucket';
import { createConnections } from './security/connections';
import { createOrigins } from './security/origins';
import { createOutside, type Outside, type Resolve } from './security/outside';
import { hostInAddress } from './security/proxy';
import { createSeal, type KeyFile, keyInMemory } from './security/seal';
import type { Settings } from './settings';
import { createShelfSaying } from './shelf/saying';
import { createShelf } from './shelf/shelf';
import { createShelfTables } from './shelf/tables';
import { createSigns } from './signs/signs';
import type { Store } from './store';
import { createTeam } from './team/team';
import type { Spell } from './writing/speller';
import { createWriting } from './writing/writing';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
/** A mail of a person is read in a small part of what the longest may take, on a slow machine too. */
const MAIL_QUICKER = 5;
/** Of one writer: who mistypes a code has a few more, who guesses gets nowhere. */
const CLAIM_TRIES_AN_HOUR = 10;
/** Wrong ones an hour: a number is not found out by trying, nor whose it is. */
const ORDER_TRIES = { visitor: 12, address: 40 } as const;
/** Of one who writes: as often as somebody stops for a moment. */
const LOOKED_THROUGH_A_MINUTE = 60;

export interface Parts {
  clock: Clock;
  store: Store;
  /** How pictures from outside are opened; in a process of its own where the world can send some. */
  startDecoder?: StartDecoder;
  /** How mails are read that anybody may have written; in a process of its own where the world can send some. */
  startMailReader?: StartMailReader;
  /** What must happen outside the house, beside what it does itself. */
  jobKinds?: readonly JobKind[];
  /** Where the key is that seals the doors' secrets; in memory where there is no folder. */
  keys?: KeyFile;
  /** Kinds of doors beside those that the house has. */
  doorKinds?: readonly DoorKind[];
  /** Finds out where a push service is; the system's own way where nothing is said. */
  resolve?: Resolve;
  /** How networks are asked; over the open internet where nothing is said. */
  outside?: Outside;
  /**
   * How addresses are asked that anybody can write (a mail's pictures, links, pictures of a table): over the open
   * internet and nothing else. What is allowed near us is for the owner's own doors.
   */
  anywhere?: Outside;
  /** Finds out what holidays there are; in a process of its own where somebody could be kept waiting. */
  holidays?: AskCalendar;
  /** By what mail servers are found; the name servers of the open internet where nothing is said. */
  mailAsking?: MailAsking;
  /** Asks dictionaries, in a process of its own; there are none where nothing is said. */
  spell?: Spell;
}

/** To whom a push service may write about what we send: a mail address or a page (RFC 8292, 2.1). */
const contactOf = (store: Store, { publicOrigin }: Settings): string => {
  const { address = '' } = store.business.read() ?? {};
  if (address) return `mailto:${address}`;
  if (publicOrigin?.startsWith('https:')) return publicOrigin;
  const owner = store.members.all().find(({ role, hasLeft }) => role === 'owner' && !hasLeft);
  return `mailto:${owner?.email ?? 'nobody@porch.invalid'}`;
};

/** Builds everything that does the work, each part from the parts it needs; nothing is global. */
export const createServices = (
  settings: Settings,
  {
    clock,
    store,
    startDecoder = decoderInside,
    startMailReader = mailReaderInside,
    keys = keyInMemory(),
    jobKinds = [],
    doorKinds = [],
    resolve,
    outside = createOutside({ allowed: settings.networksNear, resolve }),
    anywhere = createOutside({ allowed: settings.worldNear, resolve }),
    holidays = askCalendar,
    spell = async () => null,
    mailAsking = askingDns,
  }: Parts,
) => {
  let log: (error: unknown) => void = () => {};
  const report = (error: unknown): void => {
    if (!disk.note(error)) log(error);
  };
  const hub = createHub(
    (...who) => shown.person(...who),
    () => store.conversations.counts(),
    report,
  );
  const disk = createDisk({ store, clock, hub });
  const reach = createReach({ store, hub });
  const publish = (news: News[], isHouse: boolean): void => {
    try {
      afterwards.note(news);
      if (news.length > 0) rowsBehind.note();
      hub.publish(news);
      if (isHouse) {
        hours.forget();
        here.forget();
        dueTimes.note();
        hub.tellHouse();
        lamp.tell();
        listings.note();
        wires.note();
      }
    } finally {
      reach.note(news);
      jobs.wake();
    }
  };
  const { limits: most } = settings;
  const limits = {
    messages: createBuckets(clock, most.visitorMessagesAMinute, MINUTE_MS),
    hints: createBuckets(clock, most.visitorHintsAMinute, MINUTE_MS),
    hellos: createBuckets(clock, most.hellosAMinute, MINUTE_MS),
    letters: createBuckets(clock, most.lettersAMinute, MINUTE_MS),
    newVisitors: createBuckets(clock, most.newVisitorsAnHour, HOUR_MS),
    uploads: createBuckets(clock, most.uploadsAnHour, HOUR_MS),
    links: createBuckets(clock, most.linksAnHour, HOUR_MS),
    lookedThrough: createBuckets(clock, LOOKED_THROUGH_A_MINUTE, MINUTE_MS),
    feeds: createBuckets(clock, most.feedsAMinute, MINUTE_MS),
    networks: createBuckets(clock, most.networksAMinute, MINUTE_MS),
    mails: createBuckets(clock, most.mailsAMinute, MINUTE_MS),
    claims: createBuckets(clock, CLAIM_TRIES_AN_HOUR, HOUR_MS),
    orderTries: createBuckets(clock, ORDER_TRIES.visitor, HOUR_MS),
    orderTriesOfAddress: createBuckets(clock, ORDER_TRIES.address, HOUR_MS),
    mailRefusals: createBuckets(clock, most.refusalsAnHour, HOUR_MS),
    trialRings: createBuckets(clock, most.trialRingsAMinute, MINUTE_MS),
    crowdedAccounts: createBuckets(clock, most.strangersTriesAnHour, HOUR_MS),
    firstCode: createBuckets(clock, most.firstCodeTriesAMinute, MINUTE_MS),
  };
  const { write, writeNow, change } = createBatch(store, publish, report);
  const dressing = createDressing({ store, clock, change });
  const shown = createShown({
    store,
    dressing,
    waysOffered: () => registry.offered().map(({ name }) => name),
  });
  const seal = createSeal(keys);
  const mailSettings = createMailSettings({ store, seal, change });
  const opening = (doorId?: string | null) => hours.opening(doorId);
  const ringing = createRinging({
    store,
    clock,
    write,
    canMail: mailSettings.goesOut,
    lookingAt: hub.lookingAt,
    opening,
    isDeserted: (doorId) => ['nobody-here', 'no-hours'].includes(lamp.whyAt(doorId)),
  });
  const promises = createPromises({
    store,
    clock,
    change,
    opening,
  });
  const unlooked = createUnlooked({ store, clock, hub });
  const here = createHere({
    store,
    clock,
    hub,
    unlooked,
    bellOf: ringing.bellOf,
    minutes: () => promises.now().hereMinutes,
  });
  const owing = createOwing({
    store,
    clock,
    opening,
    graceMs: () => promises.now().graceMinutes * MINUTE_MS,
    isReachable: (thread) => visitorMails.noWayTo(thread) === null,
  });
  const mailing: Follow = (...news) =>
    visitorMails.follow(() => promises.now().mailAfterMinutes * MINUTE_MS)(...news);
  const windowOf = (doorId: string): number | null => registry.at(doorId)?.can.windowMs ?? null;
  const closing: Follow = (...news) => windows.follow(...news);
  const catchUp = (): void => afterwards.catchUp();
  const learning = createLearning({
    store,
    dressing,
    persons: { standing: (id) => persons.standing(id) },
    catchUp,
  });
  const cards = createCards({ store, clock, dressing, catchUp });
  const greetings = createGreetings({ store, clock, dressing, catchUp });
  const afterwards = createAfterwards({
    store,
    all: [
      (entries) => makeFindable(store, entries),
      learning.afterwards,
      cards.afterwards,
      greetings.afterwards,
    ],
    report,
  });
  const finding = createFinding({ store, dressing });
  const asking = createAsking({ outside, clock });
  const askingAnywhere = createAsking({ outside: anywhere, clock });
  const shop = createShop({ store, clock, seal, asking, outside });
  const orders = createOrders({
    store,
    clock,
    change,
    shop,
    tries: {
      visitor: limits.orderTries,
      address: limits.orderTriesOfAddress,
    },
  });
  const deciding: Follow = (...news) => mailTaking.heldMails.follow(...news);
  const follow: Follow = (...news) =>
    [
      here.follow,
      ringing.follow,
      promises.follow,
      owing.follow,
      mailing,
      deciding,
      closing,
    ].flatMap((one) => one(...news));
  const record = createRecorder({ store, clock, follow, keep: owing.keep });
  const rowsBehind = createRowsBehind({ store, record, report });
  const darkroom = createDarkroom(startDecoder, settings.pictureLongestMs, clock.steady);
  const hours = createHours({ store, clock, change, askCalendar: holidays });
  const lamp = createLamp({
    store,
    clock,
    hub,
    hours,
    here,
    promises,
    change,
    toldAnew: () => {
      listings.note();
      wires.lightChanged();
      jobs.wake();
    },
    saysHours: (doorId) => dressing.published(doorId).whenNotLit === 'hours',
  });
  const signs = createSigns({ store, clock, dressing, lamp });
  const late = createLate({ store, clock, unlooked, lamp, promises, writeNow, record });
  const dueTimes = createDueTimes({
    store,
    clock,
    hours,
    promises,
    windowOf,
    tellLine: hub.tellLine,
    report,
  });
  const persons = createPersons({ store, record });
  const replyAddresses = createReplyAddresses({ store, seal, clock });
  const origin = (): string =>
    settings.publicOrigin ??
    store.business.reachedAt() ??
    `http://${hostInAddress(settings.host)}:${settings.port}`;
  const sharedFiles = createSharedFiles({ store, seal, clock, origin });
  const alertMails = createAlertMails({
    store,
    clock,
    persons,
    record,
    mailSettings,
    replyAddresses,
    isOpen: ringing.isOpen,
    origin,
  });
  const visitorMails = createVisitorMails({
    store,
    clock,
    write,
    persons,
    record,
    mailSettings,
    replyAddresses,
    dressing,
    personAt: shown.person,
    origin,
  });
  const vapid = createVapid({ store, seal, clock, contact: () => contactOf(store, settings) });
  const pusher = createPusher({ vapid, allowed: settings.pushNear, now: clock.now, resolve });
  const trials = createTrials(clock);
  const pushing = { store, clock, write, record, persons, ringing, pusher, trials };
  const fileLink = sharedFiles.link;
  const parts = {
    outside,
    asking,
    clock,
    fileLink,
    fileBytes: (fileId: string) => files.whole(fileId),
    lightAt: (doorId: string) => lamp.atDoor(doorId),
  };
  const registry = createRegistry({
    store,
    seal,
    kinds: [
      websiteDoor,
      mailDoor({ ...parts, store, change, mailSettings, replyAddresses, origin }),
      ...[
        textDoor,
        phoneDoor,
        xmppDoor,
        bridgeDoor,
        pigeonpostDoor,
        waveletDoor,
        tintypeDoor,
        townfinderDoor,
      ].map((door) => door(parts)),
      ...doorKinds,
    ],
    withStreet: settings.withStreet,
  });
  const failing = createFailing({ store, clock, write });
  const windows = createWindows({
    store,
    clock,
    persons,
    ringing,
    windowOf,
    tellLine: hub.tellLine,
  });
  const listings = createListings({
    store,
    clock,
    lamp,
    hours,
    registry,
    failing,
    questions: createListedQuestions({ store, clock, dressing }),
  });
  const delivering = createDelivering({
    store,
    clock,
    record,
    failing,
    registry,
    persons,
    fileLink,
  });
  const carrying = { at: registry.at, begin: delivering.begin };
  const claims = createClaims({ store, clock, tries: limits.claims });
  const quickReplies = createQuickReplies({ store, clock, change, catchUp });
  const shelf = createShelf({ store, clock, change, repliesChanged: quickReplies.changed });
  const shelfSaying = createShelfSaying({
    store,
    clock,
    dressing,
    asking: askingAnywhere,
    files: () => files,
    origin,
  });
  const shelfTables = createShelfTables({ store, clock });
  const inbox = { store, clock, record, write, hub, lamp, persons, carrying, claims, shelfSaying };
  const receive = createReceive(inbox);
  const reply = createReply(inbox);
  const files = createFiles({ ...inbox, darkroom });
  const fetching = createFetching({ store, clock, registry, failing, receive, files });
  const taking = createTaking({ store, receive, fetching, delivering, hub });
  const pulling = createPulling({ store, clock, registry, taking, failing });
  const wires = createWires({ store, clock, write, registry, taking, failing, report });
  const mailReader = createMailReader({
    start: startMailReader,
    clock,
    quickMs: settings.mailLongestMs / MAIL_QUICKER,
    slowMs: settings.mailLongestMs,
  });
  const mailTaking = createMailTaking({
    store,
    clock,
    write,
    record,
    persons,
    reply,
    receive,
    files,
    replyAddresses,
    mailSettings,
    bounced: visitorMails.bounced,
    undelivered: delivering.undelivered,
    reader: mailReader,
    refusals: limits.mailRefusals,
  });
  const kinds = [
    reminding({ store, clock, persons, ringing }) as JobKind,
    windows.kind as JobKind,
    returning({ clock, persons, record }) as JobKind,
    delivering.kind as JobKind,
    ...fetching.kinds,
    pulling.kind as JobKind,
    listings.kind as JobKind,
    createPushing(pushing) as JobKind,
    ringingOn({ persons, ringing, beginMail: alertMails.begin }) as JobKind,
    alertMails.kind as JobKind,
    visitorMails.kind as JobKind,
    mailTaking.heldMails.kind as JobKind,
    refusing({
      mailSettings,
      businessName: () => store.business.read()?.name ?? '',
      origin,
    }) as JobKind,
    ...jobKinds,
  ];
  const jobs = createWorker({ store, clock, write, report, kinds });
  const visiting = createVisiting({
    store,
    dressing,
    receive,
    signs,
    clock,
    cards,
    greetings,
    orders,
    personKey: registry.personKey,
  });
  const otherWays = createOtherWays({ store, dressing, visiting, registry, claims, write });
  const sessions = createSessions({ store, clock });
  const pairings = createPairings({ store, clock, sessions });
  const endings = createEndings({ store, hub, pairings });
  const firstCode = createFirstCode(store.business.read() !== null, limits.firstCode);
  const accounts = createAccounts({
    store,
    clock,
    passwords: createPasswords(settings.passwordCost),
    sessions,
    attempts: createAttempts({ store, clock, crowds: limits.crowdedAccounts }),
    endings,
    firstCode,
    change,
  });
  return {
    clock,
    store,
    hub,
    disk,
    reach,
    receive,
    visiting,
    otherWays,
    persons,
    record,
    write,
    origin,
    writeNow,
    change,
    jobs,
    registry,
    networks: createNetworks({ store, clock, change, registry, persons, failing }),
    delivering,
    fetching,
    taking,
    listings,
    claims,
    pulling,
    wires,
    outside,
    anywhere,
    ringing,
    vapid,
    pusher,
    bellDevices: createBellDevices({
      store,
      clock,
      change,
      ringing,
      trials,
      allowed: settings.pushNear,
    }),
    refold: createRefold({ store, record }),
    reply,
    line: createLine(inbox),
    search: createSearch(store, catchUp),
    files,
    sharedFiles,
    mailSettings,
    mailAsking,
    mailTaking,
    mailReader,
    quickReplies,
    replyTables: createReplyTables({ store, change, replies: quickReplies }),
    fitting: createFitting({ store, clock, persons, replies: quickReplies, learning, dressing }),
    cards,
    greetings,
    afterwards,
    rowsBehind,
    orders,
    shelf,
    shelfSaying,
    shelfTables,
    shop,
    finding,
    proposing: createProposing({ store, clock, dressing, learning, finding }),
    cardTables: createCardTables({ store, dressing }),
    writing: createWriting({ store, change, outside: anywhere, spell }),
    likely: createLikely({ store, clock, change, persons }),
    elsewhere: createElsewhere({ store, write, files, outside: anywhere }),
    visitorMails,
    replyAddresses,
    mailboxes: createMailboxes({ clock, taking: mailTaking, mailSettings, report }),
    mailPort: createMailPort({ taking: mailTaking, limit: limits.mails, clock, report }),
    hours,
    followUps: createFollowUps({ store, clock, change, persons }),
    dueTimes,
    promises,
    lamp,
    here,
    late,
    website: createWebsite({ store, personAt: shown.person }),
    sightings: createSightings({ store, clock, change }),
    dressing,
    shown,
    pictures: createPictures({ store, clock, darkroom }),
    darkroom,
    presence: createPresence({ clock, store, hub, visiting }),
    sessions,
    accounts,
    firstCode,
    team: createTeam({ store, clock, change, accounts, sessions, endings }),
    pairings,
    limits,
    connections: createConnections(most.connectionsOfAnAddress),
    ...createOrigins(settings, clock),
    /** What failed where nobody waits for an answer: noted as the disk's, or logged. */
    report,
    onReport: (listener: (error: unknown) => void): void => {
      log = listener;
    },
  };
};

export type Services = ReturnType<typeof createServices>;

export type App = FastifyInstance<
  RawServerDefault,
  IncomingMessage,
  ServerResponse,
  FastifyBaseLogger,
  ZodTypeProvider
>;

/** What a subject's routes are given. */
export interface Routing {
  app: App;
  settings: Settings;
  services: Services;
  panelFiles: PanelFiles;
}
