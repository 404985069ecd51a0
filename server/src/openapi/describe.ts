import type { FastifyDynamicSwaggerOptions } from '@fastify/swagger';
import type { ErrorCode } from '@porch/contract/errors';
import type { FastifySchema } from 'fastify';
import { jsonSchemaTransform } from 'fastify-type-provider-zod';
import { version } from '../../../package.json';
import { byStatus, refusalsOf } from './refusals';
import type { Who } from './routes';
import { tagOf, tags } from './tags';

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

/** "GET /api/conversations/:id/entries" is "getApiConversationsByIdEntries". */
export const operationIdOf = (method: string, url: string): string => {
  const words = url
    .replace(/:(\w+)/g, 'by-$1')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean);
  return [method.toLowerCase(), ...(words.length === 0 ? ['root'] : words).map(capital)]
    .join('')
    .replace(/^./, (first) => first.toLowerCase());
};

export const COOKIE_SCHEME = 'cookie';
export const TOKEN_SCHEME = 'visitorToken';

const securityOf: Record<Who, Record<string, string[]>[]> = {
  owner: [{ [COOKIE_SCHEME]: [] }],
  team: [{ [COOKIE_SCHEME]: [] }],
  visitor: [{ [TOKEN_SCHEME]: [] }],
  network: [],
  anybody: [],
};

const refusal = (codes: readonly ErrorCode[]) => ({
  description: `Refused: ${codes.join(', ')}`,
  content: {
    'application/json': {
      schema: {
        type: 'object',
        required: ['code'],
        properties: {
          code: { type: 'string', enum: codes },
          limit: { type: 'number' },
          waitMs: { type: 'number' },
          what: { type: 'string' },
          field: { type: 'string' },
        },
      },
    },
  },
});

/** What is no JSON, by its type. */
const bytes = { type: 'string', format: 'binary' };

const answered = (schema: FastifySchema, isSocket: boolean): object => {
  if (isSocket) return { 101: { description: 'The socket is open', type: 'null' } };
  if (!schema.produces) return {};
  const content = Object.fromEntries(
    schema.produces.map((type) => [type, { schema: type === 'application/json' ? {} : bytes }]),
  );
  return { 200: { description: 'As asked', content } };
};

/** What `GET /openapi.json` says, made of nothing but the routes as they are declared. */
export const description: FastifyDynamicSwaggerOptions = {
  openapi: {
    openapi: '3.1.0',
    info: {
      title: 'Hello Porch',
      version,
      description:
        'Times are UTC epoch milliseconds. Ids are made by whoever writes: 10 to 40 letters, digits, "-" or "_".',
    },
    tags: tags.map((name) => ({ name })),
    components: {
      securitySchemes: {
        [COOKIE_SCHEME]: {
          type: 'apiKey',
          in: 'cookie',
          name: 'porch',
          description: 'A member who is signed in. Writing is for pages of the house only.',
        },
        [TOKEN_SCHEME]: {
          type: 'http',
          scheme: 'bearer',
          description:
            'A visitor, by the token that their panel has made; the website in "x-site".',
        },
      },
    },
  },
  transform: (given) => {
    const { schema = {}, url, route } = given;
    const { refuses: _refuses, hide, ...rest } = schema;
    const isSocket = route.websocket === true;
    // Its plugin hides every socket; the plugin for files its own routes, which are no part of the wire.
    if (hide && !isSocket) return { schema: { hide }, url };
    const { schema: plain } = jsonSchemaTransform({ ...given, schema: rest });
    const method = String(route.method);
    const who = route.config?.who ?? 'anybody';
    const isFromOurPages = route.config?.isFromOurPages === true;
    const refusals = [...byStatus(refusalsOf({ method, who, schema, isFromOurPages }))].map(
      ([status, codes]) => [status, refusal(codes)] as const,
    );
    return {
      url,
      schema: {
        ...plain,
        ...(schema.consumes && !schema.body ? { body: bytes } : {}),
        operationId: operationIdOf(method, url),
        tags: [tagOf(url)],
        security: securityOf[who],
        'x-who': who,
        response: {
          ...(plain?.response as object),
          ...answered(schema, isSocket),
          ...Object.fromEntries(refusals),
        },
      } as FastifySchema,
    };
  },
};
