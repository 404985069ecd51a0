import { IdSchema } from '@porch/contract/entries';
import {
  AnswerPairingSchema,
  CollectSchema,
  LookAtLinkSchema,
  NewPairingSchema,
  PairingSchema,
} from '@porch/contract/people';
import QRCode from 'qrcode';
import { z } from 'zod';
import { askingOf, memberOf } from '../accounts/asking';
import { giveSession } from '../accounts/plugin';
import { Refused } from '../refused';
import type { Routing } from '../services';

const ById = z.object({ id: IdSchema });

/** Signing a phone in by a code on a screen. */
export const pairingRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { pairings, originOf, limits, writeNow } = services;

  app.post(
    '/api/pairings',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Begins signing in a phone by a code',
        refuses: ['too-many'],
        response: { 200: NewPairingSchema },
      },
    },
    async (request) => {
      const { me, sessionHash } = askingOf(request);
      const waitMs = limits.links.take(`pairing ${me.id}`);
      if (waitMs) throw new Refused('too-many', { waitMs });
      const { pairing, secret } = pairings.make(me.id, sessionHash);
      const link = `${originOf(request)}/pair#${secret}`;
      return { ...pairing, link, picture: await QRCode.toDataURL(link, { margin: 2, scale: 6 }) };
    },
  );

  app.get(
    '/api/pairings/:id',
    {
      config: { who: 'team' },
      schema: {
        summary: 'How far signing in a phone is',
        refuses: ['not-found'],
        params: ById,
        response: { 200: PairingSchema },
      },
    },
    async (request) => pairings.look(request.params.id, memberOf(request).id),
  );

  app.post(
    '/api/pairings/:id/answer',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Says whether both devices show the same words',
        refuses: ['not-found', 'link-stale'],
        params: ById,
        body: AnswerPairingSchema,
        response: { 200: PairingSchema },
      },
    },
    async (request) =>
      pairings.answer(request.params.id, memberOf(request).id, request.body.isSame),
  );

  app.post(
    '/api/pairings/claim',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'The phone shows that it has read the code',
        refuses: ['too-many', 'link-used', 'link-stale'],
        body: LookAtLinkSchema,
        response: { 200: z.object({ words: z.string(), ticket: z.string() }) },
      },
    },
    async (request) => {
      const waitMs = limits.links.take(request.ip);
      if (waitMs) throw new Refused('too-many', { waitMs });
      return pairings.claim(request.body.token);
    },
  );

  app.post(
    '/api/pairings/collect',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'Signs in the phone, once its words were confirmed',
        refuses: ['link-stale'],
        body: LookAtLinkSchema,
        response: { 200: CollectSchema },
      },
    },
    async (request, reply) => {
      const { state, signedIn } = writeNow(() => {
        const result = pairings.collect(request.body.token);
        return { result, news: [], isHouse: result.signedIn !== undefined };
      });
      if (signedIn) giveSession(services, request, reply, signedIn);
      return { state };
    },
  );
};
