/** What stands on the shelf: goods, offers, places, pages, pictures, and times that are free. */
export const shelfKinds = ['item', 'offer', 'place', 'page', 'picture', 'slots'] as const;
export type ShelfKind = (typeof shelfKinds)[number];

export const isShelfKind = (word: string): word is ShelfKind =>
  (shelfKinds as readonly string[]).includes(word);
