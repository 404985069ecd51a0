import { randomBytes } from 'node:crypto';
import type { Outbound } from '@porch/contract/doors';
import { toE164 } from '@porch/core/contact';
import type { Light } from '@porch/core/lamp';
import { cleanLine } from '@porch/core/text';
import { z } from 'zod';
import type { Clock } from '../clock';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import type { Outside } from '../security/outside';
import type { DoorRecord } from '../store';
import type { Asking } from './asking';
import type { Connecting, Handed, Kept } from './registry';

/** What the door to any network is made of. */
export interface NetworkParts {
  outside: Outside;
  asking: Asking;
  clock: Clock;
  /** Where whoever has the link fetches a file; null where none can be made. */
  fileLink: (fileId: string) => string | null;
  /** What a file has in it; nothing where it is not there. */
  fileBytes: (fileId: string) => Buffer;
  /** What the porch light shows at a door. */
  lightAt: (doorId: string) => Light;
}

/** What an owner says of a network: an address, a word, a phone number, or a key that nobody may read. */
export interface Field {
  id: string;
  form: 'link' | 'line' | 'phone' | 'secret' | 'numbers' | 'choice';
  /** Of a choice: what can be chosen; the first of them where nothing was. */
  options?: readonly string[];
  /** It may be left empty. */
  isOptional?: boolean;
}

const TextsSchema = z.record(z.string(), z.string());
export type Texts = Readonly<Record<string, string>>;

const TOLD_LONGEST = 1_000;

/** So many bytes are in a word that the house makes for a network to prove itself by. */
const MADE_BYTES = 24;

/** What a door was told that may be read. */
export const toldOf = ({ settings }: Pick<DoorRecord, 'settings'>): Texts =>
  TextsSchema.parse(settings.told ?? {});

/** What a door was told that nobody may read. Fails where it is gone. */
export const secretsOf = (secret: string | null): Texts => {
  if (secret === null) throw new JobFailed('key-missing', true);
  return TextsSchema.parse(JSON.parse(secret));
};

/** The same while something is handed over: without it nothing can be proved. */
export const secretsOrRefuse = (secret: string | null): Texts => {
  if (secret === null) throw new Refused('signature-wrong');
  return TextsSchema.parse(JSON.parse(secret));
};

/** A header that was sent once; '' otherwise. */
export const headerOf = ({ headers }: Pick<Handed, 'headers'>, name: string): string => {
  const value = headers[name];
  return typeof value === 'string' ? value : '';
};

/** A list in which what cannot be read is passed over: what stands beside it is to be heard all the same. */
export const readable = <Shape extends z.ZodType>(shape: Shape) =>
  z.array(z.unknown()).transform((items) =>
    items.flatMap((item): z.output<Shape>[] => {
      const read = shape.safeParse(item);
      return read.success ? [read.data] : [];
    }),
  );

/** A body in JSON. Refuses what is none. */
export const parsedOrRefuse = (body: Buffer): unknown => {
  try {
    return JSON.parse(body.toString('utf8'));
  } catch {
    throw new Refused('bad-request');
  }
};

/** A body in JSON, of a shape. Refuses any other. */
export const shapedOrRefuse = <Shape extends z.ZodType>(
  body: Buffer,
  shape: Shape,
): z.infer<Shape> => {
  const read = shape.safeParse(parsedOrRefuse(body));
  if (!read.success) throw new Refused('bad-request');
  return read.data as z.infer<Shape>;
};

/** A network's own page on which one begins to write to somebody. */
export const writeLink = (told: Texts, to: string, text: string): string =>
  `${told.url}/write?${new URLSearchParams({ to: told[to] ?? '', text })}`;

/** Files as a network is told of them that fetches them itself. */
export const linkedFiles = (
  files: Outbound['files'],
  fileLink: NetworkParts['fileLink'],
): { link: string; name: string; type: string }[] =>
  files.map(({ id, name, type }) => {
    const link = fileLink(id);
    if (link === null) throw new JobFailed('secret-sealed');
    return { link, name, type };
  });

/** What networks call what is wrong with one message, and the codes that stand for it here. */
const refusals: Readonly<Record<string, string>> = {
  window: 'window-closed',
  stopped: 'person-stopped',
  unknown: 'person-unknown',
};

/** What a network has against a message, where it says so in JSON as `{ "error": "window" }`. */
export const refusalIn = (said: string): string | null => {
  try {
    const { error } = z.object({ error: z.string() }).parse(JSON.parse(said));
    return refusals[error] ?? null;
  } catch {
    return null;
  }
};

/**
 * How a door to a network is opened by its owner who says some things of it; `made`: words that the house makes, to be
 * put in at the network, by which it proves itself.
 */
export const connectingBy = (by: {
  outside: Outside;
  fields: readonly Field[];
  made: readonly string[];
  check: Connecting['check'];
}): Connecting => {
  const { outside, fields, made, check } = by;

  const phoneOf = (typed: string, id: string): string => {
    const phone = toE164(typed.trim(), '');
    if (!phone) throw new Refused('phone-not-understood', { field: id });
    return phone;
  };

  const checked = ({ id, form, options = [], isOptional }: Field, typed: string): string => {
    const value = cleanLine(typed);
    if (form === 'choice') {
      const chosen = value || options[0];
      if (!chosen || !options.includes(chosen)) throw new Refused('choice-unknown', { field: id });
      return chosen;
    }
    if (!value && isOptional) return '';
    if (!value) throw new Refused('text-empty', { field: id });
    if (value.length > TOLD_LONGEST) {
      throw new Refused('text-too-long', { field: id, limit: TOLD_LONGEST });
    }
    if (form === 'link' && !outside.may(value)) {
      throw new Refused('link-not-understood', { field: id });
    }
    switch (form) {
      case 'phone':
        return phoneOf(value, id);
      case 'numbers':
        return value
          .split(',')
          .map((one) => phoneOf(one, id))
          .join(', ');
      case 'link':
        return value.replace(/\/+$/, '');
      default:
        return value;
    }
  };

  const settle = (given: Texts, known: Kept | null): Kept => {
    const told = { ...(known ? toldOf(known) : {}) };
    const secrets: Record<string, string> = known?.secret ? { ...secretsOf(known.secret) } : {};
    for (const word of made) secrets[word] ??= randomBytes(MADE_BYTES).toString('base64url');
    for (const field of fields) {
      const kept = field.form === 'secret' ? secrets : told;
      const typed = given[field.id];
      // A key is never shown: nothing typed in its place leaves it as it is.
      const isLeft = typed === undefined || (field.form === 'secret' && typed.trim() === '');
      if (isLeft && kept[field.id] !== undefined) continue;
      kept[field.id] = checked(field, typed ?? '');
    }
    return { settings: { ...known?.settings, told }, secret: JSON.stringify(secrets) };
  };

  return {
    fields: fields.map(({ id, form, options }) => ({
      id,
      isSecret: form === 'secret',
      ...(options ? { options: [...options] } : {}),
    })),
    settle,
    said: (door) => toldOf(door),
    shows: (door, secret, origin) => {
      const secrets = secret === null ? {} : secretsOf(secret);
      const words = made.map((word) => [word, secrets[word] ?? ''] as const);
      return { address: `${origin}/in/${door.publicId}`, ...Object.fromEntries(words) };
    },
    check,
  };
};
