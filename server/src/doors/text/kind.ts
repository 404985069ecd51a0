import { type DoorCan, NetworkIdSchema } from '@porch/contract/doors';
import type { z } from 'zod';
import { JobFailed } from '../../jobs/worker';
import { Refused } from '../../refused';
import {
  connectingBy,
  headerOf,
  type NetworkParts,
  secretsOf,
  secretsOrRefuse,
  type Texts,
  toldOf,
} from '../network-parts';
import type { DoorKind, Heard } from '../registry';
import { fieldsOf, HandedSchema, isProved, refusalIn, stopsBy, TakenSchema } from './wire';

export const TEXT = 'text';

/** So many segments a text may have at most. */
const SEGMENTS_MOST = 10;

const can: DoorCan = {
  textLongest: SEGMENTS_MOST * 153,
  segmentsMost: SEGMENTS_MOST,
  filesMost: 0,
  fileLargestBytes: 0,
  receipts: 'arrived',
  typing: false,
  windowMs: null,
};

const steps = { queued: 'sent', sent: 'sent', delivered: 'arrived', failed: 'failed' } as const;

const heardIn = (said: z.infer<typeof HandedSchema>): Heard => {
  if (said.event === 'report') {
    const { id, status, reason } = said;
    return { deliveries: [{ networkId: id, step: steps[status], why: reason }] };
  }
  const { id, from, text, at, nth, media } = said;
  const isStopped = stopsBy(text);
  if (isStopped !== null) {
    return { stops: [{ networkId: id, from, isStopped, word: text.trim() }] };
  }
  const files = media.split(' ').filter(Boolean);
  return {
    inbounds: [
      {
        networkId: id,
        from,
        text,
        saidAt: at * 1_000,
        order: nth,
        files: files.map((address) => ({ address, name: address.split('/').at(-1) ?? '' })),
        // The telephone network itself says whose number it is.
        proves: from.startsWith('+') ? [{ kind: 'phone', address: from }] : [],
      },
    ],
  };
};

/** Text messages, by a gateway that takes and hands over forms. */
export const textDoor = ({ outside, asking, clock }: NetworkParts): DoorKind => {
  const headersFor = ({ account = '' }: Texts, { key = '' }: Texts) => ({
    authorization: `Basic ${Buffer.from(`${account}:${key}`).toString('base64')}`,
  });

  return {
    kind: TEXT,
    plate: 'phone',
    way: TEXT,
    carriesTexts: true,
    can,
    hear: ({ secret, body, headers }) => {
      const { word = '' } = secretsOrRefuse(secret);
      const proof = headerOf({ headers }, 'gateway-signature');
      if (!isProved(proof, word, body, clock.now())) throw new Refused('signature-wrong');
      const read = HandedSchema.safeParse(fieldsOf(body.toString('utf8')));
      if (!read.success) throw new Refused('bad-request');
      return heardIn(read.data);
    },
    send: async ({ door, secret, outbound: { key, to, text }, signal }) => {
      const { url = '', number = '', ...told } = toldOf(door);
      const form = { from: number, to: NetworkIdSchema.parse(to), text, reference: key };
      const body = new URLSearchParams(form).toString();
      const headers = {
        ...headersFor(told, secretsOf(secret)),
        'content-type': 'application/x-www-form-urlencoded',
        'content-length': Buffer.byteLength(body),
      };
      const address = `${url}/messages`;
      const asked = { method: 'POST', address, headers, body, signal, refusal: refusalIn };
      const said = await asking.text(asked);
      const taken = TakenSchema.safeParse(fieldsOf(said));
      if (!taken.success) throw new JobFailed('answer-not-understood');
      return { networkId: taken.data.id, step: 'sent' };
    },
    fetchFile: ({ door, secret, address, signal }) => {
      const told = toldOf(door);
      const headers = headersFor(told, secretsOf(secret));
      return asking.file({ address, headers, signal }, told.url ?? '');
    },
    // RFC 5724
    writeTo: (door, text) => `sms:${toldOf(door).number}?body=${encodeURIComponent(text)}`,
    connecting: connectingBy({
      outside,
      fields: [
        { id: 'url', form: 'link' },
        { id: 'number', form: 'phone' },
        { id: 'account', form: 'line' },
        { id: 'key', form: 'secret' },
      ],
      made: ['word'],
      check: async (door, secret, signal) => {
        const told = toldOf(door);
        const headers = headersFor(told, secretsOf(secret));
        await asking.text({ method: 'GET', address: `${told.url}/account`, headers, signal });
        return {};
      },
    }),
  };
};
