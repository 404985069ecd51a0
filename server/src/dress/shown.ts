import type { DoorConfiguration } from '@porch/contract/visitor';
import { chooseLanguage } from '@porch/core/door-texts';
import {
  type DoorView,
  type Dress,
  languagesOf,
  plateViewOf,
  rulesOf,
  type ShownBusiness,
  viewOf,
} from '@porch/core/dress';
import { greetingsIn } from '@porch/core/greetings';
import type { Light } from '@porch/core/lamp';
import type { DoorRecord, Store } from '../store';
import type { Dressing } from './dressing';

/** Whose door it is concerns everybody unless it says who. */
export const concerns = (door: DoorRecord, memberId: string): boolean =>
  door.memberIds === null || door.memberIds.includes(memberId);

export const pictureAddress = (id: string | null): string | null =>
  id === null ? null : `/pictures/${id}`;

/** What visitors get to see of the business and its team at a door. */
export const createShown = (services: {
  store: Store;
  dressing: Dressing;
  /** What doors are called that the panels offer beside themselves. */
  waysOffered: () => string[];
}) => {
  const { store, dressing, waysOffered } = services;
  const business = (door: DoorRecord): ShownBusiness => {
    const kept = store.business.read();
    const url = pictureAddress(kept?.pictureId ?? null);
    return {
      name: kept?.name ?? '',
      address: kept?.address ?? '',
      picture: url && kept ? { url, shape: kept.pictureShape } : null,
      country: kept?.country ?? '',
      ways: waysOffered(),
      hasOrders: store.orders.isAny() || store.orders.shop() !== null,
      people: store.members
        .all()
        .filter(({ id, hasLeft }) => !hasLeft && concerns(door, id))
        .map(({ name, publicName, pictureId }) => ({
          name: publicName || name,
          face: pictureAddress(pictureId),
        })),
    };
  };

  const view = (door: DoorRecord, dress: Dress, asked: readonly string[]): DoorView =>
    viewOf(dress, business(door), chooseLanguage(asked, languagesOf(dress), dress.fallback));

  /** How somebody of the team is called and looks at a door: the business stands before its people if it wants to. */
  const person = (memberId: string, doorId: string): { name: string; face: string | null } => {
    const member = store.members.shownOf(memberId);
    if (!member || dressing.published(doorId).people === 'business') {
      const kept = store.business.read();
      return { name: kept?.name ?? '', face: pictureAddress(kept?.pictureId ?? null) };
    }
    return { name: member.publicName || member.name, face: pictureAddress(member.pictureId) };
  };

  return {
    business,
    view,
    /** The little that a website's page needs before anything is opened. */
    configuration: (
      door: DoorRecord,
      dress: Dress,
      asked: readonly string[],
      state: { lamp: Light; now: number },
    ): Omit<DoorConfiguration, 'more'> => {
      const seen = view(door, dress, asked);
      const rules = rulesOf(dress);
      const greetings = greetingsIn(dress.greetings, seen.language, (memberId) =>
        memberId ? person(memberId, door.id) : { name: seen.business.name, face: null },
      ).map((one) => ({
        ...one,
        // Where no note is taken nobody is asked to leave one.
        whileNotLit: one.whileNotLit && dress.whenNotLit !== 'hours',
      }));
      const acts = rules.manners.length > 0 || greetings.length > 0;
      return { door: door.publicId, ...state, ...plateViewOf(seen), rules, acts, greetings };
    },
    person,
  };
};

export type Shown = ReturnType<typeof createShown>;
