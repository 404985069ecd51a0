import { setImmediate } from 'node:timers/promises';
import type { Fit, Fits } from '@porch/contract/replies';
import type { Card } from '@porch/core/cards';
import {
  createMatching,
  fits,
  isPitch,
  type Match,
  type Matching,
  type Stored,
  tokensOf,
} from '@porch/core/match';
import { titleFor, withoutGaps } from '@porch/core/replies';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import type { Persons } from '../inbox/persons';
import { Refused } from '../refused';
import type { QuickReplyRecord, Store } from '../store';
import type { AnswerGiven } from '../store/answers-given';
import { backgroundOf } from './background';
import { answerId, askedIn, type Learning } from './learning';
import type { KeptReplies } from './replies';

const SHOWN_MOST = 3;
/** Somebody else's own ones are among the best too, and not shown. */
const LOOKED_AT_MOST = 30;
/** What was learned a moment ago can wait. */
const MADE_ANEW_AFTER_MS = 30_000;
/** So many texts are read at once; whoever else waits has a turn then. */
const TEXTS_AT_ONCE = 40;
const ROLL_LOOKED_AT = 40;
const TITLE_WEIGHT = 3;

interface Offered extends Omit<Fit, 'words'> {
  /** Whose own it is; null: everybody's. */
  memberId: string | null;
}

interface Index {
  matching: Matching;
  offered: ReadonlyMap<string, Offered>;
  madeAt: number;
  /** What was stored, and what was learned, when it was made. */
  stored: string;
  learned: number;
}

/** The same answer, given often, is one. */
const bySameWords = (given: readonly AnswerGiven[]): AnswerGiven[][] => {
  const groups = new Map<string, AnswerGiven[]>();
  for (const one of given) {
    const key = one.text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups.values()];
};

/** Which of what is stored, and of what was answered before, fits what somebody has said; nothing where none does. */
export const createFitting = (services: {
  store: Store;
  clock: Clock;
  persons: Persons;
  replies: KeptReplies;
  learning: Learning;
  dressing: Pick<Dressing, 'cards' | 'mark'>;
}) => {
  const { store, clock, persons, replies, learning, dressing } = services;
  let index: Index | null = null;
  let making: Promise<Index> | null = null;

  const questionsAfter = (kind: string, id: string): string[] =>
    store.answersGiven.picksOf(kind, id).map(({ question }) => question);

  const ofReply = (reply: QuickReplyRecord): { text: Stored; offered: Offered } => ({
    text: {
      id: reply.id,
      language: reply.language,
      fields: [
        { text: `${reply.title} ${reply.group}`, weight: TITLE_WEIGHT },
        { text: withoutGaps(reply.text), weight: 1 },
      ],
      asked: questionsAfter('reply', reply.id),
    },
    offered: { kind: 'reply', ...reply },
  });

  const ofCard = ({
    id,
    language,
    question,
    answer,
  }: Card): { text: Stored; offered: Offered } => ({
    text: {
      id,
      language,
      fields: [
        { text: question, weight: TITLE_WEIGHT },
        { text: answer, weight: 1 },
      ],
      asked: questionsAfter('card', id),
    },
    offered: { kind: 'card', id, title: question, text: answer, language, memberId: null },
  });

  const ofAnswers = (same: readonly AnswerGiven[]): { text: Stored; offered: Offered }[] => {
    const [newest] = same;
    if (!newest) return [];
    const { text, language } = newest;
    const id = answerId(newest.seq);
    // What it was first the answer to is its title; a text that is given often is no longer for that.
    const fields = [
      { text: newest.question, weight: 2 },
      { text: withoutGaps(text), weight: 0.5 },
    ];
    const asked = [...same.map(({ question }) => question), ...questionsAfter('answer', id)];
    const offered = { kind: 'answer' as const, id, title: titleFor(newest.question), text };
    return [
      { text: { id, language, fields, asked }, offered: { ...offered, language, memberId: null } },
    ];
  };

  const storedMark = (): string => `${replies.mark()} ${dressing.mark()}`;

  const make = async (): Promise<Index> => {
    const made = { stored: storedMark(), learned: learning.changes(), madeAt: clock.steady() };
    const matching = createMatching(backgroundOf(store));
    const offered = new Map<string, Offered>();
    const all = [
      ...store.quickReplies.all().map((reply) => () => [ofReply(reply)]),
      ...dressing
        .cards()
        .filter(({ answer }) => answer !== '')
        .map((card) => () => [ofCard(card)]),
      ...bySameWords(store.answersGiven.newest()).map((same) => () => ofAnswers(same)),
    ];
    for (const [at, read] of all.entries()) {
      if (at % TEXTS_AT_ONCE === TEXTS_AT_ONCE - 1) await setImmediate();
      for (const { text, offered: one } of read()) {
        matching.add(text);
        offered.set(text.id, one);
      }
    }
    return { ...made, matching, offered };
  };

  const makeAnew = (): Promise<Index> => {
    making ??= make()
      .then((made) => {
        index = made;
        return made;
      })
      .finally(() => {
        making = null;
      });
    return making;
  };

  /** What somebody has written counts at once; what was learned, a moment later, and nobody waits for that. */
  const current = async (): Promise<Index> => {
    if (!index || index.stored !== storedMark()) return makeAnew();
    const isOld = clock.steady() - index.madeAt >= MADE_ANEW_AFTER_MS;
    if (isOld && index.learned !== learning.changes()) void makeAnew();
    return index;
  };

  const shown = ({ stems }: Match, { kind, id, title, text, language }: Offered): Fit => {
    const whole = `${title}\n${text}`;
    const words = tokensOf(whole, language)
      .filter(({ stem }) => stems.has(stem))
      .map(({ from, to }) => whole.slice(from, to));
    return { kind, id, title, text, language, words: [...new Set(words)] };
  };

  return {
    /** Up to three, for what was said in a conversation since it was answered. */
    of: async (conversationId: string, memberId: string): Promise<Fits> => {
      const conversation = persons.standing(conversationId);
      if (!conversation) throw new Refused('not-found');
      const scope = persons.scopeOf(conversation);
      const roll = store.entries.rollBefore(scope, Number.MAX_SAFE_INTEGER, ROLL_LOOKED_AT);
      const { question } = askedIn(roll);
      if (question === '' || isPitch(question)) return { fits: [] };
      const { matching, offered } = await current();
      const matches = matching.best(question, LOOKED_AT_MOST).filter(({ id }) => {
        const one = offered.get(id);
        return one !== undefined && (one.memberId === null || one.memberId === memberId);
      });
      return {
        fits: fits(matches, SHOWN_MOST).flatMap((match) => {
          const one = offered.get(match.id);
          return one ? [shown(match, one)] : [];
        }),
      };
    },
  };
};
