import type { DoorCan } from '@porch/contract/doors';
import { Refused } from '../../refused';
import {
  connectingBy,
  headerOf,
  type NetworkParts,
  refusalIn,
  secretsOf,
  secretsOrRefuse,
  shapedOrRefuse,
  toldOf,
} from '../network-parts';
import type { DoorKind, ListingBy } from '../registry';
import {
  EventSchema,
  fromListing,
  isProved,
  ListingSchema,
  QuestionsSchema,
  TakenSchema,
  toListing,
} from './wire';

export const TOWNFINDER = 'townfinder';

const can: DoorCan = {
  textLongest: 1_000,
  filesMost: 0,
  fileLargestBytes: 0,
  receipts: 'sent',
  typing: false,
  windowMs: null,
};

/** Townfinder, a business listing: its chat, and what it shows of who is there and when. */
export const townfinderDoor = ({ outside, asking }: NetworkParts): DoorKind => {
  const headersFor = (secret: string | null) => ({
    authorization: `Bearer ${secretsOf(secret).key ?? ''}`,
  });
  const listingOf = ({ door, secret }: Pick<ListingBy, 'door' | 'secret'>) => {
    const { url, listing = '' } = toldOf(door);
    const address = `${url}/listings/${encodeURIComponent(listing)}`;
    return { address, headers: headersFor(secret) };
  };
  const questionsOf = (by: ListingBy) => {
    const { address, headers } = listingOf(by);
    return { address: `${address}/questions`, headers };
  };

  return {
    kind: TOWNFINDER,
    isOnStreet: true,
    plate: 'signpost',
    way: TOWNFINDER,
    can,
    hear: ({ secret, body, headers }) => {
      const { word = '' } = secretsOrRefuse(secret);
      if (!isProved(headerOf({ headers }, 'townfinder-proof'), word, body)) {
        throw new Refused('signature-wrong');
      }
      const event = shapedOrRefuse(body, EventSchema);
      if (event.kind === 'changed') return { isListingChanged: true };
      if (!('who' in event)) return {};
      const { id, who, text, at } = event;
      const said = { networkId: id, from: who.id, name: who.name, text, saidAt: Date.parse(at) };
      return { inbounds: [said] };
    },
    send: async ({ door, secret, outbound: { key, to, text }, signal }) => {
      const { address, headers } = listingOf({ door, secret });
      const what = { ref: key, to, text };
      const asked = { address: `${address}/chat`, headers, signal, what, refusal: refusalIn };
      const { chat } = await asking.post(asked, TakenSchema);
      return { networkId: chat, step: 'sent' };
    },
    listing: {
      read: async (by) => {
        const asked = { ...listingOf(by), method: 'GET', signal: by.signal };
        return fromListing(await asking.json(asked, ListingSchema));
      },
      write: async (by, listed) => {
        const asked = { ...listingOf(by), signal: by.signal, what: toListing(listed) };
        await asking.post(asked, ListingSchema);
      },
      questions: {
        answerLongest: 1_000,
        read: async (by) => {
          const asked = { ...questionsOf(by), method: 'GET', signal: by.signal };
          return (await asking.json(asked, QuestionsSchema)).questions;
        },
        write: async (by, questions) => {
          const asked = { ...questionsOf(by), signal: by.signal, what: { questions } };
          await asking.post(asked, QuestionsSchema);
        },
      },
    },
    connecting: connectingBy({
      outside,
      fields: [
        { id: 'url', form: 'link' },
        { id: 'listing', form: 'line' },
        { id: 'key', form: 'secret' },
      ],
      made: ['word'],
      check: async (door, secret, signal) => {
        const asked = { ...listingOf({ door, secret }), method: 'GET', signal };
        await asking.json(asked, ListingSchema);
        return {};
      },
    }),
  };
};
