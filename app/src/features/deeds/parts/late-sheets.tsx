import { lazy } from 'react';

/** What asks for a moment comes together, and only once it is wanted. */
const load = () => import('./sheets');

export const PutBySheet = lazy(async () => ({ default: (await load()).PutBySheet }));
export const OweSheet = lazy(async () => ({ default: (await load()).OweSheet }));
