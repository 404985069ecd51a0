import type { ConversationState } from './reducer';

/** Which conversations a line shows: all of them; others (those of a member, of a door) name a part of them. */
export const views = ['all'] as const;
export type View = (typeof views)[number];

/** In which views a conversation stands. */
export const viewsOf = (_state: ConversationState): readonly View[] => views;
