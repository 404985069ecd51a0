import type { Refusal } from '@porch/contract/errors';

/** A request that was refused, or (status 0) never reached the server. */
export class ApiError extends Error {
  readonly refusal: Refusal;
  readonly status: number;

  constructor(status: number, refusal: Refusal) {
    super(refusal.code);
    this.status = status;
    this.refusal = refusal;
  }
}

const ASKED_AGAIN_MOST = 3;

/** A refusal stays a refusal; only what never arrived is asked again, and only where there is signal. */
export const isWorthAskingAgain = (failures: number, error: unknown): boolean => {
  if (error instanceof ApiError && error.status >= 400) return false;
  return failures < ASKED_AGAIN_MOST && navigator.onLine !== false;
};

/** Whether asking again would change nothing: not while the answer is only lost, late or put off. */
export const isFinal = (error: unknown): boolean =>
  error instanceof ApiError &&
  error.status >= 400 &&
  error.status < 500 &&
  error.refusal.code !== 'too-many';
