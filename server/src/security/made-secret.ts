import type { Store } from '../store';
import type { Seal } from './seal';

/**
 * A secret of the house that it makes itself when it is first asked for, and keeps sealed under a name. What stands
 * in the database counts: what was made in a transaction that failed has never been.
 */
export const createMadeSecret = (
  { store, seal }: { store: Store; seal: Seal },
  name: string,
  make: () => string,
) => {
  let opened: { sealed: Buffer; secret: string } | null = null;

  const renew = (): Buffer => {
    const sealed = seal.seal(make(), name);
    store.houseSecrets.setSealed(name, sealed);
    return sealed;
  };

  /** Null where the key that opens it is missing, or another one. */
  const read = (): string | null => {
    const sealed = store.houseSecrets.sealed(name) ?? renew();
    if (opened?.sealed.equals(sealed)) return opened.secret;
    const secret = seal.open(sealed, name);
    opened = secret === null ? null : { sealed, secret };
    return secret;
  };

  return {
    read,
    /** Makes another one in its place; what was known by the old one is void. */
    renew: (): void => {
      renew();
    },
    /** Makes another one where this one can never be read again. */
    renewIfShut: (): void => {
      if (read() === null) renew();
    },
  };
};
