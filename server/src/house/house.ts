import type { Door } from '@porch/contract/team';
import type { DoorRecord } from '../store';

/** A door as its owner sees it: with the one line for the website, and the link to send. */
export const toDoor = (door: DoorRecord, origin: string): Door => ({
  id: door.id,
  publicId: door.publicId,
  name: door.name,
  sites: door.sites,
  snippet: `<script async src="${origin}/loader.js" data-door="${door.publicId}"></script>`,
  link: `${origin}/talk/${door.publicId}`,
});
