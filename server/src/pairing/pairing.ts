import { randomInt } from 'node:crypto';
import type { Pairing } from '@porch/contract/team';
import type { Accounts, SignedIn } from '../accounts/accounts';
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
  secretHash: string;
  ticketHash: string;
  state: Pairing['state'];
  words: string;
  expiresAt: number;
}

const pick = (list: readonly string[]): string => list[randomInt(list.length)] ?? '';

/**
 * A phone signs in by a code on a screen that is signed in: the phone opens it once, both show the
 * same two words, the first screen says so. In memory on purpose: no secret of it ever touches the disk.
 */
export const createPairings = (services: { store: Store; clock: Clock; accounts: Accounts }) => {
  const { store, clock, accounts } = services;
  const open = new Map<string, Open>();

  const forgetOld = (): void => {
    for (const [id, one] of open) if (one.expiresAt + PAIRING_MS < clock.now()) open.delete(id);
    const [oldest] = open.keys();
    if (oldest && open.size >= OPEN_MOST) open.delete(oldest);
  };

  const stateOf = (one: Open): Pairing['state'] =>
    (one.state === 'waiting' || one.state === 'asking') && one.expiresAt <= clock.now()
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
    expiresAt: one.expiresAt,
  });

  return {
    /** A new code for a member's screen; the secret is told once. */
    make: (memberId: string): { pairing: Pairing; secret: string } => {
      forgetOld();
      const secret = newSecret();
      const one: Open = {
        id: newId(),
        memberId,
        secretHash: hashSecret(secret),
        ticketHash: '',
        state: 'waiting',
        words: '',
        expiresAt: clock.now() + PAIRING_MS,
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
      one.expiresAt = clock.now() + ANSWER_MS;
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
      return { state, signedIn: accounts.open(member, 'phone') };
    },
  };
};

export type Pairings = ReturnType<typeof createPairings>;
