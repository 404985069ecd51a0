import { EMAIL_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { TypedEmailSchema } from '../typed';

const HOST_LONGEST = 253;
const USER_LONGEST = 254;

export const mailSecurities = ['tls', 'starttls', 'none'] as const;
export const MailSecuritySchema = z.enum(mailSecurities);
export type MailSecurity = z.infer<typeof MailSecuritySchema>;

/** Where a mail server is, and as whom one signs in there; an empty user signs in as nobody. */
const server = {
  host: z
    .string()
    .min(1)
    .max(HOST_LONGEST)
    .regex(/^[A-Za-z0-9.:_-]+$/),
  port: z.number().int().min(1).max(65_535),
  security: MailSecuritySchema,
  user: z.string().max(USER_LONGEST),
};

/** By which server mail goes out, and from which address. */
export const OutgoingMailSchema = z.object({ ...server, from: TypedEmailSchema });
export type OutgoingMail = z.infer<typeof OutgoingMailSchema>;

export const IncomingMailSchema = z.discriminatedUnion('kind', [
  /** Alerts cannot be answered by mail. */
  z.object({ kind: z.literal('none') }),
  /** By a port of the house's own: answers go to replies+…@domain. */
  z.object({ kind: z.literal('own'), domain: z.string().min(1).max(HOST_LONGEST) }),
  /** By an ordinary mailbox that the house looks into: answers go to its address with a detail in it (RFC 5233). */
  z.object({ kind: z.literal('mailbox'), ...server, address: TypedEmailSchema }),
]);
export type IncomingMail = z.infer<typeof IncomingMailSchema>;

export const MailSettingsSchema = z.object({
  outgoing: OutgoingMailSchema.nullable(),
  incoming: IncomingMailSchema,
});
export type MailSettings = z.infer<typeof MailSettingsSchema>;

const secret = z.string().max(400).nullable();

/** Passwords go in and never come out; null: as it was. */
export const MailChangeSchema = MailSettingsSchema.extend({
  outgoingPassword: secret,
  incomingPassword: secret,
});
export type MailChange = z.infer<typeof MailChangeSchema>;

export const MailSchema = z.object({
  settings: MailSettingsSchema,
  hasOutgoingPassword: z.boolean(),
  hasIncomingPassword: z.boolean(),
  /** On which port of its own the house takes mail; null: on none. */
  ownPort: z.number().int().nullable(),
  /** What is wrong with looking into the mailbox, by a code; null: nothing. */
  mailboxProblem: z.string().nullable(),
  /** Under which origin links in mails lead here, and whether that is reached from this machine or network alone. */
  linksTo: z.string(),
  isNearOnly: z.boolean(),
});
export type Mail = z.infer<typeof MailSchema>;

const FoundServerSchema = z.object({
  host: z.string(),
  port: z.number().int(),
  security: z.enum(['tls', 'starttls']),
});

/** The mail servers of an address, as far as they were found. */
export const MailFoundSchema = z.object({
  address: z.string(),
  outgoing: FoundServerSchema.nullable(),
  incoming: FoundServerSchema.nullable(),
});
export type MailFound = z.infer<typeof MailFoundSchema>;

/** What came of a mail that was sent to see whether one goes out; what the server said, as it said it. */
export const MailTestSchema = z.object({
  why: z.string().nullable(),
  said: z.string().max(400),
  to: z.string().max(EMAIL_LONGEST),
});
export type MailTest = z.infer<typeof MailTestSchema>;

/** The largest mail that is taken in. */
export const MAIL_LARGEST_BYTES = 25 * 1024 * 1024;
