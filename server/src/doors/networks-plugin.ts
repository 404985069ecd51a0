import {
  NetworkDoorChangeSchema,
  NetworkDoorSchema,
  NetworkKindSchema,
  NewNetworkDoorSchema,
} from '@porch/contract/doors';
import { IdSchema } from '@porch/contract/entries';
import { z } from 'zod';
import type { Routing } from '../services';
import { givenRefusals } from './networks';

const InPath = z.object({ id: IdSchema });
const forOwner = { who: 'owner' } as const;
const shows = { 200: NetworkDoorSchema };

/** Opening doors to networks, and seeing to them. */
export const networkDoorsRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { networks, originOf } = services;

  app.post(
    '/api/network-doors',
    {
      config: forOwner,
      schema: {
        summary: 'Opens a door to a network',
        refuses: [...givenRefusals],
        body: NewNetworkDoorSchema,
        response: shows,
      },
    },
    async (request) => {
      const { kind, name, given } = request.body;
      return networks.shown(networks.make(kind, name, given), originOf(request));
    },
  );

  app.get(
    '/api/network-doors',
    {
      config: forOwner,
      schema: {
        summary: 'Doors to networks, and whether all is well with them',
        response: { 200: z.object({ kinds: z.array(NetworkKindSchema) }) },
      },
    },
    async () => ({ kinds: services.registry.networks() }),
  );

  app.get(
    '/api/network-doors/:id',
    {
      config: forOwner,
      schema: {
        summary: 'A door to a network',
        refuses: ['not-found', 'secret-sealed'],
        params: InPath,
        response: shows,
      },
    },
    async (request) => networks.shown(request.params.id, originOf(request)),
  );

  app.put(
    '/api/network-doors/:id',
    {
      config: forOwner,
      schema: {
        summary: 'Changes a door to a network',
        refuses: ['not-found', 'secret-sealed', ...givenRefusals],
        params: InPath,
        body: NetworkDoorChangeSchema,
        response: shows,
      },
    },
    async (request) => {
      const { id } = request.params;
      networks.set(id, request.body.given);
      return networks.shown(id, originOf(request));
    },
  );

  app.delete(
    '/api/network-doors/:id',
    {
      config: forOwner,
      schema: {
        summary: 'Closes a door to a network',
        refuses: ['not-found'],
        params: InPath,
        response: { 200: z.object({}) },
      },
    },
    async (request) => {
      networks.remove(request.params.id);
      return {};
    },
  );

  app.post(
    '/api/network-doors/:id/key',
    {
      config: forOwner,
      schema: {
        summary: 'Makes a new key for a door to a network',
        refuses: ['not-found', 'secret-sealed'],
        params: InPath,
        body: z.object({}),
        response: shows,
      },
    },
    async (request) => {
      const { id } = request.params;
      networks.renewKey(id);
      return networks.shown(id, originOf(request));
    },
  );

  app.post(
    '/api/network-doors/:id/check',
    {
      config: forOwner,
      schema: {
        summary: 'Tries whether a door to a network works',
        refuses: ['not-found', 'secret-sealed'],
        params: InPath,
        body: z.object({}),
        response: shows,
      },
    },
    async (request) => {
      const { id } = request.params;
      const problem = await networks.check(id);
      return networks.shown(id, originOf(request), problem);
    },
  );
};
