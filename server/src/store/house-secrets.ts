import type { Db } from './db';

/** What only the house itself needs to know, sealed; see `security/seal.ts`. */
export const houseSecretsTable = (db: Db) => {
  const find = db.prepare<[string], { sealed: Buffer }>(
    'SELECT sealed FROM house_secrets WHERE name = ?',
  );
  const write = db.prepare(
    'INSERT INTO house_secrets VALUES (?, ?) ON CONFLICT DO UPDATE SET sealed = excluded.sealed',
  );
  return {
    sealed: (name: string): Buffer | null => find.get(name)?.sealed ?? null,
    setSealed: (name: string, sealed: Buffer): void => {
      write.run(name, sealed);
    },
  };
};
