import {
  alertDeeds,
  type Doorbell,
  messageChoices,
  PAGE_PATH_LONGEST,
  PAGES_MOST,
  quietChoices,
  RING_ON_LONGEST_MS,
  RING_ON_SHORTEST_MS,
  type RingOn,
  SHORT_REPLY_LONGEST,
  sounds,
} from '@porch/core/ringing';
import { z } from 'zod';
import { IdSchema, TimeSchema } from '../entries';
import { ShortTextSchema } from '../typed';

const MINUTES_OF_DAY = 24 * 60;
const IDS_MOST = 200;

const ids = z.array(IdSchema).max(IDS_MOST).nullable();
const minuteOfDay = z
  .number()
  .int()
  .min(0)
  .max(MINUTES_OF_DAY - 1);

/** How somebody wants to be rung. */
export const DoorbellSchema = z.object({
  doorIds: ids,
  messages: z.enum(messageChoices),
  notes: z.boolean(),
  pages: z
    .array(
      z
        .string()
        .max(PAGE_PATH_LONGEST)
        .regex(/^\/[^?#\s]*$/),
    )
    .max(PAGES_MOST),
  comesBack: z.boolean(),
  quiet: z.object({
    isOn: z.boolean(),
    from: minuteOfDay,
    to: minuteOfDay,
    zone: z.string().max(64),
    mayRing: z.enum(quietChoices),
  }),
  sound: z.enum(sounds).nullable(),
  vibrates: z.boolean(),
  hidesWords: z.boolean(),
  buttons: z.tuple([z.enum(alertDeeds), z.enum(alertDeeds)]),
  shortReply: z.string().max(SHORT_REPLY_LONGEST),
}) satisfies z.ZodType<Doorbell>;

const afterMs = z.number().int().min(RING_ON_SHORTEST_MS).max(RING_ON_LONGEST_MS).nullable();

/** What happens while nobody looks. */
export const RingOnSchema = z.object({
  againAfterMs: afterMs,
  othersAfterMs: afterMs,
  otherIds: ids,
  mailAfterMs: afterMs,
  mailIds: ids,
}) satisfies z.ZodType<RingOn>;

/** A device of one's own that rings. */
export const BellDeviceSchema = z.object({
  id: IdSchema,
  name: z.string(),
  isMuted: z.boolean(),
  addedAt: TimeSchema,
  /** When a ring for it was last taken by its push service. */
  rungAt: TimeSchema.nullable(),
  failedAt: TimeSchema.nullable(),
  /** Why the last ring did not reach it, by a code; null when it did. */
  why: z.string().nullable(),
});
export type BellDevice = z.infer<typeof BellDeviceSchema>;

export const MyDoorbellSchema = z.object({
  doorbell: DoorbellSchema,
  devices: z.array(BellDeviceSchema),
  ringOn: RingOnSchema,
  /** Whether anything goes out by mail. */
  canMail: z.boolean(),
  /** By which browsers know who may ring them (RFC 8292), base64url; null: it cannot be opened. */
  publicKey: z.string().nullable(),
});
export type MyDoorbell = z.infer<typeof MyDoorbellSchema>;

/** 65 bytes of a point on P-256, uncompressed, and 16 bytes (RFC 8291, 3.1 and 3.2), in base64url. */
const base64url = (length: number) =>
  z.string().regex(new RegExp(`^[A-Za-z0-9_-]{${length}}={0,2}$`));

export const ENDPOINT_LONGEST = 1_000;

/** What a browser gives when it agrees to be rung (Push API, PushSubscriptionJSON). */
export const SubscriptionSchema = z.object({
  endpoint: z.string().max(ENDPOINT_LONGEST),
  keys: z.object({ p256dh: base64url(87), auth: base64url(22) }),
});
export type Subscription = z.infer<typeof SubscriptionSchema>;

export const NewBellDeviceSchema = z.object({
  name: ShortTextSchema,
  subscription: SubscriptionSchema,
});
export type NewBellDevice = z.infer<typeof NewBellDeviceSchema>;

export const MuteSchema = z.object({ isMuted: z.boolean() });

/** How far a ring has come that somebody asked for. */
export const TrialRingSchema = z.object({
  id: IdSchema,
  sentAt: TimeSchema,
  /** When the push service took it. */
  takenAt: TimeSchema.nullable(),
  /** When the device said that it had come. */
  arrivedAt: TimeSchema.nullable(),
  why: z.string().nullable(),
});
export type TrialRing = z.infer<typeof TrialRingSchema>;

export const ArrivedSchema = z.object({ ring: IdSchema });

/** How many devices of one person ring. */
export const BELL_DEVICES_MOST = 20;
