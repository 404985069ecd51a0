import { createHmac } from 'node:crypto';
import type { Answered, Asked, Outside } from '../src/security/outside';

/** Something that happens on a network, as a test says it. */
export type Happening =
  | { what: 'said'; id: string; text: string; pictures?: string[]; name?: string; nth?: number }
  | { what: 'odd'; id: string }
  | { what: 'changed'; id: string; of: string; text: string }
  | { what: 'withdrawn'; id: string; of: string }
  | { what: 'reached'; of: string; step: 'arrived' | 'read' | 'failed' };

type Headers = Record<string, string>;

/** One network's own words, made without the code that reads them. */
export interface MadeNetwork {
  kind: string;
  /** Who writes there. */
  from: string;
  /** What its door is told. */
  given: Readonly<Record<string, string>>;
  /** What it hands over; null: it has no such thing. */
  body: (happening: Happening, at: number) => string | null;
  prove: (body: string, word: string, at: number) => Headers;
  /** What it answers that takes a message. */
  taken: (id: string) => string;
  /** What it answers that lets nothing through any more. */
  shut: string;
  /** The text of a message as it was asked for. */
  textIn: (body: string) => string;
  /** Where it has a picture. */
  picture: (name: string) => string;
}

const url = 'https://network.example/api';
const iso = (at: number): string => new Date(at).toISOString();
const inJson = (body: string): string => JSON.parse(body).text;

const nameIn = (happening: Happening): string =>
  (happening.what === 'said' && happening.name) || 'Wren';

/** What the nudging network has got, by what was handed over so far. */
const feed: object[] = [];

const text: MadeNetwork = {
  kind: 'text',
  from: '+447700900123',
  given: { url, number: '+44 7700 900100', account: 'quillfern', key: 'the key' },
  body: (happening, at) => {
    const form = new URLSearchParams();
    if (happening.what === 'said') {
      const { id, text: words, pictures = [] } = happening;
      form.set('event', 'text');
      form.set('id', id);
      form.set('from', '+447700900123');
      form.set('text', words);
      form.set('at', `${Math.floor(at / 1_000)}`);
      if (happening.nth !== undefined) form.set('nth', `${happening.nth}`);
      form.set('media', pictures.join(' '));
    } else if (happening.what === 'reached' && happening.step !== 'read') {
      form.set('event', 'report');
      form.set('id', happening.of);
      form.set('status', happening.step === 'arrived' ? 'delivered' : 'failed');
    } else return null;
    return form.toString();
  },
  prove: (body, word, at) => {
    const seconds = Math.floor(at / 1_000);
    const mark = createHmac('sha256', word).update(`${seconds}.${body}`).digest('hex');
    return {
      'content-type': 'application/x-www-form-urlencoded',
      'gateway-signature': `t=${seconds},v1=${mark}`,
    };
  },
  taken: (id) => `id=${id}`,
  shut: 'error=stopped',
  textIn: (body) => new URLSearchParams(body).get('text') ?? '',
  picture: (name) => `${url}/media/${name}`,
};

const pigeonpost: MadeNetwork = {
  kind: 'pigeonpost',
  from: '+447700900222',
  given: { url, number: '+44 7700 900101', key: 'the key' },
  body: (happening, at) => {
    const from = '+447700900222';
    switch (happening.what) {
      case 'said': {
        const { id, text: words, pictures = [], name = 'Wren' } = happening;
        const media = pictures.map((name) => ({ id: name, name: `${name}.png` }));
        const letter = pictures.length
          ? { id, from, at, kind: 'picture', text: words, media }
          : { id, from, at, kind: 'text', text: words };
        return JSON.stringify({ letters: [letter], people: { [from]: name } });
      }
      case 'odd':
        return JSON.stringify({ letters: [{ id: happening.id, from, at, kind: 'hologram' }] });
      case 'changed':
        return JSON.stringify({ letters: [{ ...happening, from, at, kind: 'edit' }] });
      case 'withdrawn':
        return JSON.stringify({ letters: [{ ...happening, from, at, kind: 'recall' }] });
      case 'reached': {
        const state = { arrived: 'delivered', read: 'seen', failed: 'failed' }[happening.step];
        return JSON.stringify({ ticks: [{ letter: happening.of, state }] });
      }
    }
  },
  prove: (body, word) => ({
    'content-type': 'application/json',
    'pigeonpost-seal': `sha256=${createHmac('sha256', word).update(body).digest('hex')}`,
  }),
  taken: (id) => JSON.stringify({ letter: id }),
  shut: JSON.stringify({ error: 'window' }),
  textIn: inJson,
  picture: (name) => name,
};

