import {
  SHELF_PAGE,
  type ShelfChange,
  type ShelfPage,
  type ShelfShown,
} from '@porch/contract/shelf';
import {
  isOver,
  problemInThing,
  SHELF_MINUTES_MOST,
  SHELF_MOST,
  type ShelfKind,
  type ShelfProblem,
  shelfKey,
  tidyThing,
} from '@porch/core/shelf';
import type { Clock } from '../clock';
import { refuseStrangePictures } from '../files/strange';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { type ShelfPlace, type ShelfRecord, type Store, toMention } from '../store';

const refusalOf = ({ field, why, limit }: ShelfProblem): Refused => {
  if (why === 'missing') return new Refused('text-empty', { field });
  if (why === 'too-long') {
    const code = field === 'starts' ? 'too-many-of-these' : 'text-too-long';
    return new Refused(code, { field, limit });
  }
  if (field === 'minutes') {
    return new Refused('number-out-of-range', { field, limit: SHELF_MINUTES_MOST });
  }
  const isMoney = field === 'price' || field === 'currency';
  return new Refused(isMoney ? 'price-not-understood' : 'link-not-understood', { field });
};

const toMark = ({ name, id }: ShelfPlace): string =>
  Buffer.from(JSON.stringify([name, id])).toString('base64url');

const fromMark = (mark: string): ShelfPlace | null => {
  try {
    const [name, id] = JSON.parse(Buffer.from(mark, 'base64url').toString()) as unknown[];
    return typeof name === 'string' && typeof id === 'string' ? { name, id } : null;
  } catch {
    return null;
  }
};

/** What the business has to show: kept, listed and found. */
export const createShelf = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  /** Quick replies say what of the shelf goes with them. */
  repliesChanged: () => void;
}) => {
  const { store, clock, change, repliesChanged } = services;

  const shownOf = ({ fileId, ...record }: ShelfRecord): ShelfShown => {
    const file = fileId === null ? null : store.files.byId(fileId);
    return { ...record, picture: file && toMention(file), isOver: isOver(record, clock.now()) };
  };

  const find = (id: string): ShelfRecord => {
    const record = store.shelf.byId(id);
    if (!record) throw new Refused('not-found');
    return record;
  };

  const put = (id: string, { revision, thing: typed, fileId }: ShelfChange): void => {
    const known = store.shelf.byId(id);
    const thing = tidyThing(typed);
    const problem = problemInThing(thing, fileId !== null);
    if (problem) throw refusalOf(problem);
    const before = known && { ...tidyThing(known), fileId: known.fileId };
    // Said twice, or by two in the same words: once.
    if (JSON.stringify(before) === JSON.stringify({ ...thing, fileId })) return;
    if (known === null && revision > 0) throw new Refused('not-found');
    if (known !== null && known.revision !== revision) throw new Refused('changed-meanwhile');
    if (known === null && store.shelf.count() >= SHELF_MOST) {
      throw new Refused('too-many-of-these', { limit: SHELF_MOST });
    }
    const other = store.shelf.byKey(shelfKey(thing));
    if (other && other.id !== id)
      throw new Refused('shelf-taken', { field: 'name', what: other.name });
    if (fileId !== null) {
      refuseStrangePictures(store, [fileId], (one) => one === known?.fileId, 'fileId');
    }
    store.shelf.write({ ...thing, id, fileId, revision: revision + 1, changedAt: clock.now() });
    // One that is put back goes with them again.
    repliesChanged();
  };

  return {
    page: (asked: { kind: ShelfKind | null; query: string; after: string }): ShelfPage => {
      const { kind, query, after } = asked;
      const found = query.trim()
        ? store.shelf.search(query, kind, 0, SHELF_PAGE)
        : store.shelf.page(kind, fromMark(after), SHELF_PAGE + 1);
      const things = found.slice(0, SHELF_PAGE);
      const last = things.at(-1);
      return {
        things: things.map(shownOf),
        next: last && found.length > things.length ? toMark(last) : null,
        count: store.shelf.count(),
      };
    },
    of: (id: string): ShelfShown => shownOf(find(id)),
    put: (id: string, typed: ShelfChange): ShelfShown =>
      change(() => {
        put(id, typed);
        return shownOf(find(id));
      }),
    drop: (id: string): void =>
      change(() => {
        store.shelf.drop(id);
        repliesChanged();
      }),
  };
};

export type Shelf = ReturnType<typeof createShelf>;
