import { randomBytes } from 'node:crypto';
import {
  type DoorChange,
  DoorChangeSchema,
  DoorSchema,
  NewDoorSchema,
} from '@porch/contract/doors';
import { IdSchema } from '@porch/contract/entries';
import { plainDress } from '@porch/core/dress';
import { type Site, toSite } from '@porch/core/website';
import { z } from 'zod';
import { requiredLine } from '../accounts/accounts';
import { toDoor } from '../house/house';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import type { Routing } from '../services';
import type { DoorRecord } from '../store';
import { refuseTooMany } from './networks';
import { WEBSITE } from './website/kind';

const PERSON_KEY_BYTES = 32;

const listed = (typed: readonly string[]): Site[] => {
  const sites = typed.map((one) => {
    const site = toSite(one);
    if (!site) throw new Refused('site-not-understood', { field: 'sites' });
    return site;
  });
  return [...new Set(sites)];
};

/** What the owner decides about the doors themselves: how many, where they may stand, for whom. */
export const teamDoorsRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, clock, change, originOf, registry } = services;

  const membersOf = (ids: readonly string[]): string[] | null => {
    if (ids.some((id) => !store.members.byId(id))) {
      throw new Refused('choice-unknown', { field: 'memberIds' });
    }
    // A door that concerned nobody would ring nowhere.
    return ids.length === 0 ? null : [...new Set(ids)];
  };

  const changed = (door: DoorRecord, typed: DoorChange): DoorRecord => ({
    ...door,
    ...(typed.name === undefined ? {} : { name: requiredLine(typed.name, 'name') }),
    ...(typed.sites === undefined
      ? {}
      : { settings: { ...door.settings, sites: listed(typed.sites) } }),
    ...(typed.isOffered === undefined
      ? {}
      : { settings: { ...door.settings, isOffered: typed.isOffered } }),
    ...(typed.memberIds === undefined
      ? {}
      : { memberIds: typed.memberIds && membersOf(typed.memberIds) }),
    ...(typed.isClosed === undefined
      ? {}
      : { closedAt: typed.isClosed ? (door.closedAt ?? clock.now()) : null }),
  });

  app.post(
    '/api/doors',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Opens a website door',
        refuses: ['too-many-of-these', 'text-empty', 'text-too-long'],
        body: NewDoorSchema,
        response: { 200: DoorSchema },
      },
    },
    async (request) => {
      refuseTooMany(store);
      const door = {
        id: newId(),
        publicId: newId(),
        kind: WEBSITE,
        name: requiredLine(request.body.name, 'name'),
        settings: { sites: [] },
        memberIds: null,
        closedAt: null,
        removedAt: null,
      };
      change(() => {
        store.doors.add(door, clock.now());
        store.dresses.publish(door.id, plainDress(request.body.language), clock.now());
      });
      return toDoor(door, services, originOf(request));
    },
  );

  app.put(
    '/api/doors/:id',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Changes a door',
        refuses: [
          'not-found',
          'text-empty',
          'text-too-long',
          'site-not-understood',
          'choice-unknown',
        ],
        params: z.object({ id: IdSchema }),
        body: DoorChangeSchema,
        response: { 200: DoorSchema },
      },
    },
    async (request) => {
      const door = store.doors.byId(request.params.id);
      if (!door || door.removedAt !== null) throw new Refused('not-found');
      const next = changed(door, request.body);
      change(() => store.doors.update(next));
      return toDoor(next, services, originOf(request));
    },
  );

  const websiteIn = (id: string): DoorRecord => {
    const door = store.doors.byId(id);
    if (door?.kind !== WEBSITE) throw new Refused('not-found');
    return door;
  };
  const InPath = z.object({ id: IdSchema });
  const KeySchema = z.object({ key: z.string().nullable() });

  app.get(
    '/api/doors/:id/person-key',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Whether a website proves who is signed in there',
        refuses: ['not-found', 'secret-sealed'],
        params: InPath,
        response: { 200: KeySchema },
      },
    },
    async (request) => ({ key: registry.personKey(websiteIn(request.params.id).id) }),
  );

  app.post(
    '/api/doors/:id/person-key',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Makes a new key by which a website proves who is signed in',
        refuses: ['not-found'],
        params: InPath,
        body: z.object({}),
        response: { 200: KeySchema },
      },
    },
    async (request) => {
      const door = websiteIn(request.params.id);
      const key = randomBytes(PERSON_KEY_BYTES).toString('base64url');
      change(() => registry.setSecret(door.id, key));
      return { key };
    },
  );
};
