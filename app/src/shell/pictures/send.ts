import { api } from '../session/api';
import type { Cut } from './cutting';

/** Puts a picture, cut to the square that is meant, in its place; without one, takes what stands there away. */
export const sendPicture = (
  path: string,
  cut: Cut | null,
  more: Readonly<Record<string, string>> = {},
): Promise<unknown> => {
  if (!cut) return api.drop(path);
  const { left, top, side } = cut.crop;
  const query = new URLSearchParams({ left: `${left}`, top: `${top}`, side: `${side}`, ...more });
  return api.put(`${path}?${query}`, cut.picture);
};
