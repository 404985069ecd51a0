import type { VisitorEntry } from '@porch/contract/visitor';

/** What somebody of the team has said, as it comes to the panel. */
export const answer = (seq: number): VisitorEntry => ({
  seq,
  id: `answer-${seq}`,
  at: 1,
  text: 'Hi',
  files: [],
  by: 'team',
  name: 'Maren',
  face: null,
});
