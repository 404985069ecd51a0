import { PICTURES_ELSEWHERE_MOST } from '@porch/contract/doors';
import { Parser } from 'htmlparser2';

const ADDRESS_LONGEST = 2_000;

/** What is no larger shows nothing: it is fetched so that its owner learns who reads what, and when. */
const TRACKER_LARGEST_PIXELS = 3;

const isHiddenBy = (style: string): boolean =>
  /display\s*:\s*none|visibility\s*:\s*hidden|opacity\s*:\s*0(?:\.0*)?\s*(?:;|$)/i.test(style) ||
  /(?:^|[;\s])(?:max-)?(?:width|height)\s*:\s*[0-3](?:\.\d+)?(?:px)?\s*(?:;|!|$)/i.test(style);

const isSmall = (size: string | undefined): boolean =>
  size !== undefined && Number.parseFloat(size) <= TRACKER_LARGEST_PIXELS && !size.includes('%');

/** Whether a picture is there to be fetched and not to be seen. */
const isTracker = ({ width, height, style = '', hidden }: Record<string, string>): boolean =>
  hidden !== undefined || isSmall(width) || isSmall(height) || isHiddenBy(style);

/** The same of a picture that was fetched: `width`, `height` in pixels. */
export const isTrackerBySize = ({ width, height }: { width: number; height: number }): boolean =>
  width <= TRACKER_LARGEST_PIXELS || height <= TRACKER_LARGEST_PIXELS;

/** Where pictures lie that a mail shows from elsewhere, each once, in their order; trackers are none. */
export const picturesIn = (html: string): string[] => {
  const found = new Set<string>();
  const parser = new Parser({
    onopentag: (name, attributes) => {
      const address = attributes.src?.trim() ?? '';
      if (name !== 'img' || found.size >= PICTURES_ELSEWHERE_MOST) return;
      if (!/^https?:\/\//i.test(address) || address.length > ADDRESS_LONGEST) return;
      if (!isTracker(attributes)) found.add(address);
    },
  });
  parser.end(html);
  return [...found];
};
