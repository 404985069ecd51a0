import type { DoorColours } from '../colours';
import { fillGaps } from '../door-texts';
import { phoneCss, shapeCss } from './shapes';
import type { DoorView } from './view';

/** What the closed door needs of a view: texts with the business's name in them, and its colours. */
export interface PlateView {
  business: string;
  picture: DoorView['business']['picture'];
  language: string;
  /** As which times are written. */
  locale: string;
  direction: 'ltr' | 'rtl';
  look: DoorView['look'];
  texts: {
    plate: readonly [string, string, string];
    peek: readonly [string, string, string];
    open: string;
    frame: string;
    unread: string;
    hide: string;
  };
  colours: readonly [string, string];
  /** What its shape and its form on a small screen add to the plate's style sheet. */
  shape: string;
  isConsentAsked: boolean;
}

/** Nothing is shown while nobody answers; whoever has an answer waiting still finds it. */
const onlyLit =
  '.plate[aria-expanded=false]:is(.dark,.back-soon):not(:has(.count:not(:empty))){display:none!important}';

/** One letter a colour: the sheet of the plate goes to every page of a website. */
const declarations = (colours: DoorColours): string =>
  [
    `--g:${colours.ground}`,
    `--r:${colours.raised}`,
    `--k:${colours.ink}`,
    `--d:${colours.second}`,
    `--l:${colours.lamp}`,
    `--a:${colours.accent}`,
    `--o:${colours.onAccent}`,
  ].join(';');

/** The little of a view that a website's page needs before anything is opened. */
export const plateViewOf = (view: DoorView): PlateView => {
  const { texts, colours, business } = view;
  // Where no note is taken none is asked for.
  const isHoursOnly = view.whenNotLit === 'hours';
  const named = (text: string): string =>
    fillGaps(text, { business: business.name, time: '{time}', count: '{count}' });
  return {
    business: business.name,
    picture: business.picture,
    language: view.language,
    locale: view.locale,
    direction: view.direction,
    look: view.look,
    texts: {
      plate: [
        named(texts['plate.lit']),
        named(texts['plate.soon']),
        named(isHoursOnly ? texts.hours : texts['plate.dark']),
      ],
      peek: [
        named(texts['peek.lit']),
        named(isHoursOnly ? texts.hoursOnly : texts['peek.soon']),
        named(isHoursOnly ? texts.hoursOnly : texts['peek.dark']),
      ],
      open: named(texts.open),
      frame: named(texts.frame),
      unread: named(texts.unread),
      hide: texts.hide,
    },
    colours: [declarations(colours.day), declarations(colours.night)],
    shape:
      shapeCss[view.look.plate] +
      phoneCss[view.look.onPhones] +
      (view.whenNotLit === 'no-plate' ? onlyLit : ''),
    isConsentAsked: view.consent !== null,
  };
};
