import { PASSWORD_SHORTEST } from '@porch/contract/limits';
import type { Business, DeviceKind, Member, SetUp, SignIn } from '@porch/contract/team';
import { countryOfZone } from '@porch/core/countries';
import { plainDress } from '@porch/core/dress';
import { cleanLine, looksLikeEmail, NAME_LONGEST } from '@porch/core/text';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { hashSecret, newId, newSecret } from '../security/tokens';
import type { MemberRecord, Store } from '../store';
import type { Passwords } from './passwords';
import { afterFailure, FORGET_AFTER_MS, isLocked } from './tries';

/** A device stays signed in this long after it was last used. */
export const SESSION_MS = 30 * 24 * 3_600_000;

const TOUCH_EVERY_MS = 3_600_000;

export interface SignedIn {
  secret: string;
  member: Member;
}

export const requiredLine = (text: string, field: string): string => {
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

const toEmail = (typed: string): string => {
  const email = cleanLine(typed).toLowerCase();
  if (!looksLikeEmail(email)) throw new Refused('email-not-understood', { field: 'email' });
  return email;
};

const newBusiness = (typed: SetUp): Business => {
  const zone = toZone(typed.zone);
  return {
    name: requiredLine(typed.business, 'business'),
    zone,
    country: countryOfZone(typed.zone) ?? countryOfZone(zone) ?? '',
    address: '',
    pictureId: null,
    pictureShape: 'square',
    walkStep: 'business',
  };
};

const toMember = ({ id, name, role, publicName, pictureId }: Member): Member => ({
  id,
  name,
  role,
  publicName,
  pictureId,
});

export const createAccounts = (services: { store: Store; clock: Clock; passwords: Passwords }) => {
  const { store, clock, passwords } = services;

  const open = (member: Member, device: DeviceKind = 'computer'): SignedIn => {
    const secret = newSecret();
    store.sessions.add(hashSecret(secret), member.id, device, clock.now());
    return { secret, member: toMember(member) };
  };

  const hashOf = async (password: string, field = 'password'): Promise<string> => {
    if (password.length < PASSWORD_SHORTEST) {
      throw new Refused('password-too-short', { field, limit: PASSWORD_SHORTEST });
    }
    return passwords.hash(password);
  };

  /** A member who is about to be added: checked, and the password hashed. */
  const prepare = async (typed: { name: string; email: string; password: string }) => ({
    id: newId(),
    name: requiredLine(typed.name, 'name'),
    email: toEmail(typed.email),
    publicName: '',
    pictureId: null,
    passwordHash: await hashOf(typed.password),
  });

  const add = (member: MemberRecord, device: DeviceKind = 'computer'): SignedIn => {
    if (store.members.byEmail(member.email)) throw new Refused('email-taken', { field: 'email' });
    store.members.add(member, clock.now());
    return open(member, device);
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
    open,
    hashOf,
    prepare,
    add,
    /** Makes the business, its first website door and the owner's account. Once. */
    setUp: async (typed: SetUp): Promise<SignedIn> => {
      const business = newBusiness(typed);
      const owner = await prepare(typed);
      return store.atOnce(() => {
        if (store.business.read()) throw new Refused('already-set-up');
        const now = clock.now();
        store.business.write(business, now);
        const door = { id: newId(), publicId: newId(), name: business.name };
        store.doors.add({ ...door, sites: [], memberIds: null, closedAt: null }, now);
        store.dresses.publish(door.id, plainDress(), now);
        return add({ ...owner, role: 'owner' }, typed.device);
      });
    },

    /** Signs in by email and password; wrong tries slow down the account and the address they came from. */
    signIn: async ({ email, password, device }: SignIn, address: string): Promise<SignedIn> => {
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
        return open(member, device);
      });
    },

    /** Who a cookie's secret belongs to; null when it is unknown, ended or too old. */
    memberOf: (secret: string): Member | null => {
      const now = clock.now();
      const tokenHash = hashSecret(secret);
      const session = store.sessions.find(tokenHash);
      if (!session || now - session.lastSeenAt > SESSION_MS) return null;
      if (now - session.lastSeenAt > TOUCH_EVERY_MS) store.sessions.touch(tokenHash, now);
      return toMember(session);
    },

    changeMe: (me: Member, typed: { name: string; publicName: string }): Member => {
      const publicName = cleanLine(typed.publicName);
      if (publicName.length > NAME_LONGEST) {
        throw new Refused('text-too-long', { field: 'publicName', limit: NAME_LONGEST });
      }
      const changed = { ...me, name: requiredLine(typed.name, 'name'), publicName };
      store.members.update(changed);
      return changed;
    },

    /** Changes a password by the old one; every other device of theirs is signed out. */
    changePassword: async (
      me: Member,
      typed: { old: string; new: string },
      secret: string,
      address: string,
    ): Promise<void> => {
      const subjects = [`password ${me.id}`, `address ${address}`];
      refuseIfTooSoon(subjects);
      noteFailure(subjects);
      const member = store.members.byId(me.id);
      if (!(await passwords.isRight(member?.passwordHash ?? null, typed.old))) {
        throw new Refused('password-wrong', { field: 'old' });
      }
      store.atOnce(() => {
        for (const subject of subjects) store.tries.forget(subject);
      });
      const passwordHash = await hashOf(typed.new, 'new');
      store.atOnce(() => {
        store.members.setPassword(me.id, passwordHash);
        store.sessions.endOthersOf(me.id, hashSecret(secret));
      });
    },

    isOnPhone: (memberId: string): boolean => store.sessions.isOnPhone(memberId),

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
