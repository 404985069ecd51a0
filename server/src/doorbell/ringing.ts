import { type Entry, groupOf, threadMeant } from '@porch/core/conversation';
import { lowAt, type OpenTime } from '@porch/core/patience';
import type { FollowUp } from '@porch/core/promises';
import {
  type Cause,
  type Doorbell,
  type Facts,
  type HushLoad,
  type PushLoad,
  plainDoorbell,
  plainRingOn,
  type Ringable,
  type RingOn,
  type RingOnStep,
  ringLoadFor,
  stepsFrom,
  whoRings,
  whoRingsOn,
} from '@porch/core/ringing';
import type { Clock } from '../clock';
import { calledOf, lastDoorOf } from '../doors/called';
import type { Write } from '../inbox/batch';
import type { Follow, Recording } from '../inbox/record';
import { newId } from '../security/tokens';
import type { BellDeviceRecord, ConversationRecord, Round, Store } from '../store';

/** Whoever has it in sight and has not read it by then is not there: their phone is in a tunnel, perhaps. */
export const LOOKING_MS = 8_000;

/** Somebody who comes again so soon after they went has never been away. */
export const BACK_AFTER_MS = 30 * 60_000;

/** How often the same page rings at most; and any page of a door, for whoever makes up pages. */
export const LANDED_EVERY_MS = 10 * 60_000;
export const LANDED_AT_A_DOOR_EVERY_MS = 60_000;
const PAGES_REMEMBERED_MOST = 500;

/** What a job that rings one device carries. */
export interface PushJob {
  deviceId: string;
  memberId: string;
  /** Where it is noted; null: nowhere. */
  talk: string | null;
  /** Whether it is pointless once somebody has looked. */
  isOfRound: boolean;
  load: PushLoad;
}

/** What a job carries that rings on. */
export interface RingOnJob {
  talk: string;
  step: RingOnStep | 'low' | 'looking';
  /** When the round began that it belongs to. */
  beganAt: number;
  /** For `looking`: who would have been rung. */
  ids?: string[];
}

/** A push service: those of one share what there is to ring with, and work again together. */
export const pushPlaceOf = ({ endpoint }: Pick<BellDeviceRecord, 'endpoint'>): string =>
  `push ${URL.canParse(endpoint) ? new URL(endpoint).origin : ''}`;

/** What is said to one device about one conversation comes in order; null: it is about none. */
export const pushLaneOf = ({
  deviceId,
  talk,
}: Pick<PushJob, 'deviceId' | 'talk'>): string | null =>
  talk === null ? null : `push ${deviceId} ${talk}`;

/** Writes what is to be mailed, and gives to whom; see `mail/alerts.ts`. Call inside a transaction. */
export type BeginMail = (
  conversation: ConversationRecord,
  memberIds: readonly string[],
) => readonly string[];

const settles = (entry: Entry): boolean =>
  entry.kind === 'team-said' || entry.kind === 'wrapped-up' || entry.kind === 'put-by';

const whoActed = (entry: Entry): string =>
  'memberId' in entry && entry.memberId ? entry.memberId : '';

/**
 * The doorbell: who is rung for what happens, and what is taken back when somebody has looked. Everything here is
 * written as jobs in the transaction of its cause; nothing is sent.
 */
