import { randomInt } from 'node:crypto';
import { Refused } from '../refused';
import type { Buckets } from '../security/bucket';
import { hashSecret } from '../security/tokens';

/** Without letters and digits that are taken for one another. */
const alphabet = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const LENGTH = 8;

const made = (): string =>
  Array.from({ length: LENGTH }, () => alphabet[randomInt(alphabet.length)]).join('');

const plain = (typed: string): string => typed.toUpperCase().replace(/[^0-9A-Z]/g, '');

/**
 * The code that is printed where the server starts while nobody has set it up: whoever can read that
 * owns the house. In memory on purpose: another start prints another one.
 */
export const createFirstCode = (isSetUp: boolean, tries: Buckets) => {
  let code: string | null = isSetUp ? null : made();
  return {
    /** As people read it, "K7QM-2XWP"; null once there is nothing to set up. */
    shown: (): string | null => code && `${code.slice(0, LENGTH / 2)}-${code.slice(LENGTH / 2)}`,
    /** Refuses any other code, and too many of them; there are more of these (31^8) than anybody can try meanwhile. */
    check: (typed: string): void => {
      if (code !== null && hashSecret(plain(typed)) === hashSecret(code)) return;
      // Behind a proxy all may come from one address: whoever guesses keeps nobody out who knows it.
      const waitMs = tries.take('first code');
      if (waitMs) throw new Refused('too-many', { waitMs });
      throw new Refused('code-wrong', { field: 'code' });
    },
    end: (): void => {
      code = null;
    },
  };
};

export type FirstCode = ReturnType<typeof createFirstCode>;
