import type { VisitorEntry } from '@porch/contract/visitor';

/** Something that the visitor said; `change`: what is otherwise. */
export const entryOf = (seq: number, change: Partial<VisitorEntry> = {}): VisitorEntry => ({
  seq,
  id: `entry-${seq}`,
  at: Date.now(),
  text: 'Words',
  files: [],
  by: 'visitor',
  name: '',
  face: null,
  ...change,
});
