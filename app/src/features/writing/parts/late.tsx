import { late } from '../../../kit/late';
import type { Looking } from './looked-through';

/** Looking through what is written comes by itself: two parts of the app have it, and neither is the first. */
export const LookedThrough = late<Looking>(
  async () => (await import('./looked-through')).LookedThrough,
  () => null,
);
