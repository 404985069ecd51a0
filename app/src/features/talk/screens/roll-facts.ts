import type { Row } from '@porch/contract/entries';
import type { Receipt } from '@porch/contract/line';
import type { Amended, Came, FileMention } from '@porch/core/conversation';
import type { ShownPage } from '@porch/core/pages';

/** What the slips need to know besides their entry. */
export interface RollFacts {
  row: Row;
  receipts: readonly Receipt[];
  /** Whether an answer that went by mail arrived, as far as is known, by its seq. */
  mails: ReadonlyMap<number, boolean>;
  /** Whether mails that were held back (by their entries' ids) are theirs, as the team has said. */
  decided: ReadonlyMap<string, boolean>;
  /** What people's words are now that they have changed or taken back. */
  amended: Amended;
  /** What became of files that were coming, by the seq of what they belong to. */
  came: ReadonlyMap<number, Came>;
  now: number;
  zone: string;
  /** What the visitor is called. */
  name: string;
  pageOf: (page: { url: string; title: string }) => ShownPage;
  memberName: (id: string) => string;
  /** What a door is called, where there are several. */
  doorName: (id: string) => string;
  /** Whether a door stands on websites. */
  isSite: (id: string) => boolean;
  /** "by the website", or by the name of a door to a network. */
  byDoor: (id: string) => string;
  openPicture: (file: FileMention) => void;
  /** Begins a quick reply with an answer of ours. */
  keepAnswer: (text: string) => void;
}
