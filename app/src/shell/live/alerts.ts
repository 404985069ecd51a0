import type { Entry } from '@porch/core/conversation';

/**
 * Takes from this device what it shows of conversations that somebody has looked at. The service worker does it: a page
 * that asks for alerts while one is being shown makes Chromium forget that one.
 */
export const hushHere = async (talks: readonly string[]): Promise<void> => {
  if (talks.length === 0 || !('serviceWorker' in navigator)) return;
  const registration = await navigator.serviceWorker.getRegistration();
  registration?.active?.postMessage({ say: 'looked', talks });
};

/** Conversations that somebody of the team looked at, or settled. */
export const lookedAt = (entries: readonly Entry[]): string[] => [
  ...new Set(
    entries
      .filter(({ kind }) => ['team-read', 'team-said', 'wrapped-up', 'put-by'].includes(kind))
      .map(({ conversationId }) => conversationId),
  ),
];

/** How many wait, on the app's icon; where the platform shows none, nothing happens. */
export const showBadge = (waiting: number): void => {
  if (!('setAppBadge' in navigator)) return;
  const shown = waiting > 0 ? navigator.setAppBadge(waiting) : navigator.clearAppBadge();
  shown.catch(() => undefined);
};
