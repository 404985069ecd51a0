import { plainDress } from '@porch/core/dress';
import { plainPromises } from '@porch/core/promises';
import { plainDoorbell, plainRingOn } from '@porch/core/ringing';
import { newThing } from '@porch/core/shelf';
import type { House } from './house';

export interface Route {
  path: string;
  method: string;
}

const token = 'a-token-that-nobody-ever-made-00';

/** A body that each route understands, so that a refusal is about who asks and not about what. */
const bodies: Record<string, object> = {
  '/api/sign-out': { everywhere: false },
  '/api/letters': { says: [{ do: 'pulse' }] },
  '/api/lamp': { state: 'lit', until: null },
  '/api/members/{id}/out': { out: null },
  '/api/hours': { hours: null },
  '/api/promises': plainPromises,
  '/api/doors/{id}/hours': { week: null },
  '/api/business': { name: 'x' },
  '/api/conversations/{id}/deeds': { do: 'wrap-up', id: 'deed-000001' },
  '/api/doors': { name: 'x', language: 'en' },
  '/api/doors/{id}': { sites: [] },
  '/api/doors/{id}/draft': { revision: 0, dress: plainDress() },
  '/api/doors/{id}/publish': { revision: 0 },
  '/api/doors/{id}/trial': {},
  '/api/doors/{id}/undo': { revision: 0 },
  '/api/invites': { role: 'helper' },
  '/api/me': { name: 'x', publicName: '' },
  '/api/members/{id}/new-password-link': {},
  '/api/me/password': { old: 'x', new: 'another long password' },
  '/api/members/{id}/role': { role: 'owner' },
  '/api/pairings/{id}/answer': { isSame: true },
  '/api/ticks': { tick: 'team' },
  '/api/doorbell': plainDoorbell('Europe/London'),
  '/api/ring-on': plainRingOn,
  '/api/quick-replies/{id}': {
    revision: 0,
    isOwn: false,
    title: 'x',
    code: '',
    text: 'x',
    group: '',
    language: 'en',
    fileIds: [],
    shelfIds: [],
  },
  '/api/shelf/{id}': {
    revision: 0,
    thing: { ...newThing('item'), name: 'x' },
    fileId: null,
  },
  '/api/orders/shop': { url: '' },
  '/api/orders/shop/try': { number: 'x' },
  '/api/looked-through': { text: '', language: 'en' },
  '/api/own-words': { add: [], drop: [] },
  '/api/mail': {
    outgoing: null,
    incoming: { kind: 'none' },
    outgoingPassword: null,
    incomingPassword: null,
  },
  '/api/bell-devices/{id}': {
    name: 'x',
    subscription: {
      endpoint: 'https://push.example/x',
      keys: { p256dh: 'A'.repeat(87), auth: 'A'.repeat(22) },
    },
  },
  '/api/bell-devices/{id}/mute': { isMuted: true },
  '/api/bell-devices/{id}/arrived': { ring: 'some-ring-0001' },
};

const queries: Record<string, string> = {
  '/api/line': '?group=waiting',
  '/api/since': '?seq=0',
  '/api/quick-replies/table': '?as=csv',
  '/api/search': '?words=a',
  '/api/holidays': '?country=GB',
  '/api/business/picture': '?left=0&top=0&side=1&shape=round',
  '/api/me/picture': '?left=0&top=0&side=1',
};

/** Whoever has the secret of a link may use these; nobody is signed in yet. */
const byLink: Record<string, object> = {
  '/api/links/look': { token },
  '/api/join': { token, name: 'x', email: 'x@post.example', password: 'a long password' },
  '/api/new-password': { token, password: 'a long password' },
  '/api/pairings/claim': { token },
  '/api/pairings/collect': { token },
};

/** Every route that is for the team, as the server says of itself. */
export const routesOfTeam = (house: House): Route[] =>
  house.app.declared
    .filter(({ who, method }) => ['owner', 'team'].includes(who) && method !== 'HEAD')
    .map(({ method, url }) => ({
      path: url.replace(/:(\w+)/g, '{$1}'),
      method: method.toLowerCase(),
    }));

/** What a route understands; null for one that takes no body of fields. */
export const bodyOf = ({ path }: Route): object | null => bodies[path] ?? null;

/** Asks a route with something that it understands. */
export const askRoute = (
  house: House,
  { path, method }: Route,
  cookie?: string,
  id = 'some-id-000001',
) =>
  house.ask(
    method.toUpperCase() as 'GET',
    path.replace('{id}', id).replace('{kind}', path.includes('findings') ? 'log-damaged' : 'svg') +
      (queries[path] ?? ''),
    {
      cookie,
      ...(path.endsWith('/picture') && method === 'put'
        ? { body: Buffer.from('x'), headers: { 'content-type': 'application/octet-stream' } }
        : method === 'get' || method === 'delete'
          ? {}
          : { body: bodies[path] ?? {} }),
    },
  );

export { byLink };

const ownerOf = (house: House): string =>
  house.store.members.all().find(({ role }) => role === 'owner')?.id ?? '';

/** Brings a helper in as the owner would; gives their cookie. */
export const addHelper = async (house: House, name = 'Tobias Ekwall') => {
  const { link } = house.services.team.invite('helper', '', ownerOf(house), 'http://porch.example');
  const response = await house.ask('POST', '/api/join', {
    body: {
      token: link.split('#')[1],
      name,
      email: `${name.split(' ')[0]?.toLowerCase()}@quillfern.example`,
      password: 'a long enough password',
    },
  });
  return String(response.headers['set-cookie']).split(';')[0] ?? '';
};
