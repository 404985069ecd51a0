import { type Member, MemberSchema, SetUpSchema, SignInSchema } from '@porch/contract/team';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { Refused } from '../refused';
import type { Room } from '../services';
import { SESSION_MS, type SignedIn } from './accounts';

export const COOKIE = 'porch';

const cookieOf = (request: FastifyRequest) => ({
  path: '/',
  httpOnly: true,
  sameSite: 'lax' as const,
  secure: request.protocol === 'https',
});

/** The member whose device is asking. Refuses with `sign-in-needed` when there is none. */
export const memberAsking = (
  { accounts }: Pick<Room['services'], 'accounts'>,
  request: FastifyRequest,
): Member => {
  const secret = request.cookies[COOKIE];
  const member = secret ? accounts.memberOf(secret) : null;
  if (!member) throw new Refused('sign-in-needed');
  return member;
};

/** The same, where only an owner may: refuses a helper with `role-not-enough`. */
export const ownerAsking = (
  services: Pick<Room['services'], 'accounts'>,
  request: FastifyRequest,
): Member => {
  const member = memberAsking(services, request);
  if (member.role !== 'owner') throw new Refused('role-not-enough');
  return member;
};

/** Signs the device that is asking in. */
export const giveSession = (
  request: FastifyRequest,
  reply: FastifyReply,
  { secret, member }: SignedIn,
): Member => {
  reply.setCookie(COOKIE, secret, { ...cookieOf(request), maxAge: SESSION_MS / 1000 });
  return member;
};

export const clearSession = (request: FastifyRequest, reply: FastifyReply): FastifyReply =>
  reply.clearCookie(COOKIE, cookieOf(request));

/** Signing in and out. */
export const accountsRoom = async ({ app, services }: Room): Promise<void> => {
  const { accounts, hub } = services;

  app.post(
    '/api/set-up',
    { schema: { body: SetUpSchema, response: { 200: MemberSchema } } },
    async (request, reply) => giveSession(request, reply, await accounts.setUp(request.body)),
  );

  app.post(
    '/api/sign-in',
    { schema: { body: SignInSchema, response: { 200: MemberSchema } } },
    async (request, reply) =>
      giveSession(request, reply, await accounts.signIn(request.body, request.ip)),
  );

  app.post(
    '/api/sign-out',
    { schema: { body: z.object({ everywhere: z.boolean() }), response: { 204: z.null() } } },
    async (request, reply) => {
      const member = memberAsking(services, request);
      const secret = request.cookies[COOKIE] ?? '';
      if (request.body.everywhere) {
        accounts.signOutEverywhere(member.id);
        hub.closeTeam((device) => device.memberId === member.id);
      } else {
        accounts.signOut(secret);
        hub.closeTeam((device) => device.secret === secret);
      }
      return clearSession(request, reply).status(204).send(null);
    },
  );
};
