import { setAsideReasons } from '@porch/core/conversation';
import { type Listed, listedFields } from '@porch/core/listing';
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

/** What a network hands over may be longer than what is shown at once: the rest is kept, and asked for apart. */
export const TEXT_HANDED_LONGEST = 65_536;

/** A file that a network has: where, as the network says, and what it is called. */
export const RemoteFileSchema = z.object({
  address: z.string().min(1).max(2_000),
  name: z.string().max(400),
});
export type RemoteFile = z.infer<typeof RemoteFileSchema>;

/** So many pictures that lie elsewhere are known of a mail. */
export const PICTURES_ELSEWHERE_MOST = 20;

export const CallSchema = z.object({ seconds: z.number().int().nonnegative() });

/** Something that somebody said at a door; once for each of the network's own ids, however often it comes. */
export const InboundSchema = z.object({
  doorId: IdSchema,
  networkId: NetworkIdSchema,
  /** Whoever writes chooses that id, and may choose one again; what their server calls it, '' where it does not say. */
  serverId: z.string().max(200).optional(),
  /** Who wrote, as the network calls them. */
  from: NetworkIdSchema,
  /** What they call themselves there; '' where the network does not say. */
  name: z.string().max(800).default(''),
  text: z.string().max(TEXT_HANDED_LONGEST),
  /** When it was said there; absent: just now. UTC epoch milliseconds. */
  saidAt: TimeSchema.optional(),
  /** What the network counts by, of two things that one person says in the same moment: the higher is the later. */
  order: z.number().optional(),
  /** Files that were taken in before, for the same writer. */
  fileIds: z.array(IdSchema).max(FILES_MOST).default([]),
  /** It was a call, and for how long something was spoken after the tone; 0: nothing was. */
  call: CallSchema.optional(),
  /** What files are called that could not be had from the network. */
  missing: z.array(z.string().max(400)).max(FILES_MOST).optional(),
  /** What files are called that are still to be fetched from the network. */
  coming: z.array(z.string().max(400)).max(FILES_MOST).optional(),
  proves: z.array(ProvenWaySchema).max(4).default([]),
  /** Where they say that they are reached by mail; only their word. */
  email: z.string().max(400).optional(),
  /** It came by mail: what else stood in it, and what it is about. */
  mail: z
    .object({
      rest: z.string(),
      subject: z.string().max(400),
      /** Who sent it in their name (a website's form); only their word says who wrote. */
      via: z.string().max(400).optional(),
      /** Pictures of it that lie elsewhere. */
      pictures: z.array(z.string().max(2_000)).max(PICTURES_ELSEWHERE_MOST),
    })
    .optional(),
  setAside: z.enum(setAsideReasons).optional(),
});
export type Inbound = z.infer<typeof InboundSchema>;

/** Somebody changed what they had said at a door, or took it back. */
export const ChangedSchema = z.object({
  doorId: IdSchema,
  /** Of the message, as it was handed over. */
  networkId: NetworkIdSchema,
  from: NetworkIdSchema,
  /** The network's own id of the change, where it has one: the same change twice is once. */
  id: NetworkIdSchema.optional(),
  /** When, as the network says: of two changes the later counts. UTC epoch milliseconds. */
  saidAt: TimeSchema,
  /** Null: taken back. */
  text: z.string().max(TEXT_HANDED_LONGEST).nullable(),
});
export type Changed = z.infer<typeof ChangedSchema>;

/** Somebody wants nothing more by a door, or something again; once for each of the network's own ids. */
export const StoppedSchema = z.object({
  doorId: IdSchema,
  networkId: NetworkIdSchema,
  from: NetworkIdSchema,
  isStopped: z.boolean(),
  /** In which word they said so. */
  word: z.string().max(40),
});
export type Stopped = z.infer<typeof StoppedSchema>;

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
export const DoorCanSchema = z.object({
  /** Longest text in characters. */
  textLongest: z.number().int(),
  /** Where a text is paid for by segments (3GPP TS 23.038), counted while it is written: how many it may have. */
  segmentsMost: z.number().int().optional(),
  /** Most files with a message; 0: none. */
  filesMost: z.number().int(),
  fileLargestBytes: z.number(),
  /** How far the network tells what became of a message. */
  receipts: z.enum(['none', 'sent', 'arrived', 'read']),
  typing: z.boolean(),
  /** For how long after somebody's last message they may be answered, in milliseconds; null: always. */
  windowMs: z.number().nullable(),
  /** Nothing that is written goes out by it. */
  isMute: z.boolean().optional(),
  /** What is written goes out as a text message, by another door. */
  isAsText: z.boolean().optional(),
});
export type DoorCan = z.infer<typeof DoorCanSchema>;

