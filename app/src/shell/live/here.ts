/** Somebody who goes on doing things is told of again after so long. */
const TOLD_EVERY_MS = 60_000;

const touches = ['pointerdown', 'keydown', 'wheel'] as const;

/**
 * Whether the app is in sight on this device, and whether somebody has just done something on it: by that visitors are
 * told that somebody is here. `tell` gets both whenever there is something new to say. Gives what is to be called on
 * each new connection, which knows nothing of it, and what ends it.
 */
export const watchHere = (
  tell: (here: { isInSight: boolean; isTouched: boolean }) => void,
): { connected: () => void; stop: () => void } => {
  const isInSight = (): boolean => document.visibilityState === 'visible';
  // Whoever opens it is there.
  let touchedAt = isInSight() ? Date.now() : Number.NEGATIVE_INFINITY;
  let toldAt = Number.NEGATIVE_INFINITY;
  const say = (): void => {
    const isTouched = Date.now() - touchedAt < TOLD_EVERY_MS;
    if (isTouched) toldAt = Date.now();
    tell({ isInSight: isInSight(), isTouched });
  };
  const touched = (): void => {
    touchedAt = Date.now();
    if (touchedAt - toldAt >= TOLD_EVERY_MS) say();
  };
  const looked = (): void => {
    if (isInSight()) touchedAt = Date.now();
    say();
  };
  document.addEventListener('visibilitychange', looked);
  for (const touch of touches) addEventListener(touch, touched, { capture: true, passive: true });
  return {
    connected: say,
    stop: () => {
      document.removeEventListener('visibilitychange', looked);
      for (const touch of touches) removeEventListener(touch, touched, { capture: true });
    },
  };
};
