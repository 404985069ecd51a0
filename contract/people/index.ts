import { z } from 'zod';
import { IdSchema, TimeSchema } from '../entries';
import { ShortTextSchema, TypedEmailSchema, TypedPasswordSchema } from '../typed';

/** On what somebody signs in: the checklist waits for a phone. */
export const DeviceKindSchema = z.enum(['phone', 'computer']);
export type DeviceKind = z.infer<typeof DeviceKindSchema>;

const device = DeviceKindSchema.default('computer');

export const SetUpSchema = z.object({
  /** Printed where the server starts, while nobody has set it up. */
  code: z.string().max(40),
  business: ShortTextSchema,
  zone: z.string().max(64),
  name: ShortTextSchema,
  email: TypedEmailSchema,
  password: TypedPasswordSchema,
  device,
});
export type SetUp = z.input<typeof SetUpSchema>;

export const SignInSchema = z.object({
  email: TypedEmailSchema,
  password: TypedPasswordSchema,
  device,
});
export type SignIn = z.input<typeof SignInSchema>;

export const RoleSchema = z.enum(['owner', 'helper']);
export type Role = z.infer<typeof RoleSchema>;

export const MemberSchema = z.object({
  id: IdSchema,
  name: z.string(),
  role: RoleSchema,
  /** As visitors see them; empty: as they are called. */
  publicName: z.string(),
  pictureId: IdSchema.nullable(),
});
export type Member = z.infer<typeof MemberSchema>;

/** Until when somebody is out; null: until they say that they are in again. */
export const OutSchema = z.object({ until: TimeSchema.nullable() });
export type Out = z.infer<typeof OutSchema>;

export const OutChangeSchema = z.object({ out: OutSchema.nullable() });

/** Somebody of the team; who has left stays known for what they said. */
export const TeamMemberSchema = MemberSchema.extend({
  email: z.string(),
  hasLeft: z.boolean(),
  /** Null: they are in. */
  out: OutSchema.nullable(),
});
export type TeamMember = z.infer<typeof TeamMemberSchema>;

export const MeChangeSchema = z.object({ name: ShortTextSchema, publicName: ShortTextSchema });

export const PasswordChangeSchema = z.object({
  old: TypedPasswordSchema,
  new: TypedPasswordSchema,
});

export const RoleChangeSchema = z.object({ role: RoleSchema });

/** A link by which somebody could still come in, without its secret. */
export const OpenLinkSchema = z.object({
  id: z.string(),
  kind: z.enum(['invite', 'new-password']),
  /** As what an invitation lets in; null for a way to a new password. */
  role: RoleSchema.nullable(),
  /** Whose new password; for an invitation whom it is for, in the words of whoever made it: may be empty. */
  name: z.string(),
  /** Who made it; empty: the command on the server. */
  madeBy: z.string(),
  expiresAt: TimeSchema,
});
export type OpenLink = z.infer<typeof OpenLinkSchema>;

/** `name`: whom it is for. */
export const NewInviteSchema = z.object({ role: RoleSchema, name: z.string().max(80).default('') });

/** One for oneself asks for the password. */
export const NewPasswordLinkSchema = z.object({ password: TypedPasswordSchema.optional() });

/** A link that works once. It is told once, when it is made; only a hash is kept. */
export const OneTimeLinkSchema = z.object({ link: z.string(), expiresAt: TimeSchema });
export type OneTimeLink = z.infer<typeof OneTimeLinkSchema>;

const token = z.string().regex(/^[A-Za-z0-9_-]{20,60}$/);

export const LookAtLinkSchema = z.object({ token });

export const SeenLinkSchema = z.object({
  kind: z.enum(['invite', 'new-password']),
  business: z.string(),
  role: RoleSchema.nullable(),
  name: z.string(),
  expiresAt: TimeSchema,
});
export type SeenLink = z.infer<typeof SeenLinkSchema>;

export const JoinSchema = z.object({
  token,
  name: ShortTextSchema,
  email: TypedEmailSchema,
  password: TypedPasswordSchema,
  device,
});
export type Join = z.input<typeof JoinSchema>;

export const NewPasswordSchema = z.object({ token, password: TypedPasswordSchema, device });
export type NewPassword = z.input<typeof NewPasswordSchema>;

/** A phone that signs in by a code on a screen that is signed in. */
export const PairingSchema = z.object({
  id: IdSchema,
  state: z.enum(['waiting', 'asking', 'done', 'refused', 'stale']),
  /** What both screens show, once the phone has opened the code. */
  words: z.string(),
  expiresAt: TimeSchema,
});
export type Pairing = z.infer<typeof PairingSchema>;

export const NewPairingSchema = PairingSchema.extend({ link: z.string(), picture: z.string() });
export type NewPairing = z.infer<typeof NewPairingSchema>;

export const AnswerPairingSchema = z.object({ isSame: z.boolean() });

export const CollectSchema = z.object({ state: PairingSchema.shape.state });

/** Wrong tries at one's own account from devices that never signed in, since they were last seen. */
export const SignInWarningSchema = z.object({
  failures: z.number().int().positive(),
  lastAt: TimeSchema,
});
export type SignInWarning = z.infer<typeof SignInWarningSchema>;

/** So many wrong tries may be one's own typing; more are told. */
export const WARNED_FROM = 5;
