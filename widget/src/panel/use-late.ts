import { late } from './late';

/** Parts of the panel that not every door has. */
export const useLate = late(() => import('./late-parts'));
