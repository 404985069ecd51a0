import type { DoorCan } from '@porch/contract/doors';
import { z } from 'zod';
import { Refused } from '../../refused';
import {
  connectingBy,
  headerOf,
  linkedFiles,
  type NetworkParts,
  refusalIn,
  secretsOf,
  secretsOrRefuse,
  shapedOrRefuse,
  toldOf,
  writeLink,
} from '../network-parts';
import { kindInWords } from '../parts-in-words';
import type { DoorKind, Heard } from '../registry';
import { FeedSchema, type Item, isProved, NudgeSchema, TakenSchema } from './wire';

export const WAVELET = 'wavelet';

const HOUR_MS = 3_600_000;
const PAGE_MOST = 50;

const can: DoorCan = {
  textLongest: 1_000,
  filesMost: 1,
  fileLargestBytes: 8_000_000,
  receipts: 'read',
  typing: false,
  windowMs: 24 * HOUR_MS,
};

const steps = { delivered: 'arrived', seen: 'read', failed: 'failed' } as const;

const heardIn = (item: Item): Heard => {
  const saidAt = Date.parse(item.at);
  if ('state' in item) return { deliveries: [{ networkId: item.of, step: steps[item.state] }] };
  if ('of' in item) {
    const text = 'text' in item ? item.text : null;
    return { changes: [{ networkId: item.of, from: item.by.id, saidAt, text }] };
  }
  if (!item.by) return {};
  const pictures = 'pictures' in item ? item.pictures : [];
  return {
    inbounds: [
      {
        networkId: item.id,
        from: item.by.id,
        name: item.by.name,
        text: 'text' in item ? item.text : kindInWords(item.kind),
        saidAt,
        files: pictures.map((address) => ({ address, name: address.split('/').at(-1) ?? '' })),
      },
    ],
  };
};

/** Wavelet, messages to a page on a social network: it nudges, and what is new is fetched page by page. */
export const waveletDoor = ({ outside, asking, fileLink }: NetworkParts): DoorKind => {
  const headersFor = (secret: string | null) => ({ 'wavelet-key': secretsOf(secret).key ?? '' });

  return {
    kind: WAVELET,
    isOnStreet: true,
    plate: 'waves',
    way: WAVELET,
    can,
    hear: ({ door, secret, body, headers }) => {
      const { word = '' } = secretsOrRefuse(secret);
      if (!isProved(headerOf({ headers }, 'wavelet-proof'), word, body)) {
        throw new Refused('signature-wrong');
      }
      const { page } = shapedOrRefuse(body, NudgeSchema);
      return { isNudge: page === toldOf(door).page };
    },
    pull: async ({ door, secret, mark, signal }) => {
      const { url, page = '' } = toldOf(door);
      const query = new URLSearchParams({ after: mark, most: `${PAGE_MOST}` });
      const address = `${url}/pages/${encodeURIComponent(page)}/feed?${query}`;
      const asked = { method: 'GET', address, headers: headersFor(secret), signal };
      const { items, next, more } = await asking.json(asked, FeedSchema);
      const heard = items.map(heardIn);
      return {
        heard: {
          inbounds: heard.flatMap(({ inbounds = [] }) => inbounds),
          changes: heard.flatMap(({ changes = [] }) => changes),
          deliveries: heard.flatMap(({ deliveries = [] }) => deliveries),
        },
        mark: next,
        // A page that leads nowhere would be fetched for ever.
        hasMore: more && next !== mark,
      };
    },
    send: async ({ door, secret, outbound: { key, to, text, files }, signal }) => {
      const { url, page = '' } = toldOf(door);
      const [picture = null] = linkedFiles(files, fileLink);
      const address = `${url}/pages/${encodeURIComponent(page)}/messages`;
      const what = { nonce: key, to, text, picture };
      const asked = { address, headers: headersFor(secret), signal, what, refusal: refusalIn };
      const { id } = await asking.post(asked, TakenSchema);
      return { networkId: id, step: 'sent' };
    },
    fetchFile: ({ door, secret, address, signal }) =>
      asking.file({ address, headers: headersFor(secret), signal }, toldOf(door).url ?? ''),
    writeTo: (door, text) => writeLink(toldOf(door), 'page', text),
    connecting: connectingBy({
      outside,
      fields: [
        { id: 'url', form: 'link' },
        { id: 'page', form: 'line' },
        { id: 'key', form: 'secret' },
      ],
      made: ['word'],
      check: async (door, secret, signal) => {
        const { url, page = '' } = toldOf(door);
        const address = `${url}/pages/${encodeURIComponent(page)}`;
        const asked = { method: 'GET', address, headers: headersFor(secret), signal };
        await asking.json(asked, z.object({ page: z.literal(page) }));
        return {};
      },
    }),
  };
};
