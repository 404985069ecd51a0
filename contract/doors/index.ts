import { MESSAGE_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { FILES_MOST, IdSchema, StepSchema, TimeSchema } from '../entries';
import { ShortTextSchema } from '../typed';

/**
 * What a door makes of its network's own words, and what it is asked to say there. Nothing behind a door knows
 * which network it was.
 */

/** A network's own id of a message, or of somebody: whatever it is, it is bounded. */
export const NetworkIdSchema = z.string().min(1).max(400);

/** How somebody can be reached, as the network has made sure of it. */
export const ProvenWaySchema = z.object({
  kind: z.string().min(1).max(40),
  address: NetworkIdSchema,
});

/** Something that somebody said at a door; once for each of the network's own ids, however often it comes. */
export const InboundSchema = z.object({
  doorId: IdSchema,
  networkId: NetworkIdSchema,
  /** Who wrote, as the network calls them. */
  from: NetworkIdSchema,
  /** What they call themselves there; '' where the network does not say. */
  name: z.string().max(400).default(''),
  text: z.string().max(MESSAGE_LONGEST * 2),
  /** Files that were taken in before, for the same writer. */
  fileIds: z.array(IdSchema).max(FILES_MOST).default([]),
  proves: z.array(ProvenWaySchema).max(4).default([]),
});
export type Inbound = z.infer<typeof InboundSchema>;

/** Something that the team says, for a door to carry out. */
export interface Outbound {
  /** The same for the same message, however often it is tried. */
  key: string;
  /** To whom, as the network calls them. */
  to: string;
  text: string;
  files: readonly { id: string; name: string; type: string; sizeBytes: number }[];
}

/** What became of something that went out, as the network says; in any order, and perhaps twice. */
export const DeliverySchema = z.object({
  networkId: NetworkIdSchema,
  step: StepSchema,
  /** For `failed`: what went wrong, by a code or in the network's own words. */
  why: z.string().max(400).optional(),
});
export type Delivery = z.infer<typeof DeliverySchema>;

/** What a kind of door can do. */
export interface DoorCan {
  /** Longest text in characters. */
  textLongest: number;
  /** Most files with a message; 0: none. */
  filesMost: number;
  fileLargestBytes: number;
  /** How far the network tells what became of a message. */
  receipts: 'none' | 'sent' | 'arrived' | 'read';
  typing: boolean;
  /** For how long after somebody's last message they may be answered, in milliseconds; null: always. */
  windowMs: number | null;
}

/** How a door is, as far as the house has heard. */
export const DoorHealthSchema = z.object({
  /** When something last came in by it; null: never, or it is not counted there. */
  heardAt: TimeSchema.nullable(),
  /** Since when nothing goes out by it; null: all is well. */
  failingSince: TimeSchema.nullable(),
  /** What is wrong, by its code. */
  why: z.string().nullable(),
});
export type DoorHealth = z.infer<typeof DoorHealthSchema>;

export const DoorSchema = z.object({
  id: IdSchema,
  /** Public: it stands in the snippet on the business's website. */
  publicId: IdSchema,
  /** Of which kind: a website door, or one of a network. */
  kind: z.string(),
  name: z.string(),
  health: DoorHealthSchema,
  /** Of a website door: where it may stand. */
  sites: z.array(z.string()),
  snippet: z.string(),
  link: z.string(),
  /** Whom it concerns: they are shown there and hear its bell. Null: everybody. */
  memberIds: z.array(IdSchema).nullable(),
  isClosed: z.boolean(),
  isDressed: z.boolean(),
});
export type Door = z.infer<typeof DoorSchema>;

export const SITES_MOST = 20;

export const DOORS_MOST = 50;

export const DoorChangeSchema = z.object({
  name: ShortTextSchema.optional(),
  sites: z.array(z.string().max(400)).max(SITES_MOST).optional(),
  memberIds: z.array(IdSchema).max(50).nullable().optional(),
  isClosed: z.boolean().optional(),
});
export type DoorChange = z.infer<typeof DoorChangeSchema>;

export const NewDoorSchema = z.object({
  name: ShortTextSchema,
  language: z.string().regex(/^[a-z]{2,3}$/),
});

/** A website on which a door's snippet was seen alive. */
export const SightingSchema = z.object({
  doorId: IdSchema,
  site: z.string(),
  /** The website's address, with its scheme. */
  origin: z.string(),
  /** The page's path; empty when the page did not say. */
  page: z.string(),
  at: TimeSchema,
  isListed: z.boolean(),
});
export type Sighting = z.infer<typeof SightingSchema>;
