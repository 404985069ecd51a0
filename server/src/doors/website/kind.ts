import type { DoorCan } from '@porch/contract/doors';
import { SCREEN } from '@porch/core/conversation';
import { FILE_LIMITS } from '@porch/core/files';
import { MESSAGE_LONGEST } from '@porch/core/text';
import type { Site } from '@porch/core/website';
import type { DoorRecord } from '../../store';
import type { DoorKind } from '../registry';

/** What a website door needs to know. */
export interface WebsiteSettings {
  /** On which websites it may stand. */
  sites: Site[];
}

export const WEBSITE = 'website';

/** The websites of a door; those of another kind of door are none. */
export const sitesOf = ({ kind, settings }: DoorRecord): Site[] =>
  kind === WEBSITE ? ((settings as unknown as WebsiteSettings).sites ?? []) : [];

/** What a website door can do: all that the house can. */
export const websiteCan: DoorCan = {
  textLongest: MESSAGE_LONGEST,
  filesMost: FILE_LIMITS.most,
  fileLargestBytes: FILE_LIMITS.largestBytes,
  receipts: 'read',
  typing: true,
  windowMs: null,
};

/** A website door carries nothing out: what is written is on the visitor's screen, or waits for them there. */
export const websiteDoor: DoorKind = {
  kind: WEBSITE,
  way: SCREEN,
  can: websiteCan,
};
