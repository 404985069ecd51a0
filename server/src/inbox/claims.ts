import { randomBytes } from 'node:crypto';
import { CLAIM_BYTES, claimCode, claimsIn } from '@porch/core/claims';
import type { Clock } from '../clock';
import type { Buckets } from '../security/bucket';
import type { Store } from '../store';

/** So long a code is good. */
const CLAIM_MS = 30 * 60_000;
/** One that is still good for so long is shown again. */
const LEFT_ENOUGH_MS = 10 * 60_000;

/** Codes by which somebody goes on with their conversation at another door. */
export const createClaims = (services: { store: Store; clock: Clock; tries: Buckets }) => {
  const { store, clock, tries } = services;
  return {
    /** In a transaction: the code of a thread, good for a while, and once. */
    codeFor: (threadId: string): string => {
      const known = store.claims.of(threadId, clock.now() + LEFT_ENOUGH_MS);
      if (known) return known;
      for (;;) {
        const code = claimCode(randomBytes(CLAIM_BYTES));
        if (store.claims.add(code, threadId, clock.now() + CLAIM_MS)) return code;
      }
    },
    /**
     * Whose thread somebody goes on with by what they say at another door; null: nobody's. Whoever tries codes gets
     * nowhere: few tries are looked at.
     */
    threadIn: (text: string, byThreadId: string): string | null => {
      for (const code of claimsIn(text)) {
        if (tries.take(byThreadId)) return null;
        const claim = store.claims.take(code);
        if (claim && claim.until > clock.now()) return claim.threadId;
      }
      return null;
    },
    tidy: (): void => store.claims.dropBefore(clock.now()),
  };
};

export type Claims = ReturnType<typeof createClaims>;
