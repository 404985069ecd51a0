import { type ErrorCode, type ErrorFacts, errorStatus, type Refusal } from '@porch/contract/errors';
import type { FastifyInstance } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import type { Disk } from './disk/disk';
import { refusalsOf } from './openapi/refusals';

/** Something that was meant to be refused, with a code that a client can turn into a sentence. */
export class Refused extends Error {
  readonly code: ErrorCode;
  readonly facts: ErrorFacts;

  constructor(code: ErrorCode, facts: ErrorFacts = {}) {
    super(code);
    this.code = code;
    this.facts = facts;
  }

  toRefusal(): Refusal {
    return { code: this.code, ...this.facts };
  }
}

const toRefusal = (error: unknown, disk: Disk): Refusal => {
  if (error instanceof Refused) return error.toRefusal();
  if (disk.note(error)) return { code: 'cannot-write' };
  if (hasZodFastifySchemaValidationErrors(error)) {
    return { code: 'bad-request', field: error.validation[0]?.instancePath.slice(1) };
  }
  const status = (error as { statusCode?: number }).statusCode ?? 500;
  if (status === 413) return { code: 'too-large' };
  if (status >= 400 && status < 500) return { code: 'bad-request' };
  return { code: 'our-fault' };
};

/** A route refused with a code that its own description lacks: whoever builds on that is misled. */
export class NotDescribed extends Error {}

/**
 * What we meant passes with its code; anything else is logged in full and described to nobody. A code that a route
 * does not say of itself is reported, once, and passes all the same.
 */
export const handleErrors = (
  app: FastifyInstance,
  disk: Disk,
  report: (error: unknown) => void,
): void => {
  const reported = new Set<string>();
  app.setErrorHandler((error, request, reply) => {
    const refusal = toRefusal(error, disk);
    const { method, url, config, schema } = request.routeOptions;
    const what = `${method} ${url} refuses with ${refusal.code} and does not say so`;
    // Where no route was found nothing says anything.
    if (url && config.who && !reported.has(what)) {
      const codes = refusalsOf({
        method: request.method,
        who: config.who,
        schema: schema ?? {},
        isFromOurPages: config.isFromOurPages === true,
      });
      if (!codes.includes(refusal.code)) {
        reported.add(what);
        report(new NotDescribed(what));
      }
    }
    if (refusal.code === 'our-fault') request.log.error(error);
    // What was not read of a body would be taken for the next request.
    if (refusal.code === 'too-slow') reply.header('connection', 'close');
    return reply.status(errorStatus[refusal.code]).send(refusal);
  });
};
