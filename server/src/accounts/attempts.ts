import type { ErrorCode } from '@porch/contract/errors';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { addressKey } from '../security/addresses';
import type { Buckets } from '../security/bucket';
import { hashSecret } from '../security/tokens';
import type { Store } from '../store';
import { afterFailure, FREE_TRIES, isLocked, waitMsOf } from './tries';

/** How long a try at an account waits for its answer once many have been wrong, from wherever they came. */
export const SLOWED_MS = 4_000;

/** With which codes a member's own password is refused. */
export const passwordRefusals: readonly ErrorCode[] = [
  'password-wrong',
  'sign-in-locked',
  'too-many',
];

interface Subject {
  name: string;
  free: number;
}

const at = (address: string): Subject => ({
  name: `address ${addressKey(address)}`,
  free: FREE_TRIES.address,
});

/**
 * Wrong passwords. They are counted by account and address together, so that a stranger who knows
 * somebody's email keeps nobody out but themselves, and by address alone, so that nobody tries one
 * password at many accounts. A device on which the same person has signed in before is counted apart.
 * Many wrong tries at one account from many addresses are slowed down and never refused.
 */
export const createAttempts = (services: { store: Store; clock: Clock; crowds: Buckets }) => {
  const { store, clock, crowds } = services;

  const refuseIfTooSoon = (subjects: readonly Subject[]): void => {
    const now = clock.steady();
    for (const { name, free } of subjects) {
      const tries = store.tries.find(name);
      const waitMs = waitMsOf(tries, now);
      if (!tries || waitMs === 0) continue;
      throw new Refused(isLocked(tries, free) ? 'sign-in-locked' : 'too-many', { waitMs });
    }
  };

  const note = (subjects: readonly Subject[]): void =>
    store.atOnce(() => {
      for (const { name, free } of subjects) {
        store.tries.write(name, afterFailure(store.tries.find(name), clock.steady(), free));
      }
    });

  /** Counted before the slow check, so that tries sent all at once do not slip through together. */
  const begin = (subjects: readonly Subject[]) => {
    refuseIfTooSoon(subjects);
    note(subjects);
    return {
      /** The password was right: nothing was counted. */
      wasRight: (): void => {
        for (const { name } of subjects) store.tries.forget(name);
      },
    };
  };

  return {
    /** A try to sign in; `knownDevice` is the hash of a device on which this account was signed in before. */
    signIn: async (email: string, address: string, knownDevice: string | null) => {
      if (knownDevice) return begin([{ name: `device ${knownDevice}`, free: FREE_TRIES.account }]);
      const pair = `${hashSecret(email)} from ${addressKey(address)}`;
      const attempt = begin([{ name: pair, free: FREE_TRIES.account }, at(address)]);
      // The same for an account that there is not: how long it takes tells nobody anything.
      if (crowds.take(hashSecret(email))) await clock.wait(SLOWED_MS);
      return attempt;
    },
    /** A try at the password of somebody who is signed in already. */
    ofMember: (memberId: string, address: string) =>
      begin([{ name: `password ${memberId}`, free: FREE_TRIES.account }, at(address)]),
  };
};

export type Attempts = ReturnType<typeof createAttempts>;
