import {
  type Business,
  type BusinessChange,
  BusinessChangeSchema,
  BusinessSchema,
  HouseSchema,
  TickSchema,
} from '@porch/contract/house';
import { toEmail } from '@porch/core/contact';
import { countries } from '@porch/core/countries';
import { z } from 'zod';
import { requiredLine, toZone } from '../accounts/accounts';
import { Refused } from '../refused';
import type { Routing } from '../services';
import { checklistFor, formerDoors, toDoor, warningFor } from './house';

const addressOf = (typed: string): string => {
  const address = typed.trim() && toEmail(typed);
  if (address === null) throw new Refused('email-not-understood', { field: 'address' });
  return address;
};

const countryOf = (typed: string): string => {
  if (typed !== '' && !countries.includes(typed)) {
    throw new Refused('country-unknown', { field: 'country' });
  }
  return typed;
};

const changed = (business: Business, typed: BusinessChange): Business => ({
  ...business,
  ...(typed.name === undefined ? {} : { name: requiredLine(typed.name, 'name') }),
  ...(typed.zone === undefined ? {} : { zone: toZone(typed.zone) }),
  ...(typed.country === undefined ? {} : { country: countryOf(typed.country) }),
  ...(typed.address === undefined ? {} : { address: addressOf(typed.address) }),
  pictureShape: typed.pictureShape ?? business.pictureShape,
  walkStep: typed.walkStep ?? business.walkStep,
});

/** Who is asking and what house this is; and the business's own name, place and address. */
export const houseRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, disk, clock, originOf, change, mailSettings } = services;

  app.get(
    '/api/house',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'Who is asking, what house this is, and what its owner should know',
        response: { 200: HouseSchema },
      },
    },
    async (request) => {
      const me = request.asking?.me ?? null;
      const business = store.business.read();
      const isOwner = me?.role === 'owner';
      return {
        isSetUp: business !== null,
        me,
        // Before signing in nobody learns more than that somebody has set up.
        business: me ? business : null,
        // How somebody signs in is for them and the owner to know.
        team: me
          ? store.members
              .all()
              .map((one) => (isOwner || one.id === me.id ? one : { ...one, email: '' }))
          : [],
        doors: me
          ? store.doors.standing().map((door) => toDoor(door, services, originOf(request)))
          : [],
        formerDoors: me ? formerDoors(services) : [],
        checklist: me && isOwner ? checklistFor(services, me.id) : null,
        warning: me && warningFor(services, me.id),
        findings: isOwner ? store.findings.all() : [],
        deadJobs: isOwner ? store.jobs.deadCount() : 0,
        canMail: mailSettings.canAnswer(),
        canWrite: disk.canWrite(),
        now: clock.now(),
      };
    },
  );

  app.put(
    '/api/business',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Changes what the business is called and where it is',
        refuses: [
          'not-found',
          'text-empty',
          'text-too-long',
          'zone-unknown',
          'country-unknown',
          'email-not-understood',
        ],
        body: BusinessChangeSchema,
        response: { 200: BusinessSchema },
      },
    },
    async (request) => {
      const business = store.business.read();
      if (!business) throw new Refused('not-found');
      const next = changed(business, request.body);
      change(() => store.business.write(next, clock.now()));
      return next;
    },
  );

  app.delete(
    '/api/findings/:kind',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'A finding was read',
        params: z.object({ kind: z.string().max(40) }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      change(() => store.findings.drop(request.params.kind));
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/api/ticks',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Ticks off a step of the checklist',
        body: TickSchema,
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      change(() => store.ticks.set(request.body.tick, clock.now()));
      return reply.status(204).send(null);
    },
  );
};
