/** Bounds of what can be set. */
export const DRESS_LIMITS = {
  distanceMostPx: 200,
  textLongest: 400,
  labelLongest: 80,
  patternsMost: 40,
  mannersMost: 20,
  ownFieldsMost: 8,
  choicesMost: 12,
  languagesMost: 16,
  waitMostSeconds: 600,
  linkLongest: 500,
  linksMost: 5,
} as const;
