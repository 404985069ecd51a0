import type {
  Join,
  NewPassword,
  OneTimeLink,
  OpenLink,
  Role,
  SeenLink,
} from '@porch/contract/people';
import { cleanLine } from '@porch/core/text';
import type { Accounts, Asking } from '../accounts/accounts';
import type { Endings } from '../accounts/endings';
import type { Sessions, SignedIn } from '../accounts/sessions';
import type { Clock } from '../clock';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { hashSecret, newSecret } from '../security/tokens';
import type { LinkRecord, Store } from '../store';

export const INVITE_MS = 7 * 24 * 3_600_000;
export const NEW_PASSWORD_MS = 24 * 3_600_000;
const OPEN_MOST = 20;

/** Who belongs to the team: inviting, roles, leaving, and a way back in for who forgot the password. */
export const createTeam = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  accounts: Accounts;
  sessions: Sessions;
  endings: Endings;
}) => {
  const { store, clock, change, accounts, sessions, endings } = services;

  const someone = (id: string) => {
    const member = store.members.byId(id);
    if (!member) throw new Refused('not-found');
    return member;
  };

  const refuseIfLastOwner = (id: string): void => {
    const owners = store.members.all().filter(({ role, hasLeft }) => role === 'owner' && !hasLeft);
    if (owners.every((owner) => owner.id === id)) throw new Refused('last-owner');
  };

  const makeLink = (
    origin: string,
    path: string,
    lastsMs: number,
    record: Pick<LinkRecord, 'kind' | 'role' | 'memberId' | 'madeBy' | 'name'>,
  ): OneTimeLink => {
    // Whoever is at the server gets in, however many links somebody else has made.
    if (record.madeBy !== null && store.links.open(clock.now()).length >= OPEN_MOST) {
      throw new Refused('too-many-of-these', { limit: OPEN_MOST });
    }
    const token = newSecret();
    const expiresAt = clock.now() + lastsMs;
    const link = { ...record, tokenHash: hashSecret(token), expiresAt } as LinkRecord;
    change(() => store.links.add(link));
    // In the fragment: that part of an address is sent to nobody and stands in no log.
    return { link: `${origin}${path}#${token}`, expiresAt };
  };

  /** Whether whoever made a link may still make one: only owners may, and the command on the server. */
  const isStillMeant = ({ madeBy }: LinkRecord): boolean =>
    madeBy === null || store.members.byId(madeBy)?.role === 'owner';

  /** A link as it stands: refuses one that is unknown, used, or too old, and says which. */
  const open = (token: string): LinkRecord => {
    const link = store.links.find(hashSecret(token));
    if (link?.usedAt) throw new Refused('link-used');
    if (!link || link.expiresAt <= clock.now() || !isStillMeant(link))
      throw new Refused('link-stale');
    return link;
  };

  /** Ends what let somebody in, once that is written. */
  const goneFrom = (memberId: string): void => endings.tell({ memberId, keptHash: null });

  const leave = (id: string): void => {
    change(() => {
      refuseIfLastOwner(id);
      store.members.leave(someone(id).id, clock.now());
      endings.write({ memberId: id, keptHash: null });
      for (const door of store.doors.all()) {
        if (!door.memberIds?.includes(id)) continue;
        const left = door.memberIds.filter((one) => one !== id);
        store.doors.update({ ...door, memberIds: left.length > 0 ? left : null });
      }
    });
    goneFrom(id);
  };

  const newPasswordLink = (memberId: string, madeBy: string | null, origin: string): OneTimeLink =>
    makeLink(origin, '/new-password', NEW_PASSWORD_MS, {
      kind: 'new-password',
      role: null,
      memberId: someone(memberId).id,
      madeBy,
      name: '',
    });

  return {
    /** `typed`: for whom it is, in the words of whoever makes it; '' where they do not say. */
    invite: (role: Role, typed: string, madeBy: string, origin: string): OneTimeLink => {
      const name = cleanLine(typed);
      return makeLink(origin, '/join', INVITE_MS, {
        kind: 'invite',
        role,
        memberId: null,
        madeBy,
        name,
      });
    },
    /** Every link that somebody could still come in by. */
    openLinks: (): OpenLink[] =>
      store.links
        .open(clock.now())
        .filter(isStillMeant)
        .map(({ tokenHash, kind, role, memberId, madeBy, expiresAt, name }) => ({
          id: tokenHash,
          kind,
          role,
          name: memberId ? (store.members.byId(memberId)?.name ?? '') : name,
          madeBy: (madeBy && store.members.byId(madeBy)?.name) || '',
          expiresAt,
        })),
    withdraw: (id: string): void => {
      change(() => store.links.drop(id));
    },
    /** A link with which somebody who forgot their password makes a new one; from the command on the server. */
    newPasswordLinkFromServer: (memberId: string, origin: string): OneTimeLink =>
      newPasswordLink(memberId, null, origin),
    /** The same, from an owner. One for oneself would outlive the session, so it asks for the password. */
    newPasswordLink: async (
      memberId: string,
      asking: Asking,
      password: string | undefined,
      origin: string,
    ): Promise<OneTimeLink> => {
      if (memberId === asking.me.id) await accounts.prove(asking, password ?? '', 'password');
      return newPasswordLink(memberId, asking.me.id, origin);
    },
    look: (token: string): SeenLink => {
      const { kind, role, memberId, expiresAt, name } = open(token);
      return {
        kind,
        role,
        expiresAt,
        business: store.business.read()?.name ?? '',
        name: memberId ? (store.members.byId(memberId)?.name ?? '') : name,
      };
    },
    /** Comes into the team by an invitation; it works once. */
    join: async (typed: Join): Promise<SignedIn> => {
      const link = open(typed.token);
      if (link.kind !== 'invite') throw new Refused('link-stale');
      const { role } = link;
      const added = await accounts.prepare(typed);
      return change(() => {
        open(typed.token);
        store.links.use(link.tokenHash, clock.now());
        store.ticks.set('team', clock.now());
        return accounts.add({ ...added, role }, typed.device);
      });
    },
    /** Makes a new password by a link; every device of theirs is signed out, this one is in. */
    makeNewPassword: async (typed: NewPassword): Promise<SignedIn> => {
      const { kind, memberId } = open(typed.token);
      if (kind !== 'new-password' || !memberId) throw new Refused('link-stale');
      const passwordHash = await accounts.hashOf(typed.password);
      const signedIn = change(() => {
        const link = open(typed.token);
        const member = someone(memberId);
        store.links.use(link.tokenHash, clock.now());
        store.members.setPassword(member.id, passwordHash);
        endings.write({ memberId, keptHash: null });
        return sessions.open(member, typed.device);
      });
      goneFrom(memberId);
      return signedIn;
    },
    setRole: (id: string, role: Role): void => {
      change(() => {
        if (someone(id).role === 'owner' && role === 'helper') refuseIfLastOwner(id);
        store.members.setRole(id, role);
        if (role === 'helper') store.links.dropMadeBy(id);
      });
    },
    signOutEverywhere: (id: string): void => {
      change(() => endings.write({ memberId: someone(id).id, keptHash: null }));
      goneFrom(id);
    },
    leave,
    tidy: (): void => store.links.dropOlderThan(clock.now() - INVITE_MS),
  };
};

export type Team = ReturnType<typeof createTeam>;
