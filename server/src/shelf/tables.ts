import { setImmediate } from 'node:timers/promises';
import type { ShelfTables, ShelfTaken } from '@porch/contract/shelf';
import {
  currencyOf,
  readShelfRow,
  SHELF_MOST,
  type ShelfCells,
  type ShelfRefusal,
  type ShelfThing,
  shelfCells,
  shelfColumns,
  shelfKey,
  tidyThing,
  toShelfCells,
} from '@porch/core/shelf';
import { fromSchemaOrg, nodesIn, SCHEMA_ORG, toSchemaOrg } from '@porch/core/shelf/schema-org';
import type { Clock } from '../clock';
import { newId } from '../security/tokens';
import type { ShelfPlace, Store } from '../store';
import { rowsOf } from '../tables/reading';
import { valuesOfJson } from '../tables/reading-json';
import { createTaking, type ReadRow } from '../tables/taking';
import { toCsv } from '../tables/writing';

type Form = 'csv' | 'json';

const columns = Object.keys(shelfColumns);
/** So many have a turn together. */
const BATCH = 100;

async function* rowsOfCsv(bytes: Buffer): AsyncGenerator<ReadRow<ShelfCells>, void, undefined> {
  for await (const { cells, ...row } of rowsOf(bytes, shelfColumns.name)) {
    yield { ...row, cells: shelfCells(cells) };
  }
}

async function* rowsOfJsonLd(bytes: Buffer): AsyncGenerator<ReadRow<ShelfCells>, void, undefined> {
  for await (const { value, ...row } of valuesOfJson(
    bytes,
    ['@graph', 'itemListElement'],
    nodesIn,
  )) {
    // What has no place on the shelf is told as a row like any other.
    yield { ...row, cells: fromSchemaOrg(value) ?? { kind: '?' } };
  }
}

/** The shelf as tables: read in as often as one likes, and written out, as CSV and in the words of schema.org. */
export const createShelfTables = ({ store, clock }: { store: Store; clock: Clock }) => {
  const place = () => {
    const { country = '', zone = 'UTC' } = store.business.read() ?? {};
    return { country, zone, currency: currencyOf(country) };
  };
  const hasPicture = (key: string): boolean => (store.shelf.byKey(key)?.fileId ?? null) !== null;

  const put = (thing: ShelfThing): 'added' | 'changed' | 'same' => {
    const before = store.shelf.byKey(shelfKey(thing));
    if (before && JSON.stringify(tidyThing(before)) === JSON.stringify(thing)) return 'same';
    // Another picture's address: that of before is none of it any more.
    const fileId = before && before.pictureUrl === thing.pictureUrl ? before.fileId : null;
    store.shelf.write({
      ...thing,
      id: before?.id ?? newId(),
      fileId,
      revision: (before?.revision ?? 0) + 1,
      changedAt: clock.now(),
    });
    return before ? 'changed' : 'added';
  };

  const table = createTaking<ShelfCells, ShelfThing, ShelfRefusal>(
    store,
    {
      read: (cells) => readShelfRow(cells, place(), hasPicture),
      whatIs: ({ name = '', sku = '' }) => name || sku,
      isKnown: (thing) => store.shelf.has(shelfKey(thing)),
      put,
      room: () => SHELF_MOST - store.shelf.count(),
    },
    { tooMany: 'too-many', broken: 'row-broken' },
  );

  async function* batches(): AsyncGenerator<ShelfThing[], void, undefined> {
    let after: ShelfPlace | null = null;
    for (;;) {
      const batch = store.shelf.page(null, after, BATCH);
      if (batch.length === 0) return;
      yield batch;
      after = batch.at(-1) ?? null;
      await setImmediate();
    }
  }

  async function* csv(): AsyncGenerator<string, void, undefined> {
    yield toCsv(columns, []);
    for await (const batch of batches()) yield toCsv(columns, batch.map(toShelfCells), false);
  }

  async function* jsonLd(): AsyncGenerator<string, void, undefined> {
    yield `{\n"@context": "${SCHEMA_ORG}",\n"@graph": [`;
    let between = '\n';
    for await (const batch of batches()) {
      yield between + batch.map((thing) => JSON.stringify(toSchemaOrg(thing))).join(',\n');
      between = ',\n';
    }
    yield '\n]\n}\n';
  }

  return {
    shown: (): ShelfTables => ({
      count: store.shelf.count(),
      progress: table.progress(),
      last: table.last(),
    }),
    /** Reads a file in; one after the other. What was taken before something breaks is kept. */
    take: (form: Form, bytes: Buffer): Promise<ShelfTaken> =>
      table.take(form === 'csv' ? rowsOfCsv(bytes) : rowsOfJsonLd(bytes)),
    /** All of it, in stretches: long shelves stand in nobody's way. */
    give: (form: Form): AsyncGenerator<string, void, undefined> =>
      form === 'csv' ? csv() : jsonLd(),
    drop: async (): Promise<void> => {
      while (store.atOnce(() => store.shelf.dropSome(BATCH))) await setImmediate();
      table.forget();
    },
  };
};
