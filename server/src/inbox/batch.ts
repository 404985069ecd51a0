import { isCannotWrite } from '../disk/disk';
import type { News } from '../live/hub';
import type { Store } from '../store';

/** What a piece of work on the data gives back: an answer, and what others should hear of it. */
export interface Written<Result> {
  result: Result;
  news: News[];
  /** Something about the house, its doors or its team is another now. */
  isHouse?: boolean;
}

interface Waiting {
  work: () => Written<unknown>;
  settle: (outcome: { result: unknown } | { error: unknown }) => void;
}

/** One piece of work of many came to nothing; which one is found out by doing each apart. */
class OneRefused extends Error {}

type Outcome = { written: Written<unknown> } | { error: unknown };

const newsOf = (outcomes: readonly Outcome[]): News[] =>
  outcomes.flatMap((outcome) => ('written' in outcome ? outcome.written.news : []));

/**
 * Writes that come in at the same moment share one transaction, and so one wait for the disk. When one of
 * them is refused all are done anew, each in a savepoint of its own, so that it takes no other with it.
 * Nobody gets an answer before the commit, and the news goes out after it. A piece of work touches
 * nothing but the data: it may be done twice.
 */
export const createBatch = (
  store: Store,
  publish: (news: News[], isHouse: boolean) => void,
  report: (error: unknown) => void,
) => {
  let waiting: Waiting[] = [];

  const together = ({ work }: Waiting): Outcome => {
    try {
      return { written: work() };
    } catch (error) {
      throw isCannotWrite(error) ? error : new OneRefused();
    }
  };

  const apart = ({ work }: Waiting): Outcome => {
    try {
      return { written: store.atOnce(work) };
    } catch (error) {
      // A full disk ends the whole transaction, not one's own part of it.
      if (isCannotWrite(error)) throw error;
      return { error };
    }
  };

  const commit = (all: readonly Waiting[], attempt: (one: Waiting) => Outcome): Outcome[] =>
    store.atOnce(() => all.map(attempt));

  const commitAll = (all: readonly Waiting[]): Outcome[] => {
    try {
      return commit(all, together);
    } catch (error) {
      if (error instanceof OneRefused) return commit(all, apart);
      throw error;
    }
  };

  /** From here on it is written: whoever cannot be told of it is told by their next hello. */
  const tell = (outcomes: readonly Outcome[]): void => {
    const isHouse = outcomes.some((one) => 'written' in one && one.written.isHouse === true);
    try {
      publish(newsOf(outcomes), isHouse);
    } catch (error) {
      report(error);
    }
  };

  const flush = (): void => {
    const all = waiting;
    waiting = [];
    let outcomes: Outcome[];
    try {
      outcomes = commitAll(all);
    } catch (error) {
      for (const one of all) one.settle({ error });
      return;
    }
    tell(outcomes);
    outcomes.forEach((outcome, index) => {
      const settled = 'written' in outcome ? { result: outcome.written.result } : outcome;
      all[index]?.settle(settled);
    });
  };

  const write = <Result>(work: () => Written<Result>): Promise<Result> =>
    new Promise((resolve, reject) => {
      if (waiting.length === 0) setImmediate(flush);
      waiting.push({
        work,
        settle: (outcome) =>
          'error' in outcome ? reject(outcome.error) : resolve(outcome.result as Result),
      });
    });

  /** The same by itself and at once, for what is seldom and short. */
  const writeNow = <Result>(work: () => Written<Result>): Result => {
    const written = store.atOnce(work);
    tell([{ written }]);
    return written.result;
  };

  /** A change of the house, its doors or its team: in one transaction, and told once that is on disk. */
  const change = <Result>(work: () => Result): Result =>
    writeNow(() => ({ result: work(), news: [], isHouse: true }));

  return { write, writeNow, change };
};

type Batch = ReturnType<typeof createBatch>;
export type Write = Batch['write'];
export type WriteNow = Batch['writeNow'];
export type Change = Batch['change'];
