import { MESSAGE_LONGEST, NAME_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { NetworkIdSchema, TEXT_HANDED_LONGEST } from '../doors';
import { FILES_MOST } from '../entries';

/**
 * The open contract: what a bridge to any network hands over to a door, and what the door asks of it. Both ways are
 * webhooks as the Standard Webhooks specification has them: a type, a moment, and data, signed.
 */

/** A moment as RFC 3339 has it. */
const MomentSchema = z.iso.datetime({ offset: true });

const LINK_LONGEST = 2_000;

/** A file that waits to be fetched, from the bridge's own address and no other. */
const BridgeFileSchema = z.object({
  url: z.url().max(LINK_LONGEST),
  name: z.string().max(200),
});

/** What is in a message beside its words. Of a kind that is not known here only its text is read. */
const BridgePartSchema = z.union([
  z.object({
    kind: z.literal('location'),
    latitude: z.number().min(-90).max(90),
    longitude: z.number().min(-180).max(180),
    text: z.string().max(NAME_LONGEST).optional(),
  }),
  z.object({
    kind: z.literal('contact'),
    name: z.string().max(NAME_LONGEST),
    phone: z.string().max(40).optional(),
    email: z.string().max(254).optional(),
  }),
  z.object({ kind: z.string().max(40), text: z.string().max(NAME_LONGEST).optional() }),
]);

/** Somebody on the network: how it calls them, what they call themselves, and how they are reached for sure. */
const BridgePersonSchema = z.object({
  id: NetworkIdSchema,
  name: z.string().max(2_000).optional(),
  email: z.string().max(254).optional(),
  phone: z.string().max(40).optional(),
});

const text = z.string().max(TEXT_HANDED_LONGEST);

/** What a bridge hands over: one of these a webhook. */
export const BridgeInSchema = z.discriminatedUnion('type', [
  /** Somebody wrote. `id`: the network's own, by which it is taken once. */
  z.object({
    type: z.literal('message'),
    timestamp: MomentSchema,
    data: z.object({
      id: NetworkIdSchema,
      from: BridgePersonSchema,
      text,
      /** What the network counts by: of two messages in the same moment the one with more is the later. */
      sequence: z.number().int().nonnegative().optional(),
      files: z.array(BridgeFileSchema).max(FILES_MOST).optional(),
      parts: z.array(BridgePartSchema).max(FILES_MOST).optional(),
    }),
  }),
  /** They changed what they wrote. */
  z.object({
    type: z.literal('message.changed'),
    timestamp: MomentSchema,
    data: z.object({ id: NetworkIdSchema, from: BridgePersonSchema, text }),
  }),
  /** They took it back. */
  z.object({
    type: z.literal('message.withdrawn'),
    timestamp: MomentSchema,
    data: z.object({ id: NetworkIdSchema, from: BridgePersonSchema }),
  }),
  /** What became of a message of ours. */
  z.object({
    type: z.literal('receipt'),
    timestamp: MomentSchema,
    data: z.object({
      id: NetworkIdSchema,
      step: z.enum(['sent', 'arrived', 'read', 'failed']),
      why: z.string().max(400).optional(),
    }),
  }),
  z.object({
    type: z.literal('typing'),
    timestamp: MomentSchema,
    data: z.object({ from: BridgePersonSchema }),
  }),
]);
export type BridgeIn = z.infer<typeof BridgeInSchema>;

/** What the door asks of a bridge: one of these a webhook. */
export const BridgeOutSchema = z.discriminatedUnion('type', [
  /** What can the network do? Asked when the door is opened. Answered with `BridgeCan`. */
  z.object({ type: z.literal('capabilities'), timestamp: MomentSchema, data: z.object({}) }),
  /** Say this to somebody. The same `id` is the same message, however often. Answered with `BridgeTaken`. */
  z.object({
    type: z.literal('message'),
    timestamp: MomentSchema,
    data: z.object({
      id: z.string(),
      to: NetworkIdSchema,
      text: z.string(),
      files: z.array(
        z.object({ url: z.url(), name: z.string(), type: z.string(), sizeBytes: z.number().int() }),
      ),
    }),
  }),
]);
export type BridgeOut = z.infer<typeof BridgeOutSchema>;

/** What a network can do, as its bridge says. */
export const BridgeCanSchema = z.object({
  /** What people call it. */
  name: z.string().min(1).max(60),
  /** Longest text in characters. */
  textLongest: z.number().int().min(1).max(MESSAGE_LONGEST),
  /** Most files with a message; 0: none. */
  filesMost: z.number().int().min(0).max(FILES_MOST),
  fileLargestBytes: z.number().int().min(0),
  /** How far it tells what became of a message. */
  receipts: z.enum(['none', 'sent', 'arrived', 'read']),
  /** A link by which somebody begins to write to the business there; {text} stands for what they say first. */
  writeTo: z
    .string()
    .max(500)
    .regex(/^(https:\/\/|sms:|xmpp:|mailto:).*\{text\}/)
    .optional(),
  /** For how long after somebody's last message they may be answered, in hours; absent: always. */
  windowHours: z.number().positive().max(8_760).optional(),
});
export type BridgeCan = z.infer<typeof BridgeCanSchema>;

/** A message was taken; `id`: the network's own, by which its receipts come. */
export const BridgeTakenSchema = z.object({
  id: NetworkIdSchema,
  step: z.enum(['sent', 'arrived']).optional(),
});
export type BridgeTaken = z.infer<typeof BridgeTakenSchema>;
