import { randomBytes } from 'node:crypto';
import { createStore, openDatabase } from '../store';
import { createMadeSecret } from './made-secret';
import { createSeal, type KeyFile, keyInMemory } from './seal';

const openHere = (keys: KeyFile = keyInMemory()) => {
  const store = createStore(openDatabase(':memory:'));
  const open = (opened = keys) =>
    createMadeSecret({ store, seal: createSeal(opened) }, 'test', () =>
      randomBytes(16).toString('hex'),
    );
  return { store, open };
};

describe('a secret that the house makes itself', () => {
  it('is made once, sealed, and the same after a restart', () => {
    const { store, open } = openHere();
    const secret = open().read() ?? '';
    expect(secret).toHaveLength(32);
    expect(open().read()).toBe(secret);
    expect(store.houseSecrets.sealed('test')?.includes(secret)).toBe(false);
    store.close();
  });

  it('is none that was made in a transaction that failed', () => {
    const { store, open } = openHere();
    const secret = open();
    let made: string | null = null;
    expect(() =>
      store.atOnce(() => {
        made = secret.read();
        // Asked for twice, as by two mails of one round.
        expect(secret.read()).toBe(made);
        throw new Error('refused');
      }),
    ).toThrow('refused');
    const kept = secret.read();
    expect(kept).not.toBe(made);
    expect(open().read()).toBe(kept);
    store.close();
  });

  it('is made anew where it can never be opened again, and not otherwise', () => {
    const { store, open } = openHere();
    const before = open().read();
    const secret = open(keyInMemory());
    expect(secret.read()).toBeNull();
    secret.renewIfShut();
    const after = secret.read();
    expect(after).not.toBeNull();
    expect(after).not.toBe(before);
    secret.renewIfShut();
    expect(secret.read()).toBe(after);
    store.close();
  });
});