export const createRinging = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  /** Whether anything could be mailed at all. */
  canMail: () => boolean;
  /** Ids of those of the team who have a conversation open and in sight. */
  lookingAt: (conversationId: string) => readonly string[];
  /** When a door is open: patience runs in open time. */
  opening: (doorId: string) => OpenTime;
  /** Whether a door’s light is out though nobody has put it out: it is open, and whoever should be here is not. */
  isDeserted: (doorId: string) => boolean;
}) => {
  const { store, clock, write, canMail, lookingAt, opening, isDeserted } = services;
  const landedAt = new Map<string, number>();

  const bellOf = (memberId: string): Doorbell => {
    const plain = plainDoorbell(store.business.read()?.zone ?? 'UTC');
    return { ...plain, ...store.doorbells.of(memberId) };
  };

  const rules = (): RingOn => ({ ...plainRingOn, ...store.doorbells.ringOn() });

  const peopleFor = (talk: string | null): Ringable[] => {
    const looking = talk === null ? [] : lookingAt(talk);
    return store.members
      .all()
      .filter(({ hasLeft }) => !hasLeft)
      .map(({ id }) => ({ id, bell: bellOf(id), isLooking: looking.includes(id) }));
  };

  const devicesOf = (memberId: string): BellDeviceRecord[] =>
    store.bellDevices.of(memberId).filter(({ isMuted }) => !isMuted);

  const waiting = (): number => store.conversations.counts().waiting;

  /** A newer word to a device about the same conversation takes the place of one that still waits: one alert, no heap. */
  const addPush = (key: string, job: PushJob): void => {
    const device = store.bellDevices.byId(job.deviceId);
    const lane = pushLaneOf(job);
    if (lane !== null) store.jobs.dropWaiting(lane);
    const now = clock.now();
    const turn = lane === null ? {} : { lane };
    const place = device ? { belongs: pushPlaceOf(device) } : {};
    store.jobs.add({ key, kind: 'push', load: job, notBefore: now, ...turn, ...place }, now);
  };

  /** Rings each of these people on all their devices; gives those who have any. */
  const ring = (ids: readonly string[], facts: Facts, isOfRound: boolean): string[] =>
    ids.filter((memberId) => {
      const devices = devicesOf(memberId);
      const load = ringLoadFor(facts, memberId, bellOf(memberId));
      for (const { id: deviceId } of devices) {
        if (facts.talk) store.rounds.alert(facts.talk, deviceId);
        const job = { deviceId, memberId, talk: facts.talk, isOfRound, load };
        addPush(`push ${facts.ring} ${memberId} ${deviceId}`, job);
      }
      return devices.length > 0;
    });

  const doorNameOf = (doorId: string): string =>
    store.doors.standing().length > 1 ? (store.doors.byId(doorId)?.name ?? '') : '';

  const factsOf = (
    conversation: ConversationRecord,
    cause: Cause,
    said: Extract<Entry, { kind: 'visitor-said' }> | null,
  ): Facts => {
    const { state, id } = conversation;
    const door = lastDoorOf(store, conversation);
    return {
      ring: newId(),
      cause,
      talk: id,
      whom: threadMeant(conversation.threads)?.threadId ?? null,
      called: calledOf(store, conversation),
      door: doorNameOf(door?.id ?? ''),
      text: cause === 'back' ? '' : said?.text || state.lastWords,
      unread: state.unread.length,
      picture: said?.files.find(({ picture }) => picture)?.id ?? null,
      waiting: waiting(),
    };
  };

  const scheduleStep = (job: RingOnJob, at: number): void => {
    const now = clock.now();
    const key = `ring-on ${job.talk} ${job.step}`;
    const waitMs = Math.max(0, at - now);
    store.jobs.schedule({ key, kind: 'ring-on', load: job, notBefore: at, waitMs }, now);
  };

  const lowOf = (conversation: ConversationRecord): number | null =>
    lowAt(conversation.state, opening(lastDoorOf(store, conversation)?.id ?? ''));

  const scheduleLow = (conversation: ConversationRecord, beganAt: number): void => {
    const at = lowOf(conversation);
    const { id } = conversation;
    if (at !== null) scheduleStep({ talk: id, step: 'low', beganAt }, Math.max(at, clock.now()));
  };

  /**
   * Rings for a conversation whoever wants it, and keeps whom. While somebody has it in sight nobody is rung: they
   * are for it, unless they have not read it in a moment.
   */
  const ringFor = (
    conversation: ConversationRecord,
    round: Round,
    called: { ring: string[]; looking: string[] },
    facts: Facts,
  ): void => {
    const isSeen = called.looking.length > 0;
    const rung = isSeen ? [] : ring(called.ring, facts, true);
    store.rounds.write({ ...round, rung: [...new Set([...round.rung, ...rung])] });
    if (!isSeen) return;
    const { beganAt } = round;
    const ids = [...called.looking, ...called.ring];
    const job = { talk: conversation.id, step: 'looking' as const, beganAt, ids };
    scheduleStep(job, clock.now() + LOOKING_MS);
  };

  const canRing = (): boolean => store.bellDevices.isAny() || canMail();

  const saidSomething = (
    was: ConversationRecord,
    conversation: ConversationRecord,
    said: Extract<Entry, { kind: 'visitor-said' }>,
  ): void => {
    if (!canRing()) return;
    const open = store.rounds.of(conversation.id);
    const door = lastDoorOf(store, conversation);
    // Where somebody should be here they are called as if they were: that is how they come.
    const isNote = groupOf(conversation.state) === 'note' && !isDeserted(door?.id ?? '');
    const isFirst = was.state.waitingSince === null || was.state.aside !== null;
    const beganAt = open && !isFirst ? open.beganAt : clock.now();
    const isNew = !open || isFirst;
    const round = { conversationId: conversation.id, beganAt, seq: said.seq, rung: [] };
    const cause = isNote ? 'note' : isNew ? 'first' : 'more';
    const people = peopleFor(conversation.id);
    const passedTo = people.filter(({ id }) => id === said.tapped?.passedTo).map(({ id }) => id);
    const called = whoRings(
      people,
      passedTo.length > 0 ? passedTo : (door?.memberIds ?? null),
      { cause, doorId: door?.id ?? '' },
      clock.now(),
    );
    const known = isNew ? round : { ...open, seq: said.seq };
    ringFor(conversation, known, called, factsOf(conversation, cause, said));
    if (isNote) return;
    if (isNew) {
      for (const { step, at } of stepsFrom(rules(), beganAt)) {
        scheduleStep({ talk: conversation.id, step, beganAt }, at);
      }
    }
    scheduleLow(conversation, beganAt);
  };

  /** What may be shown of a conversation on any device goes from there. */
  const hush = (talk: string, by: string): void => {
    const name = by ? (store.members.shownOf(by)?.name ?? '') : '';
    const load: HushLoad = { say: 'hush', talk, waiting: waiting(), by: name };
    const hushing = newId();
    for (const deviceId of store.rounds.takeAlerts(talk)) {
      const memberId = store.bellDevices.byId(deviceId)?.memberId ?? '';
      addPush(`push ${hushing} ${deviceId}`, { deviceId, memberId, talk, isOfRound: false, load });
    }
  };

  /** Somebody looked, or what was owed is settled: it rings no more. */
  const looked = (talk: string, by: string): Recording[] => {
    const round = store.rounds.of(talk);
    if (round) store.rounds.end(talk);
    hush(talk, by);
    if (!round || round.rung.length === 0 || !by) return [];
    return [{ id: newId(), happening: { kind: 'looked', memberId: by } }];
  };

  /** Ringing for a conversation goes on where what was said in it stands now. */
  const joined = (from: string, into: ConversationRecord): void => {
    const round = store.rounds.of(from);
    hush(from, '');
    if (!round) return;
    store.rounds.end(from);
    if (store.rounds.of(into.id) || groupOf(into.state) !== 'waiting') return;
    store.rounds.write({ ...round, conversationId: into.id });
    for (const { step, at } of stepsFrom(rules(), round.beganAt)) {
      if (at > clock.now()) scheduleStep({ talk: into.id, step, beganAt: round.beganAt }, at);
    }
  };

  const cameBack = (was: ConversationRecord, conversation: ConversationRecord): void => {
    const { isHere, movedAt, lastAt } = was.state;
    const since = Math.max(movedAt ?? 0, lastAt);
    if (isHere || since === 0 || clock.now() - since < BACK_AFTER_MS) return;
    if (!store.bellDevices.isAny()) return;
    const door = lastDoorOf(store, conversation);
    const occasion = { cause: 'back' as const, doorId: door?.id ?? '' };
    const people = peopleFor(conversation.id);
    const called = whoRings(people, door?.memberIds ?? null, occasion, clock.now());
    ring(called.ring, factsOf(conversation, 'back', null), false);
  };

  const follow: Follow = (was, conversation, entries) => {
    const talk = conversation.id;
    const said = entries
      .filter((entry) => entry.kind === 'visitor-said')
      .filter(({ setAside }) => !setAside)
      .at(-1);
    if (said) {
      saidSomething(was, conversation, said);
      return [];
    }
    for (const entry of entries) {
      if (entry.kind === 'joined') joined(entry.from, conversation);
      if (entry.kind === 'here') cameBack(was, conversation);
      if (entry.kind === 'here' || entry.kind === 'gone') {
        const round = store.rounds.of(talk);
        if (round) scheduleLow(conversation, round.beganAt);
      }
      const upTo = entry.kind === 'team-read' ? entry.upTo : null;
      const hasSeen = upTo !== null && upTo >= (store.rounds.of(talk)?.seq ?? 0);
      if (hasSeen || settles(entry)) return looked(talk, whoActed(entry));
    }
    return [];
  };

  /** Rings on, where nobody has looked meanwhile. Call inside a transaction. */
  const ringOn = (job: RingOnJob, conversation: ConversationRecord, mail: BeginMail): void => {
    const round = store.rounds.of(conversation.id);
    if (!round || round.beganAt !== job.beganAt) return;
    const group = groupOf(conversation.state);
    // What was left as a note has no steps, but where somebody should have been here; it may be put off for a look.
    if (group !== 'waiting' && group !== 'note') return;
    const now = clock.now();
    const door = lastDoorOf(store, conversation);
    const doorId = door?.id ?? '';
    const people = peopleFor(conversation.id);
    const facts = (cause: Cause): Facts => factsOf(conversation, cause, null);
    switch (job.step) {
      case 'again':
      case 'others': {
        const about = { rung: round.rung, rules: rules(), doorId };
        const called = whoRingsOn(people, job.step, about, now);
        ringFor(conversation, round, called, facts(job.step));
        break;
      }
      case 'looking': {
        const asked = people
          .filter(({ id }) => job.ids?.includes(id))
          .map((one) => ({ ...one, isLooking: false }));
        const cause = group === 'note' && !isDeserted(doorId) ? 'note' : 'first';
        const called = whoRings(asked, null, { cause, doorId }, now);
        ringFor(conversation, round, called, facts(cause));
        break;
      }
      case 'low': {
        const at = lowOf(conversation);
        if (at !== null && at > now) {
          scheduleLow(conversation, round.beganAt);
          break;
        }
        const called = whoRings(people, door?.memberIds ?? null, { cause: 'low', doorId }, now);
        // Whoever was rung for it already is rung again by the rules, not by this.
        const fresh = called.ring.filter(
          (id) => bellOf(id).messages === 'low' || !round.rung.includes(id),
        );
        ringFor(conversation, round, { ...called, ring: fresh }, facts('low'));
        break;
      }
      case 'mail': {
        const owners = store.members
          .all()
          .filter(({ role, hasLeft }) => role === 'owner' && !hasLeft);
        const written = mail(conversation, rules().mailIds ?? owners.map(({ id }) => id));
        // Whoever was written to has been rung: a look of theirs is what came of it.
        store.rounds.write({ ...round, rung: [...new Set([...round.rung, ...written])] });
        break;
      }
    }
  };

  return {
    bellOf,
    rules,
    follow,
    ringOn,
    /** Whether ringing for a conversation still makes sense. */
    isOpen: (talk: string): boolean => store.rounds.of(talk) !== null,
    /** Rings for what is owed: whose it is, or where it is nobody's, those whom its door concerns. */
    remind: (conversation: ConversationRecord, { what, whose }: FollowUp): void => {
      const door = lastDoorOf(store, conversation);
      const concerned = whose === null ? (door?.memberIds ?? null) : [whose];
      const occasion = { cause: 'owed' as const, doorId: door?.id ?? '' };
      const { ring: ids } = whoRings(peopleFor(null), concerned, occasion, clock.now());
      const facts = factsOf(conversation, 'owed', null);
      ring(ids, { ...facts, text: what || facts.text }, false);
    },
    /** Somebody is still owed an answer, and their network will soon let it through no more. */
    windowCloses: (conversation: ConversationRecord): void => {
      const door = lastDoorOf(store, conversation);
      const occasion = { cause: 'window' as const, doorId: door?.id ?? '' };
      const people = peopleFor(conversation.id);
      const called = whoRings(people, door?.memberIds ?? null, occasion, clock.now());
      ring(called.ring, factsOf(conversation, 'window', null), false);
    },
    /** Somebody who may never have written is on a page of a website. */
    landed: async (doorId: string, page: string): Promise<void> => {
      const path = page.replace(/[?#].*$/, '');
      if (!path.startsWith('/') || !store.bellDevices.isAny()) return;
      const key = `${doorId} ${path}`;
      const isSoon = (name: string, ms: number): boolean => {
        const last = landedAt.get(name);
        return last !== undefined && clock.steady() - last < ms;
      };
      if (isSoon(key, LANDED_EVERY_MS) || isSoon(doorId, LANDED_AT_A_DOOR_EVERY_MS)) return;
      const concerned = store.doors.byId(doorId)?.memberIds ?? null;
      const occasion = { cause: 'landed' as const, doorId, path };
      const called = whoRings(peopleFor(null), concerned, occasion, clock.now());
      if (called.ring.length === 0) return;
      if (landedAt.size >= PAGES_REMEMBERED_MOST) landedAt.clear();
      landedAt.set(key, clock.steady());
      landedAt.set(doorId, clock.steady());
      const facts: Facts = {
        ring: newId(),
        cause: 'landed',
        talk: null,
        whom: null,
        called: { by: 'page', what: path },
        door: doorNameOf(doorId),
        text: '',
        unread: 0,
        picture: null,
        waiting: waiting(),
      };
      await write(() => ({ result: ring(called.ring, facts, false), news: [] }));
    },
  };
};

export type Ringing = ReturnType<typeof createRinging>;
