import { IdSchema } from '@porch/contract/entries';
import {
  JoinSchema,
  LookAtLinkSchema,
  MeChangeSchema,
  MemberSchema,
  NewInviteSchema,
  NewPasswordLinkSchema,
  NewPasswordSchema,
  OneTimeLinkSchema,
  OpenLinkSchema,
  PasswordChangeSchema,
  RoleChangeSchema,
  SeenLinkSchema,
} from '@porch/contract/people';
import type { FastifyRequest } from 'fastify';
import { z } from 'zod';
import { askingOf, memberOf } from '../accounts/asking';
import { passwordRefusals } from '../accounts/attempts';
import { clearSession, giveSession } from '../accounts/plugin';
import { Refused } from '../refused';
import type { Routing } from '../services';

const ById = z.object({ id: IdSchema });
const nothing = { 204: z.null() };
const forTeam = { who: 'team' } as const;
const forOwner = { who: 'owner' } as const;
const forAnybody = { who: 'anybody' } as const;

/** The team: who is in it, how they come in and go, and what each may change about themselves. */
export const teamRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { team, accounts, change, limits, originOf } = services;

  const refuseCrowd = async (request: FastifyRequest): Promise<void> => {
    const waitMs = limits.links.take(request.ip);
    if (waitMs) throw new Refused('too-many', { waitMs });
  };
  /** Whoever has the secret of a link comes here; how often is looked at before anything is read. */
  const byLink = { config: forAnybody, onRequest: refuseCrowd };

  app.get(
    '/api/links',
    {
      config: forOwner,
      schema: {
        summary: 'Links by which somebody may come in',
        response: { 200: z.array(OpenLinkSchema) },
      },
    },
    async () => team.openLinks(),
  );

  app.delete(
    '/api/links/:id',
    {
      config: forOwner,
      schema: {
        summary: 'Withdraws a link by which somebody may come in',
        params: z.object({ id: z.string().max(60) }),
        response: nothing,
      },
    },
    async (request, reply) => {
      team.withdraw(request.params.id);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/api/invites',
    {
      config: forOwner,
      schema: {
        summary: 'Makes a link that invites somebody',
        refuses: ['too-many-of-these'],
        body: NewInviteSchema,
        response: { 200: OneTimeLinkSchema },
      },
    },
    async (request) => {
      const { role, name } = request.body;
      return team.invite(role, name, memberOf(request).id, originOf(request));
    },
  );

  app.post(
    '/api/links/look',
    {
      ...byLink,
      schema: {
        summary: 'What a link is for',
        refuses: ['too-many', 'link-used', 'link-stale'],
        body: LookAtLinkSchema,
        response: { 200: SeenLinkSchema },
      },
    },
    async (request) => team.look(request.body.token),
  );

  app.post(
    '/api/join',
    {
      ...byLink,
      schema: {
        summary: 'Comes in by a link',
        refuses: [
          'too-many',
          'link-used',
          'link-stale',
          'text-empty',
          'text-too-long',
          'email-not-understood',
          'email-taken',
          'password-too-short',
        ],
        body: JoinSchema,
        response: { 200: MemberSchema },
      },
    },
    async (request, reply) => giveSession(services, request, reply, await team.join(request.body)),
  );

  app.post(
    '/api/new-password',
    {
      ...byLink,
      schema: {
        summary: 'Makes a new password by a link',
        refuses: ['too-many', 'link-used', 'link-stale', 'not-found', 'password-too-short'],
        body: NewPasswordSchema,
        response: { 200: MemberSchema },
      },
    },
    async (request, reply) =>
      giveSession(services, request, reply, await team.makeNewPassword(request.body)),
  );

  app.post(
    '/api/members/:id/new-password-link',
    {
      config: forOwner,
      schema: {
        summary: 'Makes a link by which a member sets a new password',
        refuses: ['not-found', 'too-many-of-these', ...passwordRefusals],
        params: ById,
        body: NewPasswordLinkSchema,
        response: { 200: OneTimeLinkSchema },
      },
    },
    async (request) => {
      const { password } = request.body;
      const origin = originOf(request);
      return team.newPasswordLink(request.params.id, askingOf(request), password, origin);
    },
  );

  app.put(
    '/api/members/:id/role',
    {
      config: forOwner,
      schema: {
        summary: 'Says what a member may do',
        refuses: ['not-found', 'last-owner'],
        params: ById,
        body: RoleChangeSchema,
        response: nothing,
      },
    },
    async (request, reply) => {
      team.setRole(request.params.id, request.body.role);
      return reply.status(204).send(null);
    },
  );

  for (const [path, summary, work] of [
    ['sign-out', 'Signs a member out everywhere', team.signOutEverywhere],
    ['leave', 'Takes a member out of the team', team.leave],
  ] as const) {
    app.post(
      `/api/members/:id/${path}`,
      {
        config: forOwner,
        schema: { summary, refuses: ['not-found', 'last-owner'], params: ById, response: nothing },
      },
      async (request, reply) => {
        work(request.params.id);
        return reply.status(204).send(null);
      },
    );
  }

  app.post(
    '/api/me/leave',
    {
      config: forTeam,
      schema: { summary: 'Leaves the team', refuses: ['last-owner'], response: nothing },
    },
    async (request, reply) => {
      team.leave(memberOf(request).id);
      return clearSession(request, reply).status(204).send(null);
    },
  );

  app.put(
    '/api/me',
    {
      config: forTeam,
      schema: {
        summary: 'Changes one’s name',
        refuses: ['text-empty', 'text-too-long'],
        body: MeChangeSchema,
        response: { 200: MemberSchema },
      },
    },
    async (request) => {
      return change(() => accounts.changeMe(memberOf(request), request.body));
    },
  );

  app.put(
    '/api/me/password',
    {
      config: forTeam,
      schema: {
        summary: 'Changes one’s password',
        refuses: ['password-too-short', ...passwordRefusals],
        body: PasswordChangeSchema,
        response: nothing,
      },
    },
    async (request, reply) => {
      await accounts.changePassword(askingOf(request), request.body);
      return reply.status(204).send(null);
    },
  );
};
