import type { TrialData } from '@porch/contract/visitor';
import type { Remember } from './remember';
import type { Draft } from './stand';
import { trialKey } from './trial-key';

/** The owner's draft on their own website; its token comes in the fragment and stays for the visit. */
export const tryOn = async (
  origin: string,
  door: string,
  language: string | undefined,
  remember: Remember,
): Promise<(TrialData & Draft) | null> => {
  const given = new RegExp(`${trialKey}=([\\w-]+)`).exec(location.hash)?.[1] ?? null;
  if (given) history.replaceState(history.state, '', location.pathname + location.search);
  // Where storage is forbidden the trial lasts for this page.
  const token = remember('sessionStorage', trialKey, given) ?? given;
  if (!token) return null;
  const response = await fetch(`${origin}/door/${door}/trial?language=${language}`, {
    headers: { authorization: `Bearer ${token}` },
  }).catch(() => null);
  return response?.ok ? { ...((await response.json()) as TrialData), place: 'trial' } : null;
};
