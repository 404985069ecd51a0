/** What the page of the emoji picker and the page around it tell each other. */

/** What the picker's page is served with. */
export interface EmojiPageData {
  language: string;
  /** Where the emoji with their names in that language are. */
  source: string;
}

/** In what the picker is drawn: CSS colours of the page around it. */
export interface EmojiColours {
  paper: string;
  linen: string;
  seam: string;
  edge: string;
  ink: string;
  slate: string;
}

export type ToEmojiPage = { porch: 'emoji-colours'; colours: EmojiColours };

export type FromEmojiPage =
  | { porch: 'emoji-ready' }
  | { porch: 'emoji'; emoji: string }
  | { porch: 'emoji-close' };
