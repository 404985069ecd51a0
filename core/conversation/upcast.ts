import { entryKinds, type Happening, SCREEN } from './entry';

type Body = { kind: string } & Record<string, unknown>;

/**
 * One step a version, from the shape that bodies had to the next; a step that was there is never changed.
 * What has been written is never rewritten: it is brought up to date each time it is read.
 */
const stepsUp: readonly ((body: Body) => Body)[] = [
  // 1 → 2: there were website doors only, so whatever went out went to a screen.
  (body) => (body.kind === 'team-said' ? { ...body, way: SCREEN } : body),
];

/** The shape in which bodies are written today. */
export const BODY_SHAPE = stepsUp.length + 1;

const known: ReadonlySet<string> = new Set(entryKinds);

/**
 * What was written in an older shape → as it is today. A kind or a shape that is not known (any more) →
 * `{ kind: 'bygone', was }`, so that it is drawn as something that happened rather than lost.
 * `{ kind: 'team-said', … }` of shape 1 → `{ kind: 'team-said', …, way: 'screen' }`.
 */
export const toToday = (body: Body, shape: number): Happening => {
  let next = body;
  for (const step of stepsUp.slice(shape - 1)) next = step(next);
  if (shape > BODY_SHAPE || !known.has(next.kind)) return { kind: 'bygone', was: body.kind };
  return next as Happening;
};
