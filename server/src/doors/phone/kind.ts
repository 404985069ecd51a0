import type { DoorCan } from '@porch/contract/doors';
import { toE164 } from '@porch/core/contact';
import { z } from 'zod';
import { Refused } from '../../refused';
import type { DoorRecord } from '../../store';
import {
  connectingBy,
  headerOf,
  type NetworkParts,
  secretsOf,
  secretsOrRefuse,
  shapedOrRefuse,
  toldOf,
} from '../network-parts';
import type { DoorKind, Heard } from '../registry';
import { type CallEvent, type CallPlan, EventSchema, isProved } from './wire';

export const PHONE = 'phone';

/** So long each of those who are rung has to come to it. */
const RING_SECONDS = 20;
const NUMBERS_MOST = 10;

/** A phone carries no written answer by itself: it goes out as a text, where there is a door for that. */
const mute: DoorCan = {
  textLongest: 1,
  filesMost: 0,
  fileLargestBytes: 0,
  receipts: 'none',
  typing: false,
  windowMs: null,
  isMute: true,
};

const heardIn = (event: CallEvent): Heard => {
  const { call, from, at } = event;
  // Exchanges write "anonymous" or "private" where a number is kept back: only a number is one.
  const isNumber = /^\+?\d[\d\s().-]{3,}$/.test(from);
  const said = {
    networkId: call,
    from: isNumber ? from : `kept back ${call}`,
    saidAt: at,
    proves: isNumber ? [{ kind: 'phone', address: from }] : [],
  };
  if (event.event === 'missed') return { inbounds: [{ ...said, text: '', call: { seconds: 0 } }] };
  if (!('recording' in event)) return {};
  const { recording, seconds, text } = event;
  const files = [{ address: recording, name: 'spoken.wav' }];
  return { inbounds: [{ ...said, text, files, call: { seconds } }] };
};

/** The phone line, by a telephone exchange: missed calls, what was spoken, and what callers hear. */
export const phoneDoor = ({ outside, asking, clock, lightAt }: NetworkParts): DoorKind => {
  const numbersIn = (door: DoorRecord): string[] =>
    (toldOf(door).ring ?? '')
      .split(',')
      .flatMap((number) => toE164(number.trim(), '') ?? [])
      .slice(0, NUMBERS_MOST);

  /** In: ring those whom it concerns. Not in: the message of the day, then the tone. */
  const planFor = (door: DoorRecord): CallPlan => {
    const { order, say = '' } = toldOf(door);
    const isIn = lightAt(door.id).state === 'lit';
    return {
      ring: isIn ? numbersIn(door) : [],
      order: order === 'in-order' ? 'in-order' : 'all',
      seconds: RING_SECONDS,
      say,
      record: true,
    };
  };

  const headersFor = (secret: string | null) => ({
    authorization: `Bearer ${secretsOf(secret).key ?? ''}`,
  });

  return {
    kind: PHONE,
    plate: 'handset',
    way: PHONE,
    can: mute,
    goesAsText: true,
    hear: ({ door, secret, body, headers }) => {
      const { word = '' } = secretsOrRefuse(secret);
      if (!isProved(headerOf({ headers }, 'exchange-proof'), word, body, clock.now())) {
        throw new Refused('signature-wrong');
      }
      const event = shapedOrRefuse(body, EventSchema);
      if (event.event !== 'calls') return heardIn(event);
      return { answer: { type: 'application/json', text: JSON.stringify(planFor(door)) } };
    },
    fetchFile: ({ door, secret, address, signal }) =>
      asking.file({ address, headers: headersFor(secret), signal }, toldOf(door).url ?? ''),
    connecting: connectingBy({
      outside,
      fields: [
        { id: 'url', form: 'link' },
        { id: 'number', form: 'phone' },
        { id: 'key', form: 'secret' },
        { id: 'ring', form: 'numbers', isOptional: true },
        { id: 'order', form: 'choice', options: ['all', 'in-order'] },
        { id: 'say', form: 'line', isOptional: true },
      ],
      made: ['word'],
      check: async (door, secret, signal) => {
        const { url, number = '' } = toldOf(door);
        const asked = {
          method: 'GET',
          address: `${url}/line`,
          headers: headersFor(secret),
          signal,
        };
        await asking.json(asked, z.object({ number: z.literal(number) }));
        return {};
      },
    }),
  };
};
