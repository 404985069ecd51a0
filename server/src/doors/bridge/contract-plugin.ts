import {
  BridgeCanSchema,
  BridgeInSchema,
  BridgeOutSchema,
  BridgeTakenSchema,
} from '@porch/contract/bridge';
import { z } from 'zod';
import type { Routing } from '../../services';

/** The open contract as JSON Schema (2020-12), for whoever writes a bridge. */
export const bridgeContract = () => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Doors to any network',
  $defs: {
    'what a bridge hands over': z.toJSONSchema(BridgeInSchema),
    'what a door asks': z.toJSONSchema(BridgeOutSchema),
    'what a network can do': z.toJSONSchema(BridgeCanSchema),
    'a message that was taken': z.toJSONSchema(BridgeTakenSchema),
  },
});

export const bridgeContractRoutes = async ({ app }: Routing): Promise<void> => {
  const schema = bridgeContract();
  app.get(
    '/door-contract.json',
    {
      config: { who: 'anybody' },
      schema: { summary: 'The contract for bridges', produces: ['application/json'] },
    },
    async () => schema,
  );
};
