import type { Entry, Picked } from '@porch/core/conversation';
import { firstNameOf, toStored } from '@porch/core/replies';
import type { Dressing } from '../dress/dressing';
import { forEach } from '../inbox/afterwards';
import type { Persons } from '../inbox/persons';
import type { Store } from '../store';

/** So far back it is looked for what was asked. */
const LOOKED_BACK_MOST = 20;
const QUESTION_LONGEST = 600;
/** Less is no answer that anybody else could be given; more is a letter. */
const ANSWER_SHORTEST = 12;
const ANSWER_LONGEST = 800;

type Said = Entry & { kind: 'visitor-said' };
type Answer = Entry & { kind: 'team-said' };

const isQuestion = (entry: Entry): entry is Said =>
  entry.kind === 'visitor-said' &&
  !entry.setAside &&
  !entry.tapped &&
  !entry.call &&
  entry.text !== '';

/** What somebody said since they were answered last, and in which language; oldest first. */
export const askedIn = (entries: readonly Entry[]): { question: string; language: string } => {
  const lastAnswer = entries.findLastIndex(({ kind }) => kind === 'team-said');
  const said = entries.slice(lastAnswer + 1).filter(isQuestion);
  const question = said
    .map(({ text }) => text)
    .join('\n')
    .slice(-QUESTION_LONGEST);
  return { question, language: said.findLast(({ language }) => language)?.language ?? 'en' };
};

/** The id by which an answer that was given is picked again. */
export const answerId = (seq: number): string => `answer-${String(seq).padStart(12, '0')}`;

/** The seq in such an id. */
const seqIn = (id: string): number => Number(id.slice('answer-'.length)) || 0;

/** What was picked for which question, and what was answered to which, as it is written. */
export const createLearning = (services: {
  store: Store;
  dressing: Pick<Dressing, 'cards'>;
  persons: Pick<Persons, 'standing'>;
  /** Brings what is learned up to date. */
  catchUp: () => void;
}) => {
  const { store, dressing, persons, catchUp } = services;
  let changes = 0;

  /** A device without signal may pick what is not there any more. */
  const isThere = ({ kind, id }: Picked): boolean => {
    switch (kind) {
      case 'reply':
        return store.quickReplies.byId(id) !== null;
      case 'card':
        return dressing.cards().some((card) => card.id === id);
      case 'answer':
        return store.answersGiven.bySeq(seqIn(id)) !== null;
    }
  };

  const learn = (answer: Answer, name: string): void => {
    const before = store.entries.threadBefore(answer.threadId ?? '', answer.seq, LOOKED_BACK_MOST);
    const { question, language } = askedIn(before);
    const { picked, seq } = answer;
    const isKnown = picked !== undefined && isThere(picked);
    if (isKnown && picked.kind === 'reply') store.quickReplies.use(picked.id, answer.at);
    if (question === '') return;
    if (isKnown) store.answersGiven.addPick({ ...picked, question }, seq);
    else if (answer.text.length >= ANSWER_SHORTEST && answer.text.length <= ANSWER_LONGEST) {
      const member = store.members.byId(answer.memberId);
      const text = toStored(answer.text, {
        'first name': firstNameOf(name),
        name,
        'my name': member?.publicName || member?.name || null,
        business: store.business.read()?.name ?? null,
      });
      store.answersGiven.add({ seq, question, text, language });
    }
    changes += 1;
  };

  const afterwards = forEach((entry) => {
    if (entry.kind !== 'team-said') return;
    learn(entry, persons.standing(entry.threadId ?? '')?.state.name ?? '');
  });

  return {
    afterwards,
    /** Another number when something was learned. */
    changes: (): number => {
      catchUp();
      return changes;
    },
  };
};

export type Learning = ReturnType<typeof createLearning>;
