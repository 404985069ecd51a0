import type { Business } from '@porch/contract/house';
import { PASSWORD_SHORTEST } from '@porch/contract/limits';
import type { DeviceKind, Member, SetUp, SignIn } from '@porch/contract/people';
import { emailKey, toEmail } from '@porch/core/contact';
import { countryOfZone } from '@porch/core/countries';
import { plainDress } from '@porch/core/dress';
import { cleanLine, NAME_LONGEST } from '@porch/core/text';
import type { Clock } from '../clock';
import { WEBSITE } from '../doors/website/kind';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { hashSecret, newId } from '../security/tokens';
import type { MemberRecord, Store } from '../store';
import type { Attempts } from './attempts';
import type { Endings } from './endings';
import type { FirstCode } from './first-code';
import type { Passwords } from './passwords';
import type { Sessions, SignedIn } from './sessions';
import { FORGET_AFTER_MS } from './tries';

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

const keyOfEmail = (typed: string): string => {
  const email = toEmail(typed);
  if (!email) throw new Refused('email-not-understood', { field: 'email' });
  return emailKey(email);
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

/** From where somebody tries to come in. */
export interface From {
  address: string;
  /** The secret of a device that has signed in before, as its cookie says. */
  deviceSecret: string | null;
}

/** Who is asking, and the session in which they do. */
export interface Asking {
  me: Member;
  sessionHash: string;
  address: string;
}

export const createAccounts = (services: {
  store: Store;
  clock: Clock;
  passwords: Passwords;
  sessions: Sessions;
  attempts: Attempts;
  endings: Endings;
  firstCode: FirstCode;
  change: Change;
}) => {
  const { store, clock, passwords, sessions, attempts, endings, firstCode, change } = services;

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
    email: keyOfEmail(typed.email),
    publicName: '',
    pictureId: null,
    passwordHash: await hashOf(typed.password),
  });

  const memberBy = (typed: string): MemberRecord | null => {
    const email = toEmail(typed);
    // The first releases kept the domain as it was typed, in lower case.
    const asBefore = cleanLine(typed).toLowerCase();
    return (email && store.members.byEmail(emailKey(email))) || store.members.byEmail(asBefore);
  };

  const add = (member: MemberRecord, device: DeviceKind = 'computer'): SignedIn => {
    if (memberBy(member.email)) throw new Refused('email-taken', { field: 'email' });
    store.members.add(member, clock.now());
    return sessions.open(member, device);
  };

  /** Refuses unless a password is the one of whoever is asking; wrong tries are counted. */
  const prove = async ({ me, address }: Asking, password: string, field: string): Promise<void> => {
    const attempt = attempts.ofMember(me.id, address);
    const member = store.members.byId(me.id);
    if (!(await passwords.isRight(member?.passwordHash ?? null, password))) {
      throw new Refused('password-wrong', { field });
    }
    attempt.wasRight();
  };

  return {
    hashOf,
    prepare,
    add,
    prove,
    /** Whose account an email is, however it is written. */
    memberBy,
    /** Makes the business, its first website door and the owner's account. Once, and by the code that the server printed. */
    setUp: async (typed: SetUp, reachedAt: string | null = null): Promise<SignedIn> => {
      if (store.business.read()) throw new Refused('already-set-up');
      firstCode.check(typed.code);
      const business = newBusiness(typed);
      const owner = await prepare(typed);
      const signedIn = store.atOnce(() => {
        if (store.business.read()) throw new Refused('already-set-up');
        const now = clock.now();
        store.business.write(business, now);
        if (reachedAt) store.business.setReachedAt(reachedAt);
        const door = { id: newId(), publicId: newId(), name: business.name };
        const settings = { sites: [] };
        const kind = WEBSITE;
        store.doors.add(
          { ...door, kind, settings, memberIds: null, closedAt: null, removedAt: null },
          now,
        );
        store.dresses.publish(door.id, plainDress(), now);
        return add({ ...owner, role: 'owner' }, typed.device);
      });
      firstCode.end();
      return signedIn;
    },

    /** Signs in by email and password. */
    signIn: async ({ email, password, device }: SignIn, from: From): Promise<SignedIn> => {
      const typed = emailKey(toEmail(email) ?? cleanLine(email));
      const member = memberBy(email);
      const deviceHash = from.deviceSecret && hashSecret(from.deviceSecret);
      const isKnown = Boolean(
        member && deviceHash && store.knownDevices.isOf(deviceHash, member.id),
      );
      const attempt = await attempts.signIn(typed, from.address, isKnown ? deviceHash : null);
      const isRight = await passwords.isRight(member?.passwordHash ?? null, password);
      if (!member || !isRight) {
        if (member && !isKnown) store.warnings.add(member.id, clock.now());
        throw new Refused('sign-in-wrong');
      }
      return store.atOnce(() => {
        attempt.wasRight();
        return sessions.open(member, device);
      });
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

    /** Changes a password by the old one; everything else that lets them in ends. */
    changePassword: async (asking: Asking, typed: { old: string; new: string }): Promise<void> => {
      const { me, sessionHash } = asking;
      await prove(asking, typed.old, 'old');
      const passwordHash = await hashOf(typed.new, 'new');
      const ending = { memberId: me.id, keptHash: sessionHash };
      change(() => {
        store.members.setPassword(me.id, passwordHash);
        endings.write(ending);
      });
      endings.tell(ending);
    },

    signOut: ({ me, sessionHash }: Asking, isEverywhere: boolean): void => {
      const ending = isEverywhere ? { memberId: me.id, keptHash: null } : { sessionHash };
      store.atOnce(() => endings.write(ending));
      endings.tell(ending);
    },

    /** Drops what has grown old. */
    tidy: (): void => {
      sessions.tidy();
      store.tries.forgetOlderThan(clock.steady() - FORGET_AFTER_MS);
    },
  };
};

export type Accounts = ReturnType<typeof createAccounts>;
