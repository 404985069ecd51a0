import { lazy } from 'react';

/** What asks for a moment comes together, and only once it is wanted. */
export const loadSheets = () => import('./sheets');

export const PutBySheet = lazy(async () => ({ default: (await loadSheets()).PutBySheet }));
export const OweSheet = lazy(async () => ({ default: (await loadSheets()).OweSheet }));
