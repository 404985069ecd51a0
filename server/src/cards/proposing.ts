import { setImmediate } from 'node:timers/promises';
import type { CardProposal } from '@porch/contract/cards';
import { QUESTION_LONGEST } from '@porch/core/cards';
import { createMatching } from '@porch/core/match';
import { withoutGaps } from '@porch/core/replies';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import { backgroundOf } from '../replies/background';
import type { Learning } from '../replies/learning';
import type { Store } from '../store';
import type { Finding } from './finding';

const PROPOSED_MOST = 5;
/** Fewer people asked it by chance. */
const ASKED_BY_LEAST = 4;
const MESSAGES_SHOWN_MOST = 5;
const QUESTIONS_LOOKED_AT_MOST = 600;
/** What was asked longer ago is not asked any more. */
const LOOKED_BACK_MS = 120 * 24 * 3_600_000;
const NEIGHBOURS_MOST = 60;
/** So much of what a question is like itself another one has to be like it, the one way and the other. */
const ALIKE_LEAST = 0.4;
const ALIKE_MOST = 0.5;
const AT_ONCE = 20;
const KEPT_MS = 60_000;

/** The question in what somebody wrote; null where they asked none. */
const questionIn = (text: string): string | null =>
  /[^.!?\n]*\?/
    .exec(text)?.[0]
    .trim()
    .replace(/^[\p{Lu}\p{Ll}]+,\s+/u, '') || null;

interface Asked {
  id: string;
  question: string;
  /** What was answered, without what concerned one person; '' where that is not known. */
  answer: string;
  language: string;
  conversationId: string;
  at: number;
}

/** Questions that keep coming and have no card, with the real messages that say so. */
export const createProposing = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'mark'>;
  learning: Pick<Learning, 'changes'>;
  finding: Finding;
}) => {
  const { store, clock, dressing, learning, finding } = services;
  const made = new Map<string, { mark: string; at: number; proposals: Promise<CardProposal[]> }>();

  /** What was asked at a door of late, the newest first. */
  const askedAt = (doorId: string): Asked[] => {
    const since = clock.now() - LOOKED_BACK_MS;
    return store.answersGiven
      .newest()
      .slice(0, QUESTIONS_LOOKED_AT_MOST)
      .flatMap(({ seq, question, text, language }) => {
        const entry = store.entries.bySeq(seq);
        const thread = store.threads.byId(entry?.threadId ?? '');
        if (!entry || entry.at < since || thread?.doorId !== doorId) return [];
        const { conversationId, at } = entry;
        return { id: `${seq}`, question, answer: withoutGaps(text), language, conversationId, at };
      });
  };

  const propose = async (doorId: string): Promise<CardProposal[]> => {
    const asked = askedAt(doorId);
    const byId = new Map(asked.map((one) => [one.id, one]));
    const matching = createMatching(backgroundOf(store));
    for (const { id, language, question } of asked) {
      matching.add({ id, language, fields: [{ text: question, weight: 1 }] });
    }
    const likeness = new Map(asked.map(({ id }) => [id, new Map<string, number>()]));
    for (const [at, { id, question }] of asked.entries()) {
      if (at % AT_ONCE === AT_ONCE - 1) await setImmediate();
      const matches = matching.best(question, NEIGHBOURS_MOST);
      // Nothing is more like a question than itself.
      const own = matches.find((one) => one.id === id)?.fit ?? 1;
      for (const other of matches) {
        if (other.id !== id) likeness.get(id)?.set(other.id, other.fit / own);
      }
    }
    // A short question is in many a long one: each has to be like the other.
    const areAlike = (one: string, other: string): boolean => {
      const there = likeness.get(one)?.get(other) ?? 0;
      const back = likeness.get(other)?.get(one) ?? 0;
      return Math.min(there, back) >= ALIKE_LEAST && Math.max(there, back) >= ALIKE_MOST;
    };
    const groups = asked.map((one) => [
      one,
      ...[...(likeness.get(one.id)?.keys() ?? [])]
        .filter((id) => areAlike(one.id, id))
        .flatMap((id) => byId.get(id) ?? []),
    ]);
    const isTaken = new Set<string>();
    const proposals: CardProposal[] = [];
    for (const group of groups.sort((a, b) => b.length - a.length)) {
      const [first] = group;
      const rest = group.filter(({ id }) => !isTaken.has(id));
      const people = new Map(rest.map((one) => [one.conversationId, one]));
      const asks = first && questionIn(first.question);
      if (!asks || isTaken.has(first.id) || people.size < ASKED_BY_LEAST) continue;
      const { question: text, language } = first;
      if (finding.of(doorId, { text, language, isNote: true }).length > 0) continue;
      for (const { id } of rest) isTaken.add(id);
      proposals.push({
        question: asks.slice(0, QUESTION_LONGEST),
        answer: rest.find(({ answer }) => answer !== '')?.answer ?? '',
        language,
        count: people.size,
        messages: [...people.values()]
          .slice(0, MESSAGES_SHOWN_MOST)
          .map(({ conversationId, question, at }) => ({ conversationId, text: question, at })),
      });
      if (proposals.length === PROPOSED_MOST) break;
    }
    return proposals;
  };

  return {
    /** The same for a moment: it is a good deal of work, and nobody waits for it but who asks. */
    of: (doorId: string): Promise<CardProposal[]> => {
      const mark = `${dressing.mark()} ${learning.changes()}`;
      const known = made.get(doorId);
      const isFresh = known && clock.steady() - known.at < KEPT_MS && known.mark === mark;
      if (isFresh) return known.proposals;
      const proposals = propose(doorId);
      made.set(doorId, { mark, at: clock.steady(), proposals });
      proposals.catch(() => made.delete(doorId));
      return proposals;
    },
  };
};

export type Proposing = ReturnType<typeof createProposing>;
