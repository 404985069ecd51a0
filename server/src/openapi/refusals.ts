import { type ErrorCode, errorStatus } from '@porch/contract/errors';
import type { FastifySchema } from 'fastify';
import type { Who } from './routes';

/** What of a route says with which codes it may be refused. */
export interface RouteKind {
  method: string;
  who: Who;
  schema: FastifySchema;
  isFromOurPages: boolean;
}

const byWho: Record<Who, readonly ErrorCode[]> = {
  owner: ['sign-in-needed', 'role-not-enough'],
  team: ['sign-in-needed'],
  visitor: ['token-unknown', 'not-found', 'site-not-listed'],
  network: ['not-found', 'door-closed', 'too-many', 'secret-sealed', 'signature-wrong'],
  anybody: [],
};

const ofEvery: readonly ErrorCode[] = ['bad-request', 'our-fault'];
const ofWriting: readonly ErrorCode[] = ['cannot-write'];
/** A page that is not ours may write nothing in a member's or a visitor's name. */
const ofWritingFromPages: readonly ErrorCode[] = ['origin-not-ours'];
const ofBodies: readonly ErrorCode[] = ['too-large', 'too-slow'];

const isWriting = (method: string): boolean => !['GET', 'HEAD', 'OPTIONS'].includes(method);

/** The codes with which every route of this kind may be refused, whatever it does. */
export const refusalsOfKind = ({ method, who, schema, isFromOurPages }: RouteKind): ErrorCode[] => {
  const writes = isWriting(method);
  return [
    ...ofEvery,
    ...byWho[who],
    ...(writes ? ofWriting : []),
    ...(writes && isFromOurPages ? ofWritingFromPages : []),
    ...(writes && (schema.body || schema.consumes) ? ofBodies : []),
  ];
};

/** All codes with which a route may be refused: of its kind, and its own. */
export const refusalsOf = (route: RouteKind): ErrorCode[] => [
  ...new Set([...refusalsOfKind(route), ...(route.schema.refuses ?? [])]),
];

/** Codes by the status that they are answered with. */
export const byStatus = (codes: readonly ErrorCode[]): Map<number, ErrorCode[]> => {
  const by = new Map<number, ErrorCode[]>();
  for (const code of codes) by.set(errorStatus[code], [...(by.get(errorStatus[code]) ?? []), code]);
  return by;
};
