import type { Refusal } from '@porch/contract/errors';
import type { DoorColours } from '@porch/core/colours';
import { fillGaps, type TextKey } from '@porch/core/door-texts/fill';
import type { DoorView } from '@porch/core/dress';
import { createContext } from 'preact';
import { useContext } from 'preact/hooks';

/** How the door is dressed, for everything that draws it. */
export const View = createContext<DoorView | null>(null);

export const useView = (): DoorView => {
  const view = useContext(View);
  if (!view) throw new Error('the panel has no view yet');
  return view;
};

type Values = Record<string, string | number>;
export type Say = (key: TextKey, values?: Values) => string;

const sayIn =
  (view: DoorView): Say =>
  (key, values = {}) =>
    fillGaps(view.texts[key], { business: view.business.name, ...values });

/** The door's texts, in its visitor's language. */
export const useSay = (): Say => sayIn(useView());

const megabytes = (bytes: number): number => Math.floor(bytes / 1024 / 1024);

/** What a visitor is told of a refusal; one that they cannot meet is told as our fault. */
export const sayRefusal = (say: Say, { code, limit, waitMs }: Refusal): string => {
  switch (code) {
    case 'text-empty':
      return say('refused.empty');
    case 'text-too-long':
      return say('refused.long', { limit: limit ?? 4_000 });
    case 'email-not-understood':
      return say('refused.email');
    case 'phone-not-understood':
      return say('refused.phone');
    case 'too-large':
      return say('refused.large', { limit: megabytes(limit ?? 10 * 1024 * 1024) });
    case 'file-empty':
      return say('refused.emptyFile');
    case 'picture-too-large':
      return say('refused.picture');
    case 'picture-unreadable':
      return say('refused.unreadable');
    case 'picture-takes-too-long':
      return say('refused.slow');
    case 'file-unknown':
      return say('refused.lost');
    case 'too-many':
      return say('refused.crowd', { seconds: Math.ceil((waitMs ?? 60_000) / 1_000) });
    case 'site-not-listed':
      return say('refused.site');
    case 'token-unknown':
      return say('refused.token');
    case 'not-found':
      return say('refused.gone');
    case 'consent-needed':
      return say('consentFirst');
    case 'door-closed':
      return say('closed');
    case 'contact-not-understood':
      return say('refused.contact');
    case 'order-not-found':
      return say('orderNone');
    case 'order-not-now':
      return say('orderLater');
    case 'card-gone':
      return say('refused.card');
    default:
      return say('refused.fault');
  }
};

const variables = (colours: DoorColours): string =>
  Object.entries({
    paper: colours.ground,
    linen: colours.raised,
    seam: colours.seam,
    edge: colours.edge,
    ink: colours.ink,
    slate: colours.second,
    accent: colours.accent,
    'on-accent': colours.onAccent,
    link: colours.link,
    lamp: colours.lamp,
    moss: colours.done,
    brick: colours.problem,
  })
    .map(([name, colour]) => `--${name}:${colour}`)
    .join(';');

const sheet = new CSSStyleSheet();

/** Puts a view's colours, language and size of text on the page. A sheet made by script needs no exception in the page's policy. */
export const wear = ({ colours, look, language, direction }: DoorView): void => {
  sheet.replaceSync(
    `:root{font-size:${look.scale * 100}%;--font:${look.font};${variables(colours.day)}}@media(prefers-color-scheme:dark){:root{${variables(colours.night)}}}`,
  );
  document.adoptedStyleSheets = [sheet];
  document.documentElement.lang = language;
  document.documentElement.dir = direction;
};
