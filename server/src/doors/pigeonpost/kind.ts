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
import { cardInWords, kindInWords, placeInWords } from '../parts-in-words';
import type { DoorKind, Heard } from '../registry';
import { type Bag, BagSchema, isSealed, type Letter, TakenSchema } from './wire';

export const PIGEONPOST = 'pigeonpost';

const HOUR_MS = 3_600_000;

const can: DoorCan = {
  textLongest: 2_000,
  filesMost: 1,
  fileLargestBytes: 5_000_000,
  receipts: 'read',
  typing: true,
  windowMs: 24 * HOUR_MS,
};

const steps = { sent: 'sent', delivered: 'arrived', seen: 'read', failed: 'failed' } as const;

const wordsIn = (letter: Letter): string => {
  if ('latitude' in letter) return placeInWords(letter.latitude, letter.longitude, letter.called);
  if ('number' in letter) return cardInWords(letter.name, letter.number);
  if ('shows' in letter) return kindInWords(letter.kind, letter.shows);
  return 'text' in letter ? letter.text : kindInWords(letter.kind);
};

const inboundOf = (letter: Letter, people: Bag['people']) => ({
  networkId: letter.id,
  from: letter.from,
  name: people[letter.from] ?? '',
  text: wordsIn(letter),
  saidAt: letter.at,
  files: 'media' in letter ? letter.media.map(({ id, name }) => ({ address: id, name })) : [],
  // Whoever has the number has the account.
  proves: [{ kind: 'phone', address: letter.from }],
});

const heardIn = ({ letters, people, ticks, typing }: Bag): Heard => ({
  inbounds: letters
    .filter((letter) => !('of' in letter))
    .map((letter) => inboundOf(letter, people)),
  changes: letters.flatMap((letter) =>
    'of' in letter
      ? [
          {
            networkId: letter.of,
            from: letter.from,
            saidAt: letter.at,
            text: 'text' in letter ? letter.text : null,
          },
        ]
      : [],
  ),
  deliveries: ticks.map(({ letter, state, reason }) => ({
    networkId: letter,
    step: steps[state],
    why: reason,
  })),
  typing,
});

/** Pigeonpost, a messenger by phone number: bags of letters in JSON, a handshake, a bearer's key. */
export const pigeonpostDoor = ({ outside, asking, fileLink }: NetworkParts): DoorKind => {
  const headersFor = (secret: string | null) => ({
    authorization: `Bearer ${secretsOf(secret).key ?? ''}`,
  });

  return {
    kind: PIGEONPOST,
    isOnStreet: true,
    plate: 'slip',
    way: PIGEONPOST,
    can,
    greet: ({ secret, query }) => {
      const { challenge, seal } = query;
      const { word = '' } = secretsOrRefuse(secret);
      const isAsked = typeof challenge === 'string' && typeof seal === 'string';
      if (!isAsked || !isSealed(seal, word, Buffer.from(challenge))) {
        throw new Refused('signature-wrong');
      }
      return { type: 'text/plain', text: challenge.replace(/[^\w-]/g, '').slice(0, 200) };
    },
    hear: ({ secret, body, headers }) => {
      const { word = '' } = secretsOrRefuse(secret);
      if (!isSealed(headerOf({ headers }, 'pigeonpost-seal'), word, body)) {
        throw new Refused('signature-wrong');
      }
      return heardIn(shapedOrRefuse(body, BagSchema));
    },
    send: async ({ door, secret, outbound: { key, to, text, files }, signal }) => {
      const [file = null] = linkedFiles(files, fileLink);
      const address = `${toldOf(door).url}/letters`;
      const what = { ref: key, to, text, file };
      const asked = { address, headers: headersFor(secret), signal, what, refusal: refusalIn };
      const { letter } = await asking.post(asked, TakenSchema);
      return { networkId: letter, step: 'sent' };
    },
    fetchFile: ({ door, secret, address, signal }) => {
      const { url = '' } = toldOf(door);
      const media = `${url}/media/${encodeURIComponent(address)}`;
      return asking.file({ address: media, headers: headersFor(secret), signal }, url);
    },
    writeTo: (door, text) => writeLink(toldOf(door), 'number', text),
    connecting: connectingBy({
      outside,
      fields: [
        { id: 'url', form: 'link' },
        { id: 'number', form: 'phone' },
        { id: 'key', form: 'secret' },
      ],
      made: ['word'],
      check: async (door, secret, signal) => {
        const { url, number } = toldOf(door);
        const asked = { method: 'GET', address: `${url}/me`, headers: headersFor(secret), signal };
        await asking.json(asked, z.object({ number: z.literal(number ?? '') }));
        return {};
      },
    }),
  };
};
