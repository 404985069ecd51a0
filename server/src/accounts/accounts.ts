import { PASSWORD_SHORTEST } from '@porch/contract/limits';
import type { Member, SetUp, SignIn } from '@porch/contract/team';
import { cleanLine, looksLikeEmail, NAME_LONGEST } from '@porch/core/text';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { hashSecret, newId, newSecret } from '../security/tokens';
import type { Store } from '../store';
import type { Passwords } from './passwords';
import { afterFailure, FORGET_AFTER_MS, isLocked } from './tries';

/** A device stays signed in this long after it was last used. */
export const SESSION_MS = 30 * 24 * 3_600_000;

const TOUCH_EVERY_MS = 3_600_000;

export interface SignedIn {
  secret: string;
  member: Member;
}

const requiredLine = (text: string, field: string): string => {
  const line = cleanLine(text);
  if (!line) throw new Refused('text-empty', { field });
  if (line.length > NAME_LONGEST)
    throw new Refused('text-too-long', { field, limit: NAME_LONGEST });
  return line;
};

/** Time zones are those that the platform's tz database knows. */
export const toZone = (zone: string): string => {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    throw new Refused('zone-unknown', { field: 'zone' });
  }
};

export const toBusiness = (typed: { name: string; zone: string }, field: string) => ({
  name: requiredLine(typed.name, field),
  zone: toZone(typed.zone),
});

const toEmail = (typed: string): string => {
  const email = cleanLine(typed).toLowerCase();
  if (!looksLikeEmail(email)) throw new Refused('email-not-understood', { field: 'email' });
  return email;
};

export const createAccounts = (services: { store: Store; clock: Clock; passwords: Passwords }) => {
  const { store, clock, passwords } = services;

  const open = (member: Member): SignedIn => {
    const secret = newSecret();
    store.sessions.add(hashSecret(secret), member.id, clock.now());
    return { secret, member: { id: member.id, name: member.name, role: member.role } };
  };

  const refuseIfTooSoon = (subjects: string[]): void => {
    const now = clock.now();
    for (const subject of subjects) {
      const tries = store.tries.find(subject);
      if (!tries || tries.notBefore <= now) continue;
      const code = isLocked(tries, now) ? 'sign-in-locked' : 'too-many';
      throw new Refused(code, { waitMs: tries.notBefore - now });
    }
  };

  const noteFailure = (subjects: string[]): void => {
    store.atOnce(() => {
      for (const subject of subjects) {
        store.tries.write(subject, afterFailure(store.tries.find(subject), clock.now()));
      }
    });
  };

  return {
    /** Makes the business, its first website door and the owner's account. Once. */
    setUp: async (typed: SetUp): Promise<SignedIn> => {
      const business = toBusiness({ name: typed.business, zone: typed.zone }, 'business');
      const owner = { name: requiredLine(typed.name, 'name'), email: toEmail(typed.email) };
      if (typed.password.length < PASSWORD_SHORTEST) {
        throw new Refused('password-too-short', { field: 'password', limit: PASSWORD_SHORTEST });
      }
      const passwordHash = await passwords.hash(typed.password);
      return store.atOnce(() => {
        if (store.business.read()) throw new Refused('already-set-up');
        const now = clock.now();
        const member = { id: newId(), ...owner, role: 'owner' as const, passwordHash };
        store.business.write(business, now);
        store.doors.add({ id: newId(), publicId: newId(), name: business.name, sites: [] }, now);
        store.members.add(member, now);
        return open(member);
      });
    },

    /** Signs in by email and password; wrong tries slow down the account and the address they came from. */
    signIn: async ({ email, password }: SignIn, address: string): Promise<SignedIn> => {
      const typed = cleanLine(email).toLowerCase();
      const subjects = [`account ${typed}`, `address ${address}`];
      refuseIfTooSoon(subjects);
      // Counted before the slow check, so that tries sent all at once do not slip through together.
      noteFailure(subjects);
      const member = store.members.byEmail(typed);
      const isRight = await passwords.isRight(member?.passwordHash ?? null, password);
      if (!member || !isRight) throw new Refused('sign-in-wrong');
      return store.atOnce(() => {
        for (const subject of subjects) store.tries.forget(subject);
        return open(member);
      });
    },

    /** Who a cookie's secret belongs to; null when it is unknown, ended or too old. */
    memberOf: (secret: string): Member | null => {
      const now = clock.now();
      const tokenHash = hashSecret(secret);
      const session = store.sessions.find(tokenHash);
      if (!session || now - session.lastSeenAt > SESSION_MS) return null;
      if (now - session.lastSeenAt > TOUCH_EVERY_MS) store.sessions.touch(tokenHash, now);
      return { id: session.id, name: session.name, role: session.role };
    },

    signOut: (secret: string): void => store.sessions.end(hashSecret(secret)),
    signOutEverywhere: (memberId: string): void => store.sessions.endAllOf(memberId),

    /** Drops what has grown old. */
    tidy: (): void => {
      store.sessions.endOlderThan(clock.now() - SESSION_MS);
      store.tries.forgetOlderThan(clock.now() - FORGET_AFTER_MS);
    },
  };
};

export type Accounts = ReturnType<typeof createAccounts>;
