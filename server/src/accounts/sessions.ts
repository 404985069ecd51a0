import type { DeviceKind, Member } from '@porch/contract/people';
import type { Clock } from '../clock';
import { isCannotWrite } from '../disk/disk';
import { hashSecret, newSecret } from '../security/tokens';
import type { Store } from '../store';

/** A device stays signed in this long after it was last used. */
export const SESSION_MS = 30 * 24 * 3_600_000;

const TOUCH_EVERY_MS = 3_600_000;

export interface SignedIn {
  secret: string;
  member: Member;
}

export const toMember = ({ id, name, role, publicName, pictureId }: Member): Member => ({
  id,
  name,
  role,
  publicName,
  pictureId,
});

/** Which devices are signed in as whom; of a cookie's secret only a hash is kept. */
export const createSessions = ({ store, clock }: { store: Store; clock: Clock }) => {
  const touch = (sessionHash: string, now: number): void => {
    try {
      store.sessions.touch(sessionHash, now);
    } catch (error) {
      // A full disk is no reason to read nothing: it is noted with the next thing that has to be written.
      if (!isCannotWrite(error)) throw error;
    }
  };

  return {
    open: (member: Member, device: DeviceKind = 'computer'): SignedIn => {
      const secret = newSecret();
      store.sessions.add(hashSecret(secret), member.id, device, clock.now());
      return { secret, member: toMember(member) };
    },

    /** Who a session belongs to, by the hash of its secret; null when it is unknown, ended or too old. */
    memberBy: (sessionHash: string): Member | null => {
      const now = clock.now();
      const session = store.sessions.find(sessionHash);
      if (!session || now - session.lastSeenAt > SESSION_MS) return null;
      if (now - session.lastSeenAt > TOUCH_EVERY_MS) touch(sessionHash, now);
      return toMember(session);
    },

    isOnPhone: (memberId: string): boolean => store.sessions.isOnPhone(memberId),

    /** Drops what has grown old. */
    tidy: (): void => store.sessions.endOlderThan(clock.now() - SESSION_MS),
  };
};

export type Sessions = ReturnType<typeof createSessions>;
