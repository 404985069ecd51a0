import type { DoorCan } from '@porch/contract/doors';
import { z } from 'zod';
import { Refused } from '../../refused';
import {
  connectingBy,
  headerOf,
  linkedFiles,
  type NetworkParts,
  refusalIn,
  secretsOrRefuse,
  shapedOrRefuse,
  toldOf,
  writeLink,
} from '../network-parts';
import { kindInWords } from '../parts-in-words';
import type { DoorKind, Heard } from '../registry';
import { createTokens } from './tokens';
import { EventsSchema, isMarked, TakenSchema, type TintypeEvent } from './wire';

export const TINTYPE = 'tintype';

const DAY_MS = 24 * 3_600_000;

const can: DoorCan = {
  textLongest: 1_000,
  filesMost: 1,
  fileLargestBytes: 8_000_000,
  receipts: 'read',
  typing: false,
  windowMs: 7 * DAY_MS,
};

const steps = { delivered: 'arrived', opened: 'read', failed: 'failed' } as const;

const heardIn = (event: TintypeEvent): Heard => {
  if ('how' in event) return { deliveries: [{ networkId: event.of, step: steps[event.how] }] };
  const { id, who, at, type } = event;
  const saidAt = Date.parse(at);
  if (type === 'unsent' && 'of' in event) {
    return { changes: [{ networkId: event.of, from: who.id, saidAt, text: null }] };
  }
  // A heart is no message: nobody waits for an answer to it.
  if (type === 'heart') return {};
  const pictures = 'pictures' in event ? event.pictures : [];
  return {
    inbounds: [
      {
        networkId: id,
        from: who.id,
        name: who.name || who.handle,
        text: 'text' in event ? event.text : kindInWords(type),
        saidAt,
        files: pictures.map((address) => ({ address, name: address.split('/').at(-1) ?? '' })),
      },
    ],
  };
};

/** Tintype, direct messages on a picture network: events in JSON, and a token that expires. */
export const tintypeDoor = ({ outside, asking, clock, fileLink }: NetworkParts): DoorKind => {
  const tokens = createTokens({ asking, clock });
  const bearer = (token: string) => ({ authorization: `Bearer ${token}` });

  return {
    kind: TINTYPE,
    isOnStreet: true,
    plate: 'frame',
    way: TINTYPE,
    can,
    hear: ({ secret, body, headers }) => {
      const { word = '' } = secretsOrRefuse(secret);
      const [time, mark] = ['time', 'mark'].map((name) => headerOf({ headers }, `tintype-${name}`));
      if (!isMarked({ time: time ?? '', mark: mark ?? '' }, word, body, clock.now())) {
        throw new Refused('signature-wrong');
      }
      const heard = shapedOrRefuse(body, EventsSchema).events.map(heardIn);
      return {
        inbounds: heard.flatMap(({ inbounds = [] }) => inbounds),
        changes: heard.flatMap(({ changes = [] }) => changes),
        deliveries: heard.flatMap(({ deliveries = [] }) => deliveries),
      };
    },
    send: (sending) =>
      tokens.with(sending, async (token) => {
        const { door, outbound, signal } = sending;
        const { key, to, text, files } = outbound;
        const [picture = null] = linkedFiles(files, fileLink);
        const address = `${toldOf(door).url}/directs`;
        const what = { once: key, to, text, picture };
        const asked = { address, headers: bearer(token), signal, what, refusal: refusalIn };
        const { direct } = await asking.post(asked, TakenSchema);
        return { networkId: direct, step: 'sent' };
      }),
    fetchFile: (fetching) =>
      tokens.with(fetching, (token) => {
        const { door, address, signal } = fetching;
        return asking.file({ address, headers: bearer(token), signal }, toldOf(door).url ?? '');
      }),
    writeTo: (door, text) => writeLink(toldOf(door), 'account', text),
    connecting: connectingBy({
      outside,
      fields: [
        { id: 'url', form: 'link' },
        { id: 'account', form: 'line' },
        { id: 'key', form: 'secret' },
      ],
      made: ['word'],
      check: (door, secret, signal) =>
        tokens.with({ door, secret, signal }, async (token) => {
          const { url, account } = toldOf(door);
          const asked = { method: 'GET', address: `${url}/me`, headers: bearer(token), signal };
          await asking.json(asked, z.object({ account: z.literal(account ?? '') }));
          return {};
        }),
    }),
  };
};
