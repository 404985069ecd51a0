import type { Row } from '@porch/contract/entries';
import { router } from 'expo-router';
import { useCallback, useRef } from 'react';
import { draftFromAnswer, NEW } from '../data/draft';
import { useGapFacts } from '../data/facts';
import { useQuickReplies } from '../data/replies';
import { words } from '../words';

export const keepName = (): string => words().keep;

/** Begins a quick reply with an answer that was given to somebody, for whoever only has to look over it and save. */
export const useKeepAnswer = (row: Row | null): ((text: string) => void) => {
  const factsOf = useGapFacts();
  const { data } = useQuickReplies();
  const now = useRef({ row, factsOf, data });
  now.current = { row, factsOf, data };
  // The same for as long as the conversation is: a roll is not drawn anew for it.
  return useCallback((text) => {
    const { row, factsOf, data = [] } = now.current;
    const language = 'en';
    const facts = { ...factsOf(row, language), name: row?.state.name ?? null };
    const taken = data.map(({ code }) => code);
    draftFromAnswer(text, facts, language, taken);
    router.navigate(`/house/reply/${NEW}${row ? `?talk=${row.id}` : ''}`);
  }, []);
};