const wavelet: MadeNetwork = {
  kind: 'wavelet',
  from: 'wren.w',
  given: { url, page: 'quillfern', key: 'the key' },
  body: (happening, at) => {
    const by = { id: 'wren.w', name: nameIn(happening) };
    const item = (more: object) => feed.push({ at: iso(at), ...more });
    if (happening.what === 'said') {
      const { id, text: words, pictures = [] } = happening;
      item({ kind: 'message', id, by, text: words, pictures });
    } else if (happening.what === 'odd') item({ kind: 'hologram', id: happening.id, by });
    else if (happening.what === 'changed') item({ ...happening, kind: 'rewritten', by });
    else if (happening.what === 'withdrawn') item({ ...happening, kind: 'removed', by });
    else {
      const state = { arrived: 'delivered', read: 'seen', failed: 'failed' }[happening.step];
      item({ kind: 'state', id: `state ${feed.length}`, of: happening.of, state });
    }
    return JSON.stringify({ page: 'quillfern' });
  },
  prove: (body, word) => ({
    'content-type': 'application/json',
    'wavelet-proof': createHmac('sha256', word).update(body).digest('base64'),
  }),
  taken: (id) => JSON.stringify({ id }),
  shut: JSON.stringify({ error: 'window' }),
  textIn: inJson,
  picture: (name) => `${url}/media/${name}`,
};

const tintype: MadeNetwork = {
  kind: 'tintype',
  from: 'wren_w',
  given: { url, account: 'quillfern', key: 'the key' },
  body: (happening, at) => {
    const who = { id: 'wren_w', name: nameIn(happening), handle: 'wren_w' };
    const events = (event: object) => JSON.stringify({ events: [{ at: iso(at), who, ...event }] });
    switch (happening.what) {
      case 'said': {
        const { id, text: words, pictures = [] } = happening;
        return events({ type: 'direct', id, text: words, pictures });
      }
      case 'odd':
        return events({ type: 'hologram', id: happening.id });
      case 'changed':
        return null;
      case 'withdrawn':
        return events({ type: 'unsent', id: happening.id, of: happening.of });
      case 'reached': {
        const how = { arrived: 'delivered', read: 'opened', failed: 'failed' }[happening.step];
        return JSON.stringify({ events: [{ type: 'reached', of: happening.of, how }] });
      }
    }
  },
  prove: (body, word, at) => ({
    'content-type': 'application/json',
    'tintype-time': iso(at),
    'tintype-mark': createHmac('sha512', word)
      .update(`${iso(at)}\n${body}`)
      .digest('base64'),
  }),
  taken: (id) => JSON.stringify({ direct: id }),
  shut: JSON.stringify({ error: 'window' }),
  textIn: inJson,
  picture: (name) => `${url}/media/${name}`,
};

const townfinder: MadeNetwork = {
  kind: 'townfinder',
  from: 'wren.t',
  given: { url, listing: 'quillfern', key: 'the key' },
  body: (happening, at) => {
    if (happening.what !== 'said') return null;
    const { id, text: words } = happening;
    const who = { id: 'wren.t', name: nameIn(happening) };
    return JSON.stringify({ kind: 'chat', id, who, text: words, at: iso(at) });
  },
  prove: (body, word) => ({
    'content-type': 'application/json',
    'townfinder-proof': createHmac('sha256', word).update(body).digest('hex'),
  }),
  taken: (id) => JSON.stringify({ chat: id }),
  shut: JSON.stringify({ error: 'window' }),
  textIn: inJson,
  picture: () => '',
};

/** Not one of those that carry words of their own both ways: it has tests of its own. */
const phone: MadeNetwork = {
  kind: 'phone',
  from: '+447700900123',
  given: { url, number: '+44 7700 900102', key: 'the key' },
  body: () => null,
  prove: (body, word, at) => {
    const seconds = Math.floor(at / 1_000);
    const mark = createHmac('sha256', word).update(`${seconds}.${body}`).digest('hex');
    return { 'content-type': 'application/json', 'exchange-proof': `${seconds}.${mark}` };
  },
  taken: () => '{}',
  shut: '',
  textIn: inJson,
  picture: () => '',
};

export const madeNetworks: readonly MadeNetwork[] = [
  text,
  pigeonpost,
  wavelet,
  tintype,
  townfinder,
];

type Next = { status: number; headers?: Headers; body?: string | Buffer };

const nameOf = (address: string): string => new URL(address).pathname.split('/').at(-1) ?? '';

