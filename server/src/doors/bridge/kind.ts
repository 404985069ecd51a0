import {
  type BridgeCan,
  BridgeCanSchema,
  type BridgeIn,
  BridgeInSchema,
  type BridgeOut,
  BridgeTakenSchema,
} from '@porch/contract/bridge';
import { type DoorCan, NetworkIdSchema, type Outbound } from '@porch/contract/doors';
import { MESSAGE_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { JobFailed } from '../../jobs/worker';
import { Refused } from '../../refused';
import type { DoorRecord } from '../../store';
import { type NetworkParts, parsedOrRefuse } from '../network-parts';
import type { Connecting, DoorKind, Heard } from '../registry';
import { wordsOf } from './parts';
import { changedKeys, keysFrom, keysToText, newKey, provenId, signed } from './signing';

export const BRIDGE = 'bridge';

const HOUR_MS = 3_600_000;

/** What a bridge's door needs to know: where the bridge is, and what it said its network can do. */
const SettingsSchema = z.object({ url: z.url(), can: BridgeCanSchema.nullable() });
export type BridgeSettings = z.infer<typeof SettingsSchema>;

const settingsOf = ({ settings }: DoorRecord): BridgeSettings => SettingsSchema.parse(settings);

/** Until a bridge has said what its network can do nothing but words is sent. */
const littleCan: DoorCan = {
  textLongest: MESSAGE_LONGEST,
  filesMost: 0,
  fileLargestBytes: 0,
  receipts: 'none',
  typing: false,
  windowMs: null,
};

const toCan = ({ name: _name, writeTo: _writeTo, windowHours, ...can }: BridgeCan): DoorCan => ({
  ...can,
  typing: true,
  windowMs: windowHours === undefined ? null : windowHours * HOUR_MS,
});

type Message = Extract<BridgeIn, { type: 'message' }>;

const messageOf = ({ timestamp, data }: Message): NonNullable<Heard['inbounds']>[number] => {
  const { id, from, text, sequence, files, parts } = data;
  const ways = [
    ['email', from.email],
    ['phone', from.phone],
  ] as const;
  return {
    networkId: id,
    from: from.id,
    name: from.name,
    text: wordsOf(text, parts ?? []),
    saidAt: Date.parse(timestamp),
    order: sequence,
    files: files?.map(({ url, name }) => ({ address: url, name })),
    proves: ways.flatMap(([kind, address]) => (address ? [{ kind, address }] : [])),
  };
};

/** What one webhook of a bridge says. */
const heardIn = (said: BridgeIn): Heard => {
  const saidAt = Date.parse(said.timestamp);
  switch (said.type) {
    case 'message':
      return { inbounds: [messageOf(said)] };
    case 'message.changed': {
      const { id, from, text } = said.data;
      return { changes: [{ networkId: id, from: from.id, text, saidAt }] };
    }
    case 'message.withdrawn': {
      const { id, from } = said.data;
      return { changes: [{ networkId: id, from: from.id, text: null, saidAt }] };
    }
    case 'receipt': {
      const { id, step, why } = said.data;
      return { deliveries: [{ networkId: id, step, why }] };
    }
    case 'typing':
      return { typing: [said.data.from.id] };
  }
};

/** So many fields that are read by nobody are named. */
const IGNORED_MOST = 10;
const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

/** Which fields of what was handed over nobody reads: "data.from.nickname". */
const ignoredIn = (given: unknown, read: unknown, at = ''): string[] => {
  if (!isObject(given) || !isObject(read)) return [];
  return Object.entries(given)
    .flatMap(([name, value]) => {
      const path = at ? `${at}.${name}` : name;
      return name in read ? ignoredIn(value, read[name], path) : [path];
    })
    .slice(0, IGNORED_MOST);
};

/** What is of a later version of the contract is taken and passed over. */
const TypedSchema = z.looseObject({ type: z.string().max(60) });
const knownTypes: ReadonlySet<string> = new Set(
  BridgeInSchema.options.map(({ shape }) => shape.type.value),
);

/** A door to any network, by a bridge that speaks the open contract (`contract/bridge`). */
export const bridgeDoor = ({ outside, asking, clock, fileLink }: NetworkParts): DoorKind => {
  const ask = async <Shape extends z.ZodType>(
    { door, secret, signal }: { door: DoorRecord; secret: string | null; signal: AbortSignal },
    id: string,
    what: Pick<BridgeOut, 'type' | 'data'>,
    shape: Shape,
  ): Promise<z.infer<Shape>> => {
    if (secret === null) throw new JobFailed('key-missing', true);
    const now = clock.now();
    const body = JSON.stringify({ ...what, timestamp: new Date(now).toISOString() });
    const headers = {
      'content-type': 'application/json',
      'content-length': Buffer.byteLength(body),
      ...signed(keysFrom(secret), id, body, now),
    };
    return asking.json(
      { method: 'POST', address: settingsOf(door).url, headers, body, signal },
      shape,
    );
  };

  const filesOf = (files: Outbound['files']) =>
    files.map(({ id, name, type, sizeBytes }) => {
      const url = fileLink(id);
      if (url === null) throw new JobFailed('secret-sealed');
      return { url, name, type, sizeBytes };
    });

  const kind: DoorKind = {
    kind: BRIDGE,
    plate: 'arch',
    way: BRIDGE,
    can: (door) => {
      const { can } = settingsOf(door);
      return can ? toCan(can) : littleCan;
    },
    hear: ({ secret, body, headers }) => {
      const id = secret && provenId(keysFrom(secret), headers, body, clock.now());
      if (!id) throw new Refused('signature-wrong');
      const given = TypedSchema.safeParse(parsedOrRefuse(body));
      if (!given.success) throw new Refused('bad-request');
      if (!knownTypes.has(given.data.type)) return {};
      const said = BridgeInSchema.safeParse(given.data);
      if (!said.success) throw new Refused('bad-request');
      return { ...heardIn(said.data), ignored: ignoredIn(given.data, said.data) };
    },
    send: async ({ door, secret, outbound, signal }) => {
      const { key, to, text, files } = outbound;
      const id = key.replace(/[^A-Za-z0-9_-]/g, '-');
      const data = { id, to: NetworkIdSchema.parse(to), text, files: filesOf(files) };
      const by = { door, secret, signal };
      const taken = await ask(by, id, { type: 'message', data }, BridgeTakenSchema);
      return { networkId: taken.id, step: taken.step ?? 'sent' };
    },
    writeTo: (door, text) =>
      settingsOf(door).can?.writeTo?.replaceAll('{text}', encodeURIComponent(text)) ?? null,
    fetchFile: ({ door, address, signal }) =>
      asking.file({ address, headers: {}, signal }, settingsOf(door).url),
  };

  const connecting: Connecting = {
    fields: [{ id: 'url', isSecret: false }],
    settle: ({ url }, known) => {
      const before = known ? SettingsSchema.parse(known.settings) : { url: '', can: null };
      const next = url?.trim() ?? before.url;
      if (!outside.may(next)) throw new Refused('link-not-understood', { field: 'url' });
      return {
        settings: { ...before, url: next },
        secret: known?.secret ?? keysToText({ key: newKey(), before: null }),
      };
    },
    said: (door) => ({ url: settingsOf(door).url }),
    shows: (door, secret, origin) => ({
      address: `${origin}/in/${door.publicId}`,
      key: secret ? keysFrom(secret).key : '',
    }),
    renewed: (secret, now) => keysToText(changedKeys(keysFrom(secret), newKey(), now)),
    check: async (door, secret, signal) => {
      const id = `can-${door.id}-${clock.now()}`;
      const what = { type: 'capabilities' as const, data: {} };
      const can = await ask({ door, secret, signal }, id, what, BridgeCanSchema);
      return { can };
    },
  };

  return { ...kind, connecting };
};
