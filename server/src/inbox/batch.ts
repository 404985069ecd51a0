import { isCannotWrite } from '../disk/disk';
import type { News } from '../live/hub';
import type { Store } from '../store';
import { createTurns } from '../turns';

/** What a piece of work on the data gives back: an answer, and what others should hear of it. */
export interface Written<Result> {
  result: Result;
  news: News[];
  /** Something about the house, its doors or its team is another now. */
  isHouse?: boolean;
}

/** So long at most one transaction goes on taking what waits, in milliseconds: nobody's acknowledgement waits for a crowd. */
const BATCH_MS = 8;

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
 * them is refused all are done anew, each in a savepoint of its own, so that it takes no other with it. What is more
 * than a moment's work waits for the next transaction, doors in turn.
 * Nobody gets an answer before the commit, and the news goes out after it. A piece of work touches
 * nothing but the data: it may be done twice.
 */
export const createBatch = (
  store: Store,
  publish: (news: News[], isHouse: boolean) => void,
  report: (error: unknown) => void,
) => {
  const turns = createTurns<Waiting>();

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

  /** As many as there is time for; `picked` has them, also where one of them is refused. */
  const takeSome = (picked: Waiting[]): Outcome[] => {
    const until = performance.now() + BATCH_MS;
    const outcomes: Outcome[] = [];
    for (let one = turns.next(); one; one = turns.next()) {
      picked.push(one);
      outcomes.push(together(one));
      if (performance.now() >= until) break;
    }
    return outcomes;
  };

  const commitSome = (picked: Waiting[]): Outcome[] => {
    try {
      return store.atOnce(() => takeSome(picked));
    } catch (error) {
      if (error instanceof OneRefused) return store.atOnce(() => picked.map(apart));
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
    // Another one has taken it along.
    if (turns.isEmpty()) return;
    const picked: Waiting[] = [];
    let outcomes: Outcome[];
    try {
      outcomes = commitSome(picked);
    } catch (error) {
      // A disk that takes nothing takes nothing of what waits either, and nobody's second word overtakes their first.
      turns.empty(picked);
      for (const one of picked) one.settle({ error });
      return;
    } finally {
      // What comes in by sockets and requests has its turn between two transactions.
      if (!turns.isEmpty()) setImmediate(flush);
    }
    tell(outcomes);
    outcomes.forEach((outcome, index) => {
      const settled = 'written' in outcome ? { result: outcome.written.result } : outcome;
      picked[index]?.settle(settled);
    });
  };

  /** `lane`: whose it is (a door, a member); of one lane all is written in the order in which it was asked for. */
  const write = <Result>(work: () => Written<Result>, lane = ''): Promise<Result> =>
    new Promise((resolve, reject) => {
      if (turns.isEmpty()) setImmediate(flush);
      turns.add(lane, {
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
