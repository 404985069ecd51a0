import type { CallBack, Happening, Page, SetAside, Tapped } from '@porch/core/conversation';
import { isZone } from '@porch/core/hours';
import { cleanLine } from '@porch/core/text';
import { webAddress } from '@porch/core/website';

/** What somebody says at a door. */
export interface Message {
  id: string;
  text: string;
  fileIds: string[];
  page: Page | null;
  /** The time zone of the device, as it says. */
  zone?: string;
  /** When it was said, as a network says; absent: now. */
  saidAt?: number;
  /** What files are called that could not be had. */
  missing?: string[];
  /** What files are called that are still fetched from the network. */
  coming?: string[];
  /** By what the network counts what one person says. */
  order?: number;
  /** It was a call. */
  call?: { seconds: number };
  /** The mark of the device that they write on. */
  device?: string;
  /** They ask to be called back. */
  callBack?: CallBack;
  /** In which language the door speaks to them, one of its own. */
  language?: string;
  /** What else stood in the mail that it came in, '' for nothing; kept, and asked for apart. Absent: it came in none. */
  rest?: string;
  /** Who sent that mail in their name; '' or absent: they did. */
  via?: string;
  /** What the mail that it came in is about, and where the pictures of it lie that are elsewhere. */
  subject?: string;
  pictures?: readonly string[];
  /** Nobody has to answer it, and why. */
  setAside?: SetAside;
  /** What was too long to be shown at once; kept, and asked for apart. */
  more?: string;
  /** It is a card that they tapped. */
  tapped?: Tapped;
}

/** A page as it is kept; an address that could pass for another one by a user name in it is none. */
export const cleanPage = (page: Page | null): Page | null => {
  const url = page && webAddress(cleanLine(page.url));
  return url ? { url, title: cleanLine(page.title) } : null;
};

type Said = Extract<Happening, { kind: 'visitor-said' }>;

/** What of a message is known once it has been looked at. */
interface Known extends Pick<Said, 'text' | 'files' | 'note' | 'page'> {
  /** Something of it is kept apart. */
  hasRest: boolean;
  /** What its mail is about, where that is something else than before; '' otherwise. */
  subject: string;
  /** When its network says that it was said, where that counts. */
  when: Pick<Said, 'saidAt' | 'networkAt' | 'order'>;
}

/** A message as it goes onto the roll. Only what is there stands in it: most of it is there seldom, and each message is copied often. */
export const saidOf = (typed: Message, known: Known): Said => {
  const { text, files, note, page, when } = known;
  const said: Said = { kind: 'visitor-said', text, files, note, page };
  if (typed.zone && isZone(typed.zone)) said.zone = typed.zone;
  if (when.saidAt !== undefined) said.saidAt = when.saidAt;
  if (when.networkAt !== undefined) said.networkAt = when.networkAt;
  if (when.order !== undefined) said.order = when.order;
  if (typed.missing?.length) said.missing = typed.missing;
  if (typed.coming?.length) said.coming = typed.coming;
  if (typed.call) said.call = typed.call;
  if (typed.callBack) said.callBack = typed.callBack;
  if (typed.language) said.language = typed.language;
  if (typed.rest !== undefined) said.isMail = true;
  if (known.hasRest) said.hasRest = true;
  if (typed.via) said.via = typed.via;
  if (known.subject) said.subject = known.subject;
  if (typed.pictures?.length) said.pictures = typed.pictures.length;
  if (typed.setAside) said.setAside = typed.setAside;
  if (typed.tapped) said.tapped = typed.tapped;
  return said;
};
