import { IdSchema } from '@porch/contract/entries';
import {
  InviteSchema,
  JoinSchema,
  LookAtLinkSchema,
  MeChangeSchema,
  MemberSchema,
  NewPasswordSchema,
  OneTimeLinkSchema,
  PasswordChangeSchema,
  RoleChangeSchema,
  SeenLinkSchema,
} from '@porch/contract/team';
import type { FastifyRequest } from 'fastify';
import { z } from 'zod';
import { COOKIE, clearSession, giveSession, memberAsking, ownerAsking } from '../accounts/plugin';
import { Refused } from '../refused';
import type { Room } from '../services';

const ById = z.object({ id: IdSchema });
const nothing = { 204: z.null() };

/** The team: who is in it, how they come in and go, and what each may change about themselves. */
export const teamRoom = async ({ app, services }: Room): Promise<void> => {
  const { team, accounts, hub, limits, originOf } = services;

  const refuseCrowd = (request: FastifyRequest): void => {
    const waitMs = limits.links.take(request.ip);
    if (waitMs) throw new Refused('too-many', { waitMs });
  };

  app.get(
    '/api/invites',
    { schema: { response: { 200: z.array(InviteSchema) } } },
    async (request) => {
      ownerAsking(services, request);
      return team.openInvites();
    },
  );

  app.post(
    '/api/invites',
    { schema: { body: RoleChangeSchema, response: { 200: OneTimeLinkSchema } } },
    async (request) => {
      ownerAsking(services, request);
      return team.invite(request.body.role, originOf(request));
    },
  );

  app.delete(
    '/api/invites/:id',
    { schema: { params: z.object({ id: z.string().max(60) }), response: nothing } },
    async (request, reply) => {
      ownerAsking(services, request);
      team.withdraw(request.params.id);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/api/links/look',
    { schema: { body: LookAtLinkSchema, response: { 200: SeenLinkSchema } } },
    async (request) => {
      refuseCrowd(request);
      return team.look(request.body.token);
    },
  );

  app.post(
    '/api/join',
    { schema: { body: JoinSchema, response: { 200: MemberSchema } } },
    async (request, reply) => {
      refuseCrowd(request);
      return giveSession(request, reply, await team.join(request.body));
    },
  );

  app.post(
    '/api/new-password',
    { schema: { body: NewPasswordSchema, response: { 200: MemberSchema } } },
    async (request, reply) => {
      refuseCrowd(request);
      return giveSession(request, reply, await team.makeNewPassword(request.body));
    },
  );

  app.post(
    '/api/members/:id/new-password-link',
    { schema: { params: ById, response: { 200: OneTimeLinkSchema } } },
    async (request) => {
      ownerAsking(services, request);
      return team.newPasswordLink(request.params.id, originOf(request));
    },
  );

  app.put(
    '/api/members/:id/role',
    { schema: { params: ById, body: RoleChangeSchema, response: nothing } },
    async (request, reply) => {
      ownerAsking(services, request);
      team.setRole(request.params.id, request.body.role);
      return reply.status(204).send(null);
    },
  );

  for (const [path, work] of [
    ['sign-out', team.signOutEverywhere],
    ['leave', team.leave],
  ] as const) {
    app.post(
      `/api/members/:id/${path}`,
      { schema: { params: ById, response: nothing } },
      async (request, reply) => {
        ownerAsking(services, request);
        work(request.params.id);
        return reply.status(204).send(null);
      },
    );
  }

  app.post('/api/me/leave', { schema: { response: nothing } }, async (request, reply) => {
    team.leave(memberAsking(services, request).id);
    return clearSession(request, reply).status(204).send(null);
  });

  app.put(
    '/api/me',
    { schema: { body: MeChangeSchema, response: { 200: MemberSchema } } },
    async (request) => {
      const changed = accounts.changeMe(memberAsking(services, request), request.body);
      hub.tellHouse();
      return changed;
    },
  );

  app.put(
    '/api/me/password',
    { schema: { body: PasswordChangeSchema, response: nothing } },
    async (request, reply) => {
      const member = memberAsking(services, request);
      const secret = request.cookies[COOKIE] ?? '';
      await accounts.changePassword(member, request.body, secret, request.ip);
      hub.closeTeam((device) => device.memberId === member.id && device.secret !== secret);
      return reply.status(204).send(null);
    },
  );
};
