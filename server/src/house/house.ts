import type { Door, FormerDoor } from '@porch/contract/doors';
import type { Checklist } from '@porch/contract/house';
import { type SignInWarning, WARNED_FROM } from '@porch/contract/people';
import { isListed, toSite } from '@porch/core/website';
import { sitesOf } from '../doors/website/kind';
import type { Services } from '../services';
import type { DoorRecord } from '../store';

/** A door as its owner sees it: with the one line for the website, and the link to send. */
export const toDoor = (
  door: DoorRecord,
  { dressing, store, registry }: Pick<Services, 'dressing' | 'store' | 'registry'>,
  origin: string,
): Door => ({
  id: door.id,
  publicId: door.publicId,
  name: door.name,
  kind: door.kind,
  plate: registry.plateOf(door),
  can: registry.canOf(door),
  isCarried: registry.isCarried(door),
  health: store.doors.health(door.id),
  sites: sitesOf(door),
  snippet: `<script async src="${origin}/loader.js" data-door="${door.publicId}"></script>`,
  link: `${origin}/talk/${door.publicId}`,
  memberIds: door.memberIds,
  isClosed: door.closedAt !== null,
  isOffered: registry.isOffered(door),
  isDressed: dressing.isDressed(door.id),
});

/** Doors that were taken away, for whoever reads what was said by them. */
export const formerDoors = ({
  store,
  registry,
}: Pick<Services, 'store' | 'registry'>): FormerDoor[] =>
  store.doors.all().flatMap((door) => {
    const { id, name, removedAt } = door;
    return removedAt === null ? [] : [{ id, name, plate: registry.plateOf(door) }];
  });

/** What the house itself has seen of what makes it ready. */
export const checklistFor = (
  {
    store,
    sessions,
    dressing,
    mailSettings,
  }: Pick<Services, 'store' | 'sessions' | 'dressing' | 'mailSettings'>,
  memberId: string,
): Checklist => {
  const doors = store.doors.standing();
  const listedAt = (doorId: string) =>
    doors.filter(({ id }) => id === doorId).flatMap((door) => sitesOf(door));
  return {
    sightings: store.sightings.newest().map(({ doorId, origin, page, at }) => ({
      doorId,
      origin,
      page,
      at,
      site: toSite(origin) ?? origin,
      isListed: isListed(listedAt(doorId), origin),
    })),
    phone: sessions.isOnPhone(memberId),
    homeScreen: store.ticks.has('home-screen'),
    rings: store.bellDevices
      .of(memberId)
      .some(({ rungAt, why }) => rungAt !== null && why === null),
    hours: store.hours.house() !== null,
    mail: mailSettings.canAnswer(),
    answered: store.ticks.has('answered'),
    dressed: doors.some(({ id }) => dressing.isDressed(id)),
    darkTexts: store.ticks.has('dark-texts'),
    team: store.ticks.has('team'),
  };
};

/** Wrong tries at somebody's account, where they are more than their own typing. */
export const warningFor = (
  { store }: Pick<Services, 'store'>,
  memberId: string,
): SignInWarning | null => {
  const warning = store.warnings.of(memberId);
  return warning && warning.failures >= WARNED_FROM ? warning : null;
};
