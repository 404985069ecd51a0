import { type Member, MemberSchema, SetUpSchema, SignInSchema } from '@porch/contract/people';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { Refused } from '../refused';
import { hashSecret, newSecret } from '../security/tokens';
import type { Routing } from '../services';
import { askingOf, COOKIE, memberOf } from './asking';
import { SESSION_MS, type SignedIn } from './sessions';

/** Knows a device again where somebody signs in; it lets nobody in. */
const DEVICE_COOKIE = 'porch-device';
const DEVICE_KNOWN_SECONDS = 400 * 24 * 3_600;

/** Over TLS as the proxy says, or as the page does that asks: that it is one of ours has been looked at. */
const isOverTls = ({ protocol, headers }: FastifyRequest): boolean =>
  protocol === 'https' || (headers.origin?.startsWith('https:') ?? false);

const cookieOf = (request: FastifyRequest) => ({
  path: '/',
  httpOnly: true,
  sameSite: 'lax' as const,
  secure: isOverTls(request),
});

const deviceSecretOf = (request: FastifyRequest): string | null =>
  request.cookies[DEVICE_COOKIE] || null;

/** Signs the device that is asking in, and knows it again the next time. */
export const giveSession = (
  { store, clock }: Pick<Routing['services'], 'store' | 'clock'>,
  request: FastifyRequest,
  reply: FastifyReply,
  { secret, member }: SignedIn,
): Member => {
  const deviceSecret = deviceSecretOf(request) ?? newSecret();
  store.knownDevices.note(hashSecret(deviceSecret), member.id, clock.now());
  reply.setCookie(COOKIE, secret, { ...cookieOf(request), maxAge: SESSION_MS / 1000 });
  reply.setCookie(DEVICE_COOKIE, deviceSecret, {
    ...cookieOf(request),
    path: '/api/',
    maxAge: DEVICE_KNOWN_SECONDS,
  });
  return member;
};

export const clearSession = (request: FastifyRequest, reply: FastifyReply): FastifyReply =>
  reply.clearCookie(COOKIE, cookieOf(request));

/** Signing in and out. */
export const accountsRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { accounts, store, change, originOf } = services;

  app.post(
    '/api/set-up',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'Opens the house, with the code that the server printed',
        refuses: [
          'already-set-up',
          'code-wrong',
          'too-many',
          'zone-unknown',
          'text-empty',
          'text-too-long',
          'email-not-understood',
          'password-too-short',
        ],
        body: SetUpSchema,
        response: { 200: MemberSchema },
      },
    },
    async (request, reply) =>
      giveSession(services, request, reply, await accounts.setUp(request.body, originOf(request))),
  );

  app.post(
    '/api/sign-in',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'Signs in',
        refuses: ['sign-in-wrong', 'sign-in-locked', 'too-many'],
        body: SignInSchema,
        response: { 200: MemberSchema },
      },
    },
    async (request, reply) => {
      const from = { address: request.ip, deviceSecret: deviceSecretOf(request) };
      return giveSession(services, request, reply, await accounts.signIn(request.body, from));
    },
  );

  // Where the app has not started yet, or never does: the page's own form, as browsers send it.
  app.addContentTypeParser(
    'application/x-www-form-urlencoded',
    { parseAs: 'string' },
    (_request, body, done) => done(null, Object.fromEntries(new URLSearchParams(String(body)))),
  );
  app.post(
    '/sign-in',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'Signs in by a plain form',
        response: { 303: z.null() },
        body: SignInSchema,
      },
    },
    async (request, reply) => {
      const from = { address: request.ip, deviceSecret: deviceSecretOf(request) };
      try {
        giveSession(services, request, reply, await accounts.signIn(request.body, from));
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        const wait = error.facts.waitMs ? `&wait=${error.facts.waitMs}` : '';
        return reply.redirect(`/sign-in?refused=${error.code}${wait}`, 303);
      }
      return reply.redirect('/line', 303);
    },
  );

  app.post(
    '/api/sign-out',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Signs out here, or everywhere',
        body: z.object({ everywhere: z.boolean() }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      accounts.signOut(askingOf(request), request.body.everywhere);
      return clearSession(request, reply).status(204).send(null);
    },
  );

  app.delete(
    '/api/me/warning',
    {
      config: { who: 'team' },
      schema: { summary: 'One’s own warning was read', response: { 204: z.null() } },
    },
    async (request, reply) => {
      change(() => store.warnings.drop(memberOf(request).id));
      return reply.status(204).send(null);
    },
  );
};
