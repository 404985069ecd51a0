import type { LookedThrough } from '@porch/contract/writing';
import { type Finding, findingsIn } from '@porch/core/writing';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { api } from '../../../shell/session/api';
import { lookedThroughKey } from './own-words';

/** Whoever types is not asked about until they stop for a moment. */
const PAUSE_MS = 600;

/** What somebody typed, once they have stopped for a moment. */
const usePaused = (text: string): string => {
  const [paused, setPaused] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setPaused(text), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text]);
  return paused;
};

export interface LookThrough {
  /** By their places in the text as it is now. */
  findings: Finding[];
  /** Spelling and links are being looked at. */
  isLooking: boolean;
  /** There is no dictionary, or nobody could be asked. */
  isNotSpelled: boolean;
}

/** What may be wrong in a text: some of it at once, what a dictionary and the network know a moment later. */
export const useLookThrough = (text: string, language: string): LookThrough => {
  const paused = usePaused(text);
  const isEmpty = paused.trim() === '';
  const asked = useQuery({
    queryKey: [lookedThroughKey, language, paused],
    queryFn: () =>
      api.send<LookedThrough>('POST', '/api/looked-through', { text: paused, language }),
    enabled: !isEmpty,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  // Of a text that is another by now the places are others.
  const there = text === paused ? asked.data : undefined;
  const findings = useMemo(
    () => [...findingsIn(text), ...(there?.found ?? [])].sort((a, b) => a.from - b.from),
    [text, there],
  );
  return {
    findings,
    isLooking: !isEmpty && !asked.isError && !there,
    isNotSpelled: !isEmpty && (asked.isError || there?.isSpelled === false),
  };
};
