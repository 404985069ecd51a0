import { toE164, toEmail } from '@porch/core/contact';
import { cleanLine, NAME_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';

/** Who is signed in on a website, as the website itself has signed it. */
const PersonSchema = z.object({
  /** What the website calls them, the same each time. */
  id: z.union([z.string().min(1).max(200), z.number()]).optional(),
  name: z.string().max(400).optional(),
  email: z.string().max(254).optional(),
  phone: z.string().max(40).optional(),
  /** Until when it is good, in seconds since 1970. */
  until: z.number().optional(),
});

/** What of somebody a website has proved. */
export interface Proved {
  id?: string;
  name?: string;
  email?: string;
  phone?: string;
}

const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

const present = (fields: Readonly<Record<string, string | null | undefined>>): Proved =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value));

/**
 * Whom a website says that it has signed in, where it has the door's key: `signature` is HMAC-SHA256 of `signed` (JSON)
 * in hex. Null where it is not signed by that key, not good any more, or says nothing that can be read.
 */
export const provedPerson = (
  key: string,
  { signed, signature }: { signed: string; signature: string },
  { now, country }: { now: number; country: string },
): Proved | null => {
  if (!/^[0-9a-f]{64}$/i.test(signature)) return null;
  if (!isRightMark(Buffer.from(signature, 'hex'), keyedMark('sha256', key, signed))) return null;
  const read = PersonSchema.safeParse(parsed(signed));
  if (!read.success) return null;
  const { id, name, email, phone, until } = read.data;
  if (until !== undefined && until * 1_000 <= now) return null;
  return present({
    id: id === undefined ? null : String(id),
    name: name && cleanLine(name).slice(0, NAME_LONGEST),
    email: email && toEmail(email),
    phone: phone && toE164(phone, country),
  });
};
