import { useCallback } from 'react';
import { create } from 'zustand';

/** What is changed and not saved yet, by the place it belongs to; kept while the app is open. */
const useDrafts = create<{ drafts: Readonly<Record<string, unknown>> }>(() => ({ drafts: {} }));

/** What somebody is changing: what is saved until they do, and then what they made of it. */
export const useDraft = <Kept>(place: string, saved: Kept) => {
  const drafts = useDrafts((all) => all.drafts);
  const isChanged = place in drafts;
  const set = useCallback(
    (next: Kept) => useDrafts.setState((all) => ({ drafts: { ...all.drafts, [place]: next } })),
    [place],
  );
  const drop = useCallback(
    () => useDrafts.setState(({ drafts: { [place]: _gone, ...others } }) => ({ drafts: others })),
    [place],
  );
  return { draft: isChanged ? (drafts[place] as Kept) : saved, isChanged, set, drop };
};
