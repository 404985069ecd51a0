import type { Deed } from '@porch/contract/line';
import type { Details, Entry, FileMention, Owed } from '@porch/core/conversation';
import { cleanLine, cleanMessage } from '@porch/core/text';

interface Words {
  text: string;
  fileIds: string[];
}

const areSameWords = (kept: { text: string; files: FileMention[] }, said: Words): boolean =>
  kept.text === cleanMessage(said.text) &&
  kept.files.map(({ id }) => id).join() === said.fileIds.join();

/** Whether a visitor's message that comes under an id which is taken is that message once more. */
export const isSameMessage = (kept: Entry, said: Words): boolean =>
  kept.kind === 'visitor-said' && areSameWords(kept, said);

/** The same for what a visitor says of themselves, as it would be kept. */
export const isSameDetails = (kept: Entry, given: Details): boolean =>
  kept.kind === 'details' &&
  (['name', 'email', 'phone'] as const).every((field) => kept[field] === given[field]) &&
  JSON.stringify(kept.own ?? []) === JSON.stringify(given.own ?? []);

const areSameOwed = (kept: Owed, said: Owed): boolean =>
  kept.what === cleanLine(said.what) &&
  kept.dueAt === said.dueAt &&
  kept.remindAt === said.remindAt &&
  kept.whose === said.whose;

/** Whether those who went are whom was asked for, or everybody else: whoever began a conversation keeps it. */
const areParted = (went: readonly string[], asked: readonly string[]): boolean => {
  const isAsked = (id: string): boolean => asked.includes(id);
  const areThese = went.every(isAsked) && asked.every((id) => went.includes(id));
  return areThese || !went.some(isAsked);
};

/** The same for a member's deed. */
export const isSameDeed = (kept: Entry, deed: Deed, memberId: string): boolean => {
  if (!('memberId' in kept) || kept.memberId !== memberId) return false;
  switch (deed.do) {
    case 'say':
      return (
        kept.kind === 'team-said' &&
        areSameWords(kept, deed) &&
        (kept.shelf ?? []).map(({ id }) => id).join() === [...new Set(deed.shelf)].join()
      );
    case 'read':
      return kept.kind === 'team-read';
    case 'wrap-up':
      return kept.kind === 'wrapped-up';
    case 'put-by':
      return kept.kind === 'put-by' && kept.until === deed.until;
    case 'take-back':
      return kept.kind === 'taken-back';
    case 'owe':
      return kept.kind === 'owed' && areSameOwed(kept, deed);
    case 'owe-otherwise':
      return kept.kind === 'owed-changed' && kept.of === deed.of && areSameOwed(kept, deed);
    case 'owe-done':
      return kept.kind === 'owed-done' && kept.of === deed.of;
    case 'owe-again':
      return kept.kind === 'owed-undone' && kept.of === deed.of;
    case 'own-mail':
      return kept.kind === 'held-decided' && kept.of === deed.of && kept.isTheirs === deed.isTheirs;
    case 'join':
      return kept.kind === 'joined' && kept.from === deed.other;
    case 'part':
      return kept.kind === 'parted' && areParted(kept.threadIds, deed.threadIds);
  }
};
