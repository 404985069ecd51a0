import { type Doorbell, type Occasion, rings } from './doorbell';

const MINUTE_MS = 60_000;

/** Steps of ringing on, in the order in which they stand by default. */
export const ringOnSteps = ['again', 'others', 'mail'] as const;
export type RingOnStep = (typeof ringOnSteps)[number];

/** What happens while nobody looks; the same for the whole team. Times count from the first ring; null: never. */
export interface RingOn {
  againAfterMs: number | null;
  othersAfterMs: number | null;
  /** Who else is rung; null: everybody. */
  otherIds: string[] | null;
  mailAfterMs: number | null;
  /** To whom it is written; null: the owners. */
  mailIds: string[] | null;
}

export const RING_ON_SHORTEST_MS = 15_000;
export const RING_ON_LONGEST_MS = 24 * 60 * MINUTE_MS;

export const plainRingOn: RingOn = {
  againAfterMs: MINUTE_MS,
  othersAfterMs: 2 * MINUTE_MS,
  otherIds: null,
  mailAfterMs: 5 * MINUTE_MS,
  mailIds: null,
};

/** When each step is due that is not switched off, for a round that began at a moment. */
export const stepsFrom = (rules: RingOn, beganAt: number): { step: RingOnStep; at: number }[] => {
  const after = {
    again: rules.againAfterMs,
    others: rules.othersAfterMs,
    mail: rules.mailAfterMs,
  };
  return ringOnSteps.flatMap((step) => {
    const ms = after[step];
    return ms === null ? [] : [{ step, at: beganAt + ms }];
  });
};

/** Somebody of the team, as far as ringing goes. */
export interface Ringable {
  id: string;
  bell: Doorbell;
  /** Has the conversation open and in sight. */
  isLooking: boolean;
}

/** Whom a door concerns; null: everybody. */
export const isConcerned = (memberIds: readonly string[] | null, id: string): boolean =>
  memberIds === null || memberIds.includes(id);

/** Who is rung for an occasion, and who would be if they were not looking at it already. */
export interface Called {
  ring: string[];
  looking: string[];
}

/** Of these people, whom an occasion rings. `concerned`: whom its door is for; null: everybody. */
export const whoRings = (
  people: readonly Ringable[],
  concerned: readonly string[] | null,
  occasion: Occasion,
  now: number,
): Called => {
  const called = people.filter(
    ({ id, bell }) => isConcerned(concerned, id) && rings(bell, occasion, now),
  );
  const ids = (isLooking: boolean): string[] =>
    called.filter((one) => one.isLooking === isLooking).map(({ id }) => id);
  return { ring: ids(false), looking: ids(true) };
};

/**
 * Of these people, whom a step of ringing on rings: the same again, or those besides. Whom the door is not for
 * is rung as one of the others all the same, where the rules name them or name nobody: somebody has to come.
 */
export const whoRingsOn = (
  people: readonly Ringable[],
  step: 'again' | 'others',
  { rung, rules, doorId }: { rung: readonly string[]; rules: RingOn; doorId: string },
  now: number,
): Called => {
  const asked = people.filter(({ id }) =>
    step === 'again' ? rung.includes(id) : !rung.includes(id) && isConcerned(rules.otherIds, id),
  );
  return whoRings(asked, null, { cause: step, doorId }, now);
};
