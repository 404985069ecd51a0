/** Nobody is left alone for longer, whatever they say. */
const RETRY_AFTER_LONGEST_MS = 3_600_000;

/** `Retry-After` (RFC 9110, 10.2.3): seconds or a date → milliseconds from `now`; 0 for neither. */
export const retryAfterMs = (said: string | undefined, now: number): number => {
  if (!said) return 0;
  const ms = /^\d+$/.test(said.trim()) ? Number(said) * 1_000 : Date.parse(said) - now;
  return Number.isFinite(ms) ? Math.min(RETRY_AFTER_LONGEST_MS, Math.max(0, ms)) : 0;
};
