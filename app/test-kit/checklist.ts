import type { Checklist } from '@porch/contract/house';

/** Of a house that was just opened nothing is done yet. */
export const nothingDone: Checklist = {
  sightings: [],
  phone: false,
  homeScreen: false,
  rings: false,
  hours: false,
  mail: false,
  answered: false,
  dressed: false,
  darkTexts: false,
  team: false,
};
