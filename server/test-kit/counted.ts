import { openDatabase } from '../src/store/database';
import type { Db } from '../src/store/db';

/** A database that counts how often each statement is run. */
export const openCounted = (path = ':memory:') => {
  const db = openDatabase(path);
  const counts = new Map<string, number>();
  const count = (sql: string): void => {
    const name = sql.replace(/\s+/g, ' ').trim();
    counts.set(name, (counts.get(name) ?? 0) + 1);
  };
  const counted = new Proxy(db, {
    get: (target, name) => {
      const value = Reflect.get(target, name, target);
      if (name !== 'prepare') return typeof value === 'function' ? value.bind(target) : value;
      return (sql: string) => {
        const statement = target.prepare(sql);
        return new Proxy(statement, {
          get: (of, what) => {
            const part = Reflect.get(of, what, of);
            if (typeof part !== 'function') return part;
            if (!['run', 'get', 'all', 'iterate'].includes(String(what))) {
              return (...given: unknown[]) => {
                const result = part.apply(of, given);
                return result === of ? proxyOf(of, sql) : result;
              };
            }
            return (...given: unknown[]) => {
              count(sql);
              return part.apply(of, given);
            };
          },
        });
      };
    },
  });
  const proxyOf = (of: object, sql: string): object =>
    new Proxy(of, {
      get: (target, what) => {
        const part = Reflect.get(target, what, target);
        if (typeof part !== 'function') return part;
        return (...given: unknown[]) => {
          if (['run', 'get', 'all', 'iterate'].includes(String(what))) count(sql);
          return part.apply(target, given);
        };
      },
    });
  return {
    db: counted as Db,
    /** Which statements were run since this was asked last, and how often. */
    taken: (): ReadonlyMap<string, number> => {
      const were = new Map(counts);
      counts.clear();
      return were;
    },
  };
};
