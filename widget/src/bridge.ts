import type { LampSetting } from '@porch/core/lamp';

/** What the website's page and the panel in its frame tell each other. No message text ever crosses. */
export type ToFrame =
  | { porch: 'page'; url: string; title: string }
  | { porch: 'shown' }
  | { porch: 'hidden' };

export type FromFrame =
  | { porch: 'ready' }
  | { porch: 'close' }
  | { porch: 'talked' }
  | { porch: 'unread'; count: number }
  | { porch: 'lamp'; lamp: LampSetting; now: number };