/** What is drawn on the plate of a door. */
export const plates = [
  'window',
  'phone',
  'slip',
  'waves',
  'frame',
  'signpost',
  'envelope',
  'handset',
  'hub',
  'arch',
] as const;
export const PlateSchema = z.enum(plates);
export type Plate = z.infer<typeof PlateSchema>;

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
  plate: PlateSchema,
  name: z.string(),
  /** What can be done by it; null where this version knows no such kind of door. */
  can: DoorCanSchema.nullable(),
  /** Whether what is said there is carried by a network, and not shown on a page of ours. */
  isCarried: z.boolean(),
  health: DoorHealthSchema,
  /** Of a website door: where it may stand. */
  sites: z.array(z.string()),
  snippet: z.string(),
  link: z.string(),
  /** Whom it concerns: they are shown there and hear its bell. Null: everybody. */
  memberIds: z.array(IdSchema).nullable(),
  isClosed: z.boolean(),
  /** Whether the panels on the websites offer it; null: nobody can be led there by a link. */
  isOffered: z.boolean().nullable(),
  isDressed: z.boolean(),
});
export type Door = z.infer<typeof DoorSchema>;

/** A door that was taken away: what was said by it can still be read. */
export const FormerDoorSchema = DoorSchema.pick({ id: true, plate: true, name: true });
export type FormerDoor = z.infer<typeof FormerDoorSchema>;

export const SITES_MOST = 20;

export const DOORS_MOST = 50;

export const DoorChangeSchema = z.object({
  name: ShortTextSchema.optional(),
  sites: z.array(z.string().max(400)).max(SITES_MOST).optional(),
  memberIds: z.array(IdSchema).max(50).nullable().optional(),
  isClosed: z.boolean().optional(),
  isOffered: z.boolean().optional(),
});
export type DoorChange = z.infer<typeof DoorChangeSchema>;

export const NewDoorSchema = z.object({
  name: ShortTextSchema,
  language: z.string().regex(/^[a-z]{2,3}$/),
});

/** Something that is asked of an owner: `options`, where it is one of these. */
const NetworkFieldSchema = z.object({
  id: z.string(),
  isSecret: z.boolean(),
  options: z.array(z.string()).optional(),
});

/** A kind of network to which a door can be opened, and what is asked of its owner. */
export const NetworkKindSchema = z.object({
  kind: z.string(),
  plate: PlateSchema,
  fields: z.array(NetworkFieldSchema),
  /** Its network is made up, and stands on the simulated street only. */
  isOnStreet: z.boolean(),
});
export type NetworkKind = z.infer<typeof NetworkKindSchema>;

/** What an owner says of a door to a network, by field. */
const GivenSchema = z.record(z.string().max(40), z.string().max(2_000));

export const NewNetworkDoorSchema = z.object({
  kind: z.string().max(40),
  name: ShortTextSchema,
  given: GivenSchema,
});

export const NetworkDoorChangeSchema = z.object({ given: GivenSchema });

const ListedSchema = z.object({
  isOn: z.boolean(),
  awayUntil: TimeSchema.nullable(),
  hours: z.string(),
}) satisfies z.ZodType<Listed>;

/** What became of a listing's questions, and the cards of a website door with which they are the same. */
export const ListedQuestionsSchema = z.object({
  doorId: IdSchema,
  /** So many are the same on both. */
  sameCount: z.number().int(),
  /** When cards were last changed because of the listing, and how many. */
  followed: z.object({ at: TimeSchema, count: z.number().int() }).nullable(),
  /** What the listing had said where both had changed the same, and the cards counted. */
  outvoted: z.array(z.object({ question: z.string(), answer: z.string() })),
  /** Questions of the listing that no card could be made of; they stay there. */
  notTaken: z.array(z.string()),
  /** Questions whose answers are longer than the listing takes. */
  tooLong: z.array(z.string()),
  /** Why they could not be compared when it was last tried; null: they were. */
  problem: z.string().nullable(),
});
export type ListedQuestions = z.infer<typeof ListedQuestionsSchema>;

/** How a door to a network is connected, for its owner. */
export const NetworkDoorSchema = z.object({
  id: IdSchema,
  kind: z.string(),
  /** What was said of it; of a secret only whether it is there. */
  fields: z.array(NetworkFieldSchema.extend({ value: z.string(), isSet: z.boolean() })),
  /** What is to be put in at the network, by name. */
  shows: z.record(z.string(), z.string()),
  canRenew: z.boolean(),
  /** Who wrote by it last; null: nobody has. */
  heardFrom: z
    .object({ conversationId: IdSchema, threadId: IdSchema, name: z.string(), at: TimeSchema })
    .nullable(),
  /** What became of what went out by it last; null: nothing has. */
  lastSent: z.object({ step: StepSchema, why: z.string().nullable() }).nullable(),
  /** What the network can do, once it has said so. */
  can: DoorCanSchema,
  /** Of a listing: what both said when they last agreed, when that was, and in what they had differed. */
  listing: z
    .object({
      agreed: ListedSchema,
      at: TimeSchema,
      differed: z.array(z.enum(listedFields)),
      theirs: ListedSchema,
      questions: ListedQuestionsSchema.nullable(),
    })
    .nullable(),
  /** What was wrong when it was just asked; null: nothing, or it was not asked. */
  problem: z.string().nullable(),
});
export type NetworkDoor = z.infer<typeof NetworkDoorSchema>;

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
