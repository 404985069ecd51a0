import type { House, Checklist as Ticks } from '@porch/contract/house';

/** What there is to do until a house is ready, in the order in which it helps most. */
const steps = [
  'hours',
  'snippet',
  'answered',
  'rings',
  'phone',
  'homeScreen',
  'mail',
  'dressed',
  'darkTexts',
  'team',
] as const;
export type Step = (typeof steps)[number];

const isDone = ({ sightings, ...ticks }: Ticks, step: Step): boolean =>
  step === 'snippet' ? sightings.some(({ isListed }) => isListed) : ticks[step];

/** What is left of it, and where each is done; null: on a sheet with a code to scan. Nothing for whoever is no owner. */
export const stepsLeft = ({ checklist, doors }: House): { step: Step; to: string | null }[] => {
  if (!checklist) return [];
  const door = doors.find(({ isCarried }) => !isCarried)?.id ?? '';
  const places: Record<Step, string | null> = {
    hours: '/house/hours',
    snippet: `/house/door/${door}`,
    answered: '/walk?step=test',
    rings: '/house/doorbell',
    phone: null,
    homeScreen: '/house/install',
    mail: '/house/mail',
    dressed: `/house/dress/${door}`,
    darkTexts: `/house/dress/${door}?part=texts`,
    team: '/house/team',
  };
  return steps
    .filter((step) => !isDone(checklist, step))
    .map((step) => ({ step, to: places[step] }));
};
