import { hash, verify } from '@node-rs/argon2';
import type { Settings } from '../settings';

/** argon2id; the salt is made and kept inside the hash by the library. */
export const createPasswords = (cost: Settings['passwordCost']) => {
  const options = { memoryCost: cost.memoryKib, timeCost: cost.passes, parallelism: 1 };
  const nobodys = hash('nobody signs in with this', options);
  return {
    hash: (password: string): Promise<string> => hash(password, options),
    /** Takes as long for an unknown account as for a known one. */
    isRight: async (passwordHash: string | null, password: string): Promise<boolean> => {
      const right = await verify(passwordHash ?? (await nobodys), password);
      return right && passwordHash !== null;
    },
  };
};

export type Passwords = ReturnType<typeof createPasswords>;
