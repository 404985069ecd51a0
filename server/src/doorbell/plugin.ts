import {
  ArrivedSchema,
  BellDeviceSchema,
  DoorbellSchema,
  MuteSchema,
  MyDoorbellSchema,
  NewBellDeviceSchema,
  RingOnSchema,
  TrialRingSchema,
} from '@porch/contract/doorbell';
import { IdSchema } from '@porch/contract/entries';
import type { Doorbell, RingOn } from '@porch/core/ringing';
import { cleanLine } from '@porch/core/text';
import { z } from 'zod';
import { toZone } from '../accounts/accounts';
import { askingOf, memberOf } from '../accounts/asking';
import { Refused } from '../refused';
import type { Routing } from '../services';

const ById = z.object({ id: IdSchema });
const nothing = { 204: z.null() };
const forTeam = { who: 'team' } as const;

/** How somebody is rung, on what, and what happens while nobody looks. */
export const doorbellRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, ringing, bellDevices, vapid, change, limits, mailSettings, replyAddresses } =
    services;

  const cleaned = (typed: Doorbell): Doorbell => {
    const shortReply = cleanLine(typed.shortReply);
    if (typed.buttons.includes('short-reply') && !shortReply) {
      throw new Refused('text-empty', { field: 'shortReply' });
    }
    const { quiet } = typed;
    return { ...typed, shortReply, quiet: { ...quiet, zone: toZone(quiet.zone) } };
  };

  const refuseUnknown = ({ otherIds, mailIds }: RingOn): void => {
    for (const id of [...(otherIds ?? []), ...(mailIds ?? [])]) {
      if (!store.members.byId(id)) throw new Refused('not-found');
    }
  };

  app.get(
    '/api/doorbell',
    {
      config: forTeam,
      schema: { summary: 'How one is rung', response: { 200: MyDoorbellSchema } },
    },
    async (request) => {
      const { id } = memberOf(request);
      return {
        doorbell: ringing.bellOf(id),
        devices: bellDevices.of(id),
        ringOn: ringing.rules(),
        canMail: mailSettings.goesOut(),
        publicKey: vapid.keys()?.publicKey ?? null,
      };
    },
  );

  app.put(
    '/api/doorbell',
    {
      config: forTeam,
      schema: {
        summary: 'Changes how one is rung',
        refuses: ['text-empty', 'zone-unknown'],
        body: DoorbellSchema,
        response: { 200: DoorbellSchema },
      },
    },
    async (request) => {
      const doorbell = cleaned(request.body);
      change(() => store.doorbells.write(memberOf(request).id, doorbell));
      return doorbell;
    },
  );

  app.put(
    '/api/ring-on',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'What happens while nobody looks',
        refuses: ['not-found'],
        body: RingOnSchema,
        response: { 200: RingOnSchema },
      },
    },
    async (request) => {
      refuseUnknown(request.body);
      change(() => store.doorbells.setRingOn(request.body));
      return request.body;
    },
  );

  app.put(
    '/api/bell-devices/:id',
    {
      config: forTeam,
      schema: {
        summary: 'This device is to ring',
        refuses: [
          'secret-sealed',
          'endpoint-refused',
          'keys-not-understood',
          'text-empty',
          'text-too-long',
          'id-taken',
          'too-many-of-these',
        ],
        params: ById,
        body: NewBellDeviceSchema,
        response: { 200: BellDeviceSchema },
      },
    },
    async (request) => {
      if (!vapid.keys()) throw new Refused('secret-sealed');
      return bellDevices.put(request.params.id, request.body, askingOf(request));
    },
  );

  app.put(
    '/api/bell-devices/:id/mute',
    {
      config: forTeam,
      schema: {
        summary: 'A device is not to ring for now',
        refuses: ['not-found'],
        params: ById,
        body: MuteSchema,
        response: nothing,
      },
    },
    async (request, reply) => {
      bellDevices.mute(request.params.id, request.body.isMuted, memberOf(request).id);
      return reply.status(204).send(null);
    },
  );

  app.delete(
    '/api/bell-devices/:id',
    {
      config: forTeam,
      schema: {
        summary: 'A device is to ring no more',
        refuses: ['not-found'],
        params: ById,
        response: nothing,
      },
    },
    async (request, reply) => {
      bellDevices.remove(request.params.id, memberOf(request).id);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/api/bell-devices/:id/trial',
    {
      config: forTeam,
      schema: {
        summary: 'Rings a device to try it',
        refuses: ['not-found', 'too-many'],
        params: ById,
        response: { 200: TrialRingSchema },
      },
    },
    async (request) => {
      const { id } = memberOf(request);
      const waitMs = limits.trialRings.take(id);
      if (waitMs) throw new Refused('too-many', { waitMs });
      return bellDevices.tryOut(request.params.id, id);
    },
  );

  app.get(
    '/api/bell-devices/:id/trial',
    {
      config: forTeam,
      schema: {
        summary: 'Whether a ring to try a device has arrived',
        refuses: ['not-found'],
        params: ById,
        response: { 200: TrialRingSchema.nullable() },
      },
    },
    async (request) => bellDevices.trialOf(request.params.id, memberOf(request).id),
  );

  app.post(
    '/api/bell-devices/:id/arrived',
    {
      config: forTeam,
      schema: {
        summary: 'A ring has arrived',
        refuses: ['not-found'],
        params: ById,
        body: ArrivedSchema,
        response: nothing,
      },
    },
    async (request, reply) => {
      bellDevices.arrived(request.params.id, request.body.ring, memberOf(request).id);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/api/doorbell/new-keys',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Makes new keys for ringing',
        refuses: ['nothing-to-undo'],
        response: nothing,
      },
    },
    async (_request, reply) => {
      // Only where nothing can be rung any more: devices that work would be lost by it.
      if (!vapid.isSealedShut()) throw new Refused('nothing-to-undo');
      change(() => {
        vapid.renew();
        replyAddresses.renewIfShut();
        for (const { id } of store.members.all()) {
          for (const device of store.bellDevices.of(id)) store.bellDevices.drop(device.id);
        }
      });
      return reply.status(204).send(null);
    },
  );
};
