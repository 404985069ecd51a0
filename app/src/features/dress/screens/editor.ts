import type { Door } from '@porch/contract/doors';
import type { Business } from '@porch/contract/house';
import type { TeamMember } from '@porch/contract/people';
import type { Dress } from '@porch/core/dress';
import { plateViewOf, rulesOf, type ShownBusiness, viewOf } from '@porch/core/dress';
import { greetingsIn, type SaidGreeting, triedGreeting } from '@porch/core/greetings';
import { pictureUrl } from '../../../shell/pictures/addresses';

/** What every part of the dressing room is given. */
export interface Editing {
  doorId: string;
  dress: Dress;
  /** The draft as it is by the time somebody takes something back. */
  now: () => Dress;
  set: (dress: Dress) => void;
  /** What is wrong with a field, in words; empty when nothing is. */
  problemAt: (field: string) => string;
  /** What is being edited is what the preview shows. */
  look: (at: Partial<Looked>) => void;
}

/** How the preview is looked at. */
export interface Looked {
  lamp: LampShown;
  isOpen: boolean;
  /** A greeting that is being written; null: none is. */
  greeting: string | null;
}

export type LampShown = 'lit' | 'soon' | 'dark';

const SOON_MS = 45 * 60_000;

/** The business as visitors of a door see it. */
export const shownBusiness = (
  business: Business,
  team: readonly TeamMember[],
  door: Door,
  /** What other doors are called that the panel offers. */
  ways: readonly string[],
): ShownBusiness => {
  const url = pictureUrl(business.pictureId);
  return {
    name: business.name,
    address: business.address,
    ways: [...ways],
    picture: url ? { url, shape: business.pictureShape } : null,
    people: team
      .filter(({ id, hasLeft }) => !hasLeft && (door.memberIds?.includes(id) ?? true))
      .map(({ name, publicName, pictureId }) => ({
        name: publicName || name,
        face: pictureUrl(pictureId),
      })),
  };
};

/** The greeting that is being written, as it is said; whoever it is for. */
const greetingShown = (
  dress: Dress,
  business: ShownBusiness,
  {
    greeting,
    personOf,
  }: {
    greeting: string | null;
    personOf: (memberId: string) => Pick<SaidGreeting, 'name' | 'face'> | undefined;
  },
): SaidGreeting[] => {
  const written = dress.greetings.find(({ id, text }) => id === greeting && text.trim() !== '');
  if (!written) return [];
  const byBusiness = { name: business.name, face: null };
  return greetingsIn([triedGreeting(written)], written.language, (memberId) =>
    memberId && dress.people === 'team' ? (personOf(memberId) ?? byBusiness) : byBusiness,
  );
};

/** What plate and panel are drawn from in the preview. */
export const previewOf = (
  dress: Dress,
  business: ShownBusiness,
  shown: {
    publicId: string;
    language: string;
    lamp: LampShown;
    now: number;
    /** The greeting that is being written; null: none is. */
    greeting: string | null;
    personOf: (memberId: string) => Pick<SaidGreeting, 'name' | 'face'> | undefined;
  },
) => {
  const seen = viewOf(dress, business, shown.language);
  const view = { ...seen, asked: { ...seen.asked, all: dress.asked } };
  const lamp =
    shown.lamp === 'soon'
      ? ({ state: 'back-soon', until: shown.now + SOON_MS } as const)
      : ({ state: shown.lamp, until: null } as const);
  const configuration = {
    door: shown.publicId,
    // The imaginary website has it on board.
    more: '',
    lamp,
    now: shown.now,
    ...plateViewOf(view),
    rules: rulesOf(dress),
    acts: false,
    greetings: greetingShown(dress, business, shown),
  };
  return { configuration, view };
};

/** Things that have nothing but their place to be known by: what is typed in them changes. */
export const placed = <One>(list: readonly One[]): { one: One; key: string }[] =>
  list.map((one, index) => ({ one, key: `place ${index}` }));
