/**
 * Everything that can be refused: a code that is never reused, and the HTTP status that goes with it.
 * The sentence that a person reads is made in the app and in the panel, from their wording tables.
 */
export const errorStatus = {
  'bad-request': 400,
  'text-empty': 400,
  'text-too-long': 400,
  'too-many-segments': 400,
  'time-not-ahead': 400,
  'site-not-understood': 400,
  'zone-unknown': 400,
  'country-unknown': 400,
  'colour-unknown': 400,
  'gap-unknown': 400,
  'pattern-not-understood': 400,
  'number-out-of-range': 400,
  'server-not-understood': 400,
  'link-not-understood': 400,
  'host-not-understood': 400,
  'too-many-of-these': 400,
  'choice-unknown': 400,
  'leads-back': 400,
  'too-deep': 400,
  'leads-nowhere': 400,
  'table-not-understood': 400,
  'json-not-understood': 400,
  'price-not-understood': 400,
  'endpoint-refused': 400,
  'keys-not-understood': 400,
  'password-too-short': 400,
  'code-wrong': 403,
  'email-not-understood': 400,
  'phone-not-understood': 400,
  'sign-in-needed': 401,
  'sign-in-wrong': 401,
  'token-unknown': 401,
  'signature-wrong': 401,
  'origin-not-ours': 403,
  'site-not-listed': 403,
  'role-not-enough': 403,
  'password-wrong': 403,
  'consent-needed': 403,
  'not-found': 404,
  'already-set-up': 409,
  'id-taken': 409,
  'email-taken': 409,
  'address-taken': 409,
  'short-code-taken': 409,
  'shelf-taken': 409,
  'changed-meanwhile': 409,
  'table-in-work': 409,
  'moved-meanwhile': 409,
  'whom-unclear': 409,
  'nothing-to-undo': 409,
  'last-owner': 409,
  'door-closed': 410,
  'contact-not-understood': 400,
  'contact-missing': 400,
  'order-not-found': 404,
  'order-not-now': 503,
  'order-taken': 409,
  'day-not-understood': 400,
  'card-gone': 410,
  'offer-over': 410,
  'shelf-gone': 410,
  'window-closed': 410,
  'door-mute': 410,
  'person-stopped': 410,
  'link-used': 410,
  'link-stale': 410,
  'too-large': 413,
  'file-empty': 400,
  'picture-too-large': 422,
  'picture-unreadable': 422,
  'picture-takes-too-long': 422,
  'file-unknown': 422,
  'sign-in-locked': 423,
  'too-slow': 408,
  'too-many': 429,
  'our-fault': 500,
  'secret-sealed': 503,
  'cannot-write': 507,
} as const;

export type ErrorCode = keyof typeof errorStatus;

export const errorCodes = Object.keys(errorStatus) as ErrorCode[];

/** The facts that a sentence about a refusal may need. */
export interface ErrorFacts {
  /** For limits: how much is allowed, in the unit of the code's sentence. */
  limit?: number;
  /** For waits: milliseconds until it is worth trying again. */
  waitMs?: number;
  /** What stands in the way, as people call it. */
  what?: string;
  /** Which field of a form it is about. */
  field?: string;
}

/** A refusal as it crosses the wire. */
export interface Refusal extends ErrorFacts {
  code: ErrorCode;
}

export const isErrorCode = (text: string): text is ErrorCode => text in errorStatus;

/** Whether the same request may succeed later by itself: no signal, a restart, a moment's crowd. */
export const isWorthRetrying = (status: number): boolean =>
  status === 0 || status === 408 || status === 429 || status >= 500;
