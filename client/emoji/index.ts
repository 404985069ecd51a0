import type { EmojiColours, FromEmojiPage, ToEmojiPage } from '@porch/contract/emoji';

/** No emoji is longer, in UTF-16 units; a family of four with their skins has 25. */
const EMOJI_LONGEST = 40;

/** Whoever has waited so long for it waits in vain: there is no signal. */
export const EMOJI_WAIT_MS = 8_000;

/**
 * Listens to the emoji picker in a frame of this house, and dresses it as this page is. Gives back how to stop. Only what
 * comes from that frame is heard, and only what may be an emoji is taken.
 */
export const hearEmoji = (
  frame: HTMLIFrameElement,
  colours: EmojiColours,
  {
    pick,
    close,
    missing,
  }: {
    pick: (emoji: string) => void;
    close: () => void;
    /** It cannot be had now. */
    missing: () => void;
  },
): (() => void) => {
  const timer = setTimeout(missing, EMOJI_WAIT_MS);
  const hear = (event: MessageEvent): void => {
    if (event.origin !== location.origin || event.source !== frame.contentWindow) return;
    const message = event.data as FromEmojiPage;
    switch (message?.porch) {
      case 'emoji-ready':
        clearTimeout(timer);
        frame.contentWindow?.postMessage(
          { porch: 'emoji-colours', colours } satisfies ToEmojiPage,
          location.origin,
        );
        break;
      case 'emoji':
        if (typeof message.emoji === 'string' && message.emoji.length <= EMOJI_LONGEST) {
          pick(message.emoji);
        }
        break;
      case 'emoji-close':
        close();
        break;
    }
  };
  addEventListener('message', hear);
  return () => {
    clearTimeout(timer);
    removeEventListener('message', hear);
  };
};

/** A text with something put in place of a stretch of it, and where the cursor stands then. */
export const withPut = (
  text: string,
  { from, to }: { from: number; to: number },
  put: string,
): { text: string; cursor: number } => ({
  text: text.slice(0, from) + put + text.slice(to),
  cursor: from + put.length,
});