/** Whether what is asked is to carry a message. */
const carries = ({ method, address }: Pick<Asked, 'method' | 'address'>): boolean =>
  method === 'POST' &&
  !address.endsWith('/token') &&
  !/\/listings\/[^/]+(\/questions)?$/.test(address);

/** No network of this kind holds a wire. */
const noWires: Pick<Outside, 'whereIs' | 'serviceAt'> = {
  whereIs: () => Promise.reject(new Error('nobody is there')),
  serviceAt: async () => null,
};

/** The network's end of the line: what it was asked, and what it says instead of taking it. */
export const networkOutside = (network: MadeNetwork) => {
  feed.length = 0;
  const asked: (Pick<Asked, 'method' | 'address' | 'headers'> & { body: string })[] = [];
  const next: Next[] = [];
  const files = new Map<string, Buffer>();
  /** What it says it has, and has not yet. */
  const coming = new Set<string>();
  const took: string[] = [];
  /** What the business's listing shows, where the network has one. */
  const listing = { chat: false, away_until: null as string | null, opening_hours: '' };
  /** The questions that it answers. */
  const questions: { id: string; question: string; answer: string }[] = [];
  let sent = 0;
  let taken = network.taken;

  const answer = ({ method, address, body }: Asked): Next => {
    const { pathname, searchParams } = new URL(address);
    if (/\/listings\/[^/]+$/.test(pathname)) {
      if (method === 'POST') Object.assign(listing, JSON.parse(String(body)));
      return { status: 200, body: JSON.stringify(listing) };
    }
    if (/\/listings\/[^/]+\/questions$/.test(pathname)) {
      if (method === 'POST') {
        questions.splice(0, questions.length, ...JSON.parse(String(body)).questions);
      }
      return { status: 200, body: JSON.stringify({ questions }) };
    }
    const file = files.get(pathname.split('/').at(-1) ?? '');
    if (file) return { status: 200, body: file };
    if (pathname.endsWith('/token')) {
      const token = { access_token: `token ${asked.length}`, expires_in: 600 };
      return { status: 200, body: JSON.stringify(token) };
    }
    if (pathname.endsWith('/feed')) {
      const from = Number(searchParams.get('after')) || 0;
      const items = feed.slice(from, from + 2);
      const after = from + items.length;
      const page = { items, next: `${after}`, more: after < feed.length };
      return { status: 200, body: JSON.stringify(page) };
    }
    if (method === 'POST') {
      sent += 1;
      return { status: 200, body: taken(`net-${sent}`) };
    }
    const { number = '', page = '', account = '' } = network.given;
    const me = { number: number.replaceAll(' ', ''), page, account };
    return { status: 200, body: JSON.stringify(me) };
  };

  const outside: Outside = {
    may: (address) => address.startsWith('https://'),
    ...noWires,
    ask: async (what): Promise<Answered> => {
      const { method, address, headers, body = '' } = what;
      asked.push({ method, address, headers, body: String(body) });
      far.whileAsked();
      const isSend = carries({ method, address });
      const isFile = files.has(nameOf(address)) || coming.has(nameOf(address));
      const standing = isSend ? far.sendsFail : isFile ? far.filesFail : null;
      const isNotYet = coming.has(nameOf(address)) && !files.has(nameOf(address));
      const said = next.shift() ?? standing ?? (isNotYet ? { status: 404 } : answer(what));
      if (isSend && said.status === 200) took.push(String(body));
      const bytes = Buffer.from(said.body ?? '');
      return { status: said.status, headers: said.headers ?? {}, body: bytes, isCut: false };
    },
    end: () => undefined,
  };
  const far = {
    outside,
    /** What happens at the house while the network is asked. */
    whileAsked: (): void => undefined,
    /** How every message is answered from now on; null: it is taken. */
    sendsFail: null as Next | null,
    /** The same of files. */
    filesFail: null as Next | null,
    coming,
    /** The texts of what it took, in order. */
    took: (): string[] => took.map(network.textIn),
    asked,
    next,
    files,
    listing,
    questions,
    /** From now on it takes messages as a gateway for text messages does. */
    takesTexts: (): void => {
      taken = text.taken;
    },
    /** What it was asked to carry, oldest first. */
    carried: () => asked.filter(carries),
  };
  return far;
};

export const networkOf = (kind: string): MadeNetwork => {
  const network = [...madeNetworks, phone].find((one) => one.kind === kind);
  if (!network) throw new Error(`no network is called ${kind}`);
  return network;
};
