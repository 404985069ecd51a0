import { randomInt } from 'node:crypto';
import type { Pairing } from '@porch/contract/people';
import type { Sessions, SignedIn } from '../accounts/sessions';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { hashSecret, newId, newSecret } from '../security/tokens';
import type { Store } from '../store';
import { firstWords, secondWords } from './two-words';

/** How long a code on a screen may be used. */
export const PAIRING_MS = 2 * 60_000;
/** How long the phone may wait for the answer once it has opened the code. */
const ANSWER_MS = 2 * 60_000;
const OPEN_MOST = 200;

interface Open {
  id: string;
  memberId: string;
  /** The session on whose screen the code stands; it ends with it. */
  sessionHash: string;
  secretHash: string;
  ticketHash: string;
  state: Pairing['state'];
  words: string;
  /** On the steady clock. */
  until: number;
}

const pick = (list: readonly string[]): string => list[randomInt(list.length)] ?? '';

/**
 * A phone signs in by a code on a screen that is signed in: the phone opens it once, both show the
 * same two words, the first screen says so. In memory on purpose: no secret of it ever touches the disk.
 */
export const createPairings = (services: { store: Store; clock: Clock; sessions: Sessions }) => {
  const { store, clock, sessions } = services;
  const open = new Map<string, Open>();

  const forgetOld = (): void => {
    for (const [id, one] of open) if (one.until + PAIRING_MS < clock.steady()) open.delete(id);
    const [oldest] = open.keys();
    if (oldest && open.size >= OPEN_MOST) open.delete(oldest);
  };

  const stateOf = (one: Open): Pairing['state'] =>
    (one.state === 'waiting' || one.state === 'asking') && one.until <= clock.steady()
      ? 'stale'
      : one.state;

  const ofMember = (id: string, memberId: string): Open => {
    const one = open.get(id);
    if (!one || one.memberId !== memberId) throw new Refused('not-found');
    return one;
  };

  const shown = (one: Open): Pairing => ({
    id: one.id,
    state: stateOf(one),
    words: one.words,
    expiresAt: clock.now() + one.until - clock.steady(),
  });

  return {
    /** A new code for a member's screen; the secret is told once. */
    make: (memberId: string, sessionHash: string): { pairing: Pairing; secret: string } => {
      forgetOld();
      const secret = newSecret();
      const one: Open = {
        id: newId(),
        memberId,
        sessionHash,
        secretHash: hashSecret(secret),
        ticketHash: '',
        state: 'waiting',
        words: '',
        until: clock.steady() + PAIRING_MS,
      };
      open.set(one.id, one);
      return { pairing: shown(one), secret };
    },
    look: (id: string, memberId: string): Pairing => shown(ofMember(id, memberId)),
    /** The phone opens the code: once, and in time. Gives the words, and a ticket to collect with. */
    claim: (secret: string): { words: string; ticket: string } => {
      const secretHash = hashSecret(secret);
      const one = [...open.values()].find((other) => other.secretHash === secretHash);
      if (one && one.state !== 'waiting') throw new Refused('link-used');
      if (!one || stateOf(one) === 'stale') throw new Refused('link-stale');
      const ticket = newSecret();
      one.state = 'asking';
      one.ticketHash = hashSecret(ticket);
      one.words = `${pick(firstWords)} ${pick(secondWords)}`;
      one.until = clock.steady() + ANSWER_MS;
      return { words: one.words, ticket };
    },
    /** The first screen says whether the phone shows the same words. */
    answer: (id: string, memberId: string, isSame: boolean): Pairing => {
      const one = ofMember(id, memberId);
      if (stateOf(one) !== 'asking') throw new Refused('link-stale');
      one.state = isSame ? 'done' : 'refused';
      return shown(one);
    },
    /** The phone asks whether it may come in; when it may, it is signed in, once. */
    collect: (ticket: string): { state: Pairing['state']; signedIn: SignedIn | null } => {
      const ticketHash = hashSecret(ticket);
      const one = [...open.values()].find((other) => other.ticketHash === ticketHash);
      if (!one) throw new Refused('link-stale');
      const state = stateOf(one);
      if (state !== 'done') return { state, signedIn: null };
      one.ticketHash = '';
      const member = store.members.byId(one.memberId);
      if (!member) throw new Refused('link-stale');
      return { state, signedIn: sessions.open(member, 'phone') };
    },
    /** Ends codes, also those that were confirmed and not collected yet. */
    end: (which: (one: Pick<Open, 'memberId' | 'sessionHash'>) => boolean): void => {
      for (const one of open.values()) {
        if (!which(one)) continue;
        one.state = 'stale';
        one.secretHash = '';
      }
    },
  };
};

export type Pairings = ReturnType<typeof createPairings>;
