import { refusalsOfKind } from './refusals';
import type { Declared } from './routes';
import { tagOf, tags } from './tags';

const asCode = (words: readonly string[]): string => words.map((word) => `\`${word}\``).join(', ');

type Kind = Parameters<typeof refusalsOfKind>[0];

const asked: Kind = { who: 'anybody', method: 'GET', schema: {}, isFromOurPages: false };
const written: Kind = { ...asked, method: 'PUT' };

/** The codes that one kind of route has and another one has not. */
const beyond = (kind: Kind, than: Kind): string => {
  const known = refusalsOfKind(than);
  return asCode(refusalsOfKind(kind).filter((code) => !known.includes(code)));
};

const opening = (): string => {
  const team: Kind = { ...asked, who: 'team' };
  return `# Routes

<!-- Made by "npm run routes" from the routes as they are declared; a test says when it is older than they are. -->

\`GET /openapi.json\` has the same with every field. [wire.md](wire.md) has the words of the sockets.

A refusal is \`{ "code": …, …facts }\`, with the status of \`contract/errors\`. The tables have what a route may be
refused with besides what holds for all of its kind:

- every route: ${asCode(refusalsOfKind(asked))};
- for the team: ${beyond(team, asked)}; for the owner also ${beyond({ ...asked, who: 'owner' }, team)};
- for visitors: ${beyond({ ...asked, who: 'visitor' }, asked)}; for networks: ${beyond({ ...asked, who: 'network' }, asked)};
- where something is written: ${beyond(written, asked)}; with a body also ${beyond({ ...written, schema: { body: {} } }, written)};
- where only our own pages write (marked *ours*): ${beyond({ ...written, isFromOurPages: true }, written)}.
`;
};

const isMarkedOurs = ({ method, isFromOurPages }: Declared): boolean =>
  isFromOurPages && !['GET', 'HEAD', 'OPTIONS'].includes(method);

const row = (route: Declared): string => {
  const { method, url, who, schema, isSocket } = route;
  const does = [`${schema.summary}${isSocket ? ' (socket)' : ''}`, schema.description ?? ''];
  const words = does.filter(Boolean).join('. ').replaceAll('|', '\\|');
  return `| \`${method} ${url}\` | ${who}${isMarkedOurs(route) ? ', *ours*' : ''} | ${words} | ${asCode(schema.refuses ?? [])} |`;
};

/** `docs/routes.md`: every route as it was declared, in the order of the headings and of their addresses. */
export const routesPage = (declared: readonly Declared[]): string =>
  [
    opening(),
    ...tags.map((tag) => {
      const rows = declared
        .filter(({ method, url }) => method !== 'HEAD' && !url.endsWith('*') && tagOf(url) === tag)
        .sort((one, other) => (one.url < other.url ? -1 : one.url > other.url ? 1 : 0))
        .map(row);
      return [
        `## ${tag}\n`,
        '| route | for | does | refused with |',
        '|---|---|---|---|',
        ...rows,
        '',
      ].join('\n');
    }),
  ].join('\n');
