import {
  LookedThroughSchema,
  LookThroughSchema,
  OwnWordsChangeSchema,
  OwnWordsSchema,
} from '@porch/contract/writing';
import { memberOf } from '../accounts/asking';
import { Refused } from '../refused';
import type { Routing } from '../services';

const forTeam = { who: 'team' } as const;

/** Looking through what is written to be sent many times, and the business's own words. */
export const writingRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { writing, limits } = services;

  app.post(
    '/api/looked-through',
    {
      config: forTeam,
      schema: {
        summary: 'What is misspelt in a text, and links in it that lead nowhere',
        refuses: ['too-many'],
        body: LookThroughSchema,
        response: { 200: LookedThroughSchema },
      },
    },
    async (request) => {
      const waitMs = limits.lookedThrough.take(memberOf(request).id);
      if (waitMs) throw new Refused('too-many', { waitMs });
      return writing.lookThrough(request.body);
    },
  );

  app.get(
    '/api/own-words',
    {
      config: forTeam,
      schema: { summary: 'Words that are right here', response: { 200: OwnWordsSchema } },
    },
    async () => writing.ownWords(),
  );

  app.put(
    '/api/own-words',
    {
      config: forTeam,
      schema: {
        summary: 'Changes which words are right here',
        refuses: ['too-many-of-these'],
        body: OwnWordsChangeSchema,
        response: { 200: OwnWordsSchema },
      },
    },
    async (request) => writing.setOwnWords(request.body),
  );
};
