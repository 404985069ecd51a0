import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { validate } from '@apidevtools/swagger-parser';
import { errorStatus } from '@porch/contract/errors';
import Fastify, { type FastifySchema } from 'fastify';
import { type House, openHouse } from '../../test-kit/house';
import { handleErrors, NotDescribed, Refused } from '../refused';
import { routesPage } from './page';
import { refusalsOf } from './refusals';
import { askWhatRoutesAre, type Who } from './routes';

/** What is built of the app and the panel, as far as a route needs it to stand there. */
const someFiles = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'porch-pages-'));
  for (const name of ['index.html', 'entrance.html', 'loader.js', 'lamp.svg'])
    writeFileSync(join(dir, name), name);
  return dir;
};

interface Operation {
  operationId: string;
  summary: string;
  tags: string[];
  security: Record<string, string[]>[];
  'x-who': Who;
  responses: Record<
    string,
    {
      description: string;
      content?: Record<string, { schema: { properties: { code: { enum: string[] } } } }>;
    }
  >;
}

describe('what the server says of its routes', () => {
  let house: House;
  let paths: Record<string, Record<string, Operation>>;
  beforeAll(async () => {
    const dir = someFiles();
    house = await openHouse({ appDir: dir, widgetDir: dir });
    paths = (await house.ask('GET', '/openapi.json')).body.paths;
  });
  afterAll(() => house.close());

  const ofTheWire = () =>
    house.app.declared.filter(({ method, url }) => method !== 'HEAD' && !url.endsWith('*'));
  const operationOf = ({ method, url }: { method: string; url: string }): Operation | undefined =>
    paths[url.replace(/:(\w+)/g, '{$1}')]?.[method.toLowerCase()];
  const operations = () => Object.values(paths).flatMap((methods) => Object.values(methods));

  it('is OpenAPI, by the schemas that its makers publish', async () => {
    const { body } = await house.ask('GET', '/openapi.json');
    expect(body.openapi).toBe('3.1.0');
    await expect(validate(body)).resolves.toBeDefined();
  });

  it('has every route that there is, and none that there is not', () => {
    const all = ofTheWire();
    expect(all.length).toBeGreaterThan(150);
    expect(all.filter((route) => !operationOf(route)).map(({ url }) => url)).toEqual([]);
    expect(operations()).toHaveLength(all.length);
  });

  it('says of each what it does, under a name that no other has', () => {
    for (const { summary } of operations()) expect(summary).toMatch(/^\S.{3,80}$/);
    const names = operations().map(({ operationId }) => operationId);
    expect(new Set(names).size).toBe(names.length);
    expect(operationOf({ method: 'GET', url: '/' })?.operationId).toBe('getRoot');
    expect(
      operationOf({ method: 'PUT', url: '/api/conversations/:id/not-same/:otherId' })?.operationId,
    ).toBe('putApiConversationsByIdNotSameByOtherId');
  });

  it('says of each by what one proves who asks', () => {
    const schemes = { owner: 'cookie', team: 'cookie', visitor: 'visitorToken' };
    for (const route of ofTheWire()) {
      const scheme = schemes[route.who as keyof typeof schemes];
      const operation = operationOf(route);
      expect([route.url, operation?.['x-who'], operation?.security]).toEqual([
        route.url,
        route.who,
        scheme ? [{ [scheme]: [] }] : [],
      ]);
    }
  });

  it('says of each what it answers, and each refusal under the status that it has', () => {
    for (const route of ofTheWire()) {
      const responses = operationOf(route)?.responses ?? {};
      expect([route.url, Object.keys(responses).some((status) => status < '400')]).toEqual([
        route.url,
        true,
      ]);
      const codes = Object.entries(responses).flatMap(([status, { content }]) =>
        (content?.['application/json']?.schema.properties?.code?.enum ?? []).map((code) => [
          code,
          Number(status),
        ]),
      );
      expect(Object.fromEntries(codes)).toEqual(
        Object.fromEntries(refusalsOf(route).map((code) => [code, errorStatus[code]])),
      );
    }
  });

  it('is what the docs have', () => {
    const page = routesPage(house.app.declared);
    if (process.env.WRITE_ROUTES) writeFileSync('docs/routes.md', page);
    expect(readFileSync('docs/routes.md', 'utf8')).toBe(page);
  });
});

describe('a route', () => {
  const declare = async (schema: FastifySchema | undefined, who?: Who) => {
    const app = Fastify();
    askWhatRoutesAre(app);
    app.get('/x', { config: { who }, ...(schema ? { schema } : {}) }, async () => 'x');
    await app.ready();
    return app.declared.map(({ method, url }) => `${method} ${url}`);
  };
  const produces = ['text/plain'];

  it('that does not say for whom it is, what it does and what it answers keeps the server from starting', async () => {
    const whole = { summary: 'An x', produces };
    await expect(declare(whole)).rejects.toThrow('GET /x does not say for whom it is');
    await expect(declare(undefined, 'team')).rejects.toThrow('GET /x does not say what it does');
    await expect(declare({ produces }, 'team')).rejects.toThrow('does not say what it does');
    await expect(declare({ ...whole, hide: true }, 'team')).rejects.toThrow('what it does');
    await expect(declare({ summary: 'An x' }, 'team')).rejects.toThrow('what it answers');
    expect(await declare(whole, 'team')).toContain('GET /x');
  });

  it('that is refused with what it does not say is reported once, and refused all the same', async () => {
    const reported: unknown[] = [];
    const app = Fastify();
    const disk = { note: () => false } as unknown as Parameters<typeof handleErrors>[1];
    handleErrors(app, disk, (error) => reported.push(error));
    const refuse = (code: 'id-taken' | 'not-found') => async () => {
      throw new Refused(code);
    };
    const schema = { summary: 'An x', produces, refuses: ['not-found'] as const };
    app.get('/said', { config: { who: 'team' }, schema }, refuse('not-found'));
    app.get('/unsaid', { config: { who: 'team' }, schema }, refuse('id-taken'));
    expect((await app.inject('/said')).statusCode).toBe(404);
    expect(reported).toEqual([]);
    for (let time = 0; time < 2; time += 1)
      expect((await app.inject('/unsaid')).json()).toEqual({ code: 'id-taken' });
    expect((await app.inject('/nowhere')).statusCode).toBe(404);
    expect(reported).toEqual([
      new NotDescribed('GET /unsaid refuses with id-taken and does not say so'),
    ]);
    await app.close();
  });
});
