import type { AlertDeed, PushLoad, RingLoad } from '@porch/core/ringing';
import { calledInWords } from '../features/persons/parts/called';
import { alertTag } from '../shell/live/alert-tag';
import { words } from './words';

/** What an alert carries for whoever taps it. */
export interface AlertData {
  ring: string;
  talk: string | null;
  /** Whom the short reply is for. */
  whom?: string;
  shortReply: string;
}

/** An alert as it is shown; its pictures are made where it is shown. */
export interface Alert {
  title: string;
  options: NotificationOptions & {
    tag: string;
    data: AlertData;
    renotify?: boolean;
    vibrate?: number[];
    actions?: { action: AlertDeed; title: string }[];
    timestamp?: number;
  };
}

const VIBRATION = [120, 80, 120];

/** What is known without a conversation: one such alert stands at a time. */
const APART = 'apart';

const deedInWords = (deed: AlertDeed, shortReply: string): string => {
  const said = words().deeds[deed];
  return typeof said === 'string' ? said : said(shortReply);
};

/** The buttons that make sense: without a conversation there is nothing to answer or to put by. */
const actionsOf = ({ buttons, shortReply, talk }: RingLoad) =>
  [...new Set(buttons)]
    .filter((deed) => talk !== null || deed === 'open' || deed === 'back-soon')
    .map((action) => ({ action, title: deedInWords(action, shortReply) }));

const bodyOf = ({ words: said, cause, unread, talk }: RingLoad): string => {
  const why = words().causes[cause] ?? '';
  if (talk === null || cause === 'back') return why;
  const first = said || words().hidden;
  const more = unread > 1 ? words().more(unread) : '';
  return [first, why, more].filter(Boolean).join('\n');
};

const howItSounds = ({ sound, vibrates }: Pick<RingLoad, 'sound' | 'vibrates'>) => ({
  // The sound is the platform's own: no browser lets a closed app choose another.
  silent: sound === null && !vibrates,
  ...(vibrates ? { vibrate: VIBRATION } : {}),
});

/** What is shown for a push that rings; null for one that only takes something back. */
export const alertFor = (load: PushLoad, now: number): Alert | null => {
  switch (load.say) {
    case 'ring':
      return {
        title: words().title(calledInWords(load.called), load.door),
        options: {
          body: bodyOf(load),
          tag: load.talk === null ? APART : alertTag(load.talk),
          renotify: true,
          timestamp: now,
          actions: actionsOf(load),
          data: {
            ring: load.ring,
            talk: load.talk,
            ...(load.whom ? { whom: load.whom } : {}),
            shortReply: load.shortReply,
          },
          ...howItSounds(load),
        },
      };
    case 'trial':
      return {
        title: words().trial.title,
        options: {
          body: words().trial.body,
          tag: 'trial',
          renotify: true,
          data: { ring: load.ring, talk: null, shortReply: '' },
          ...howItSounds(load),
        },
      };
    case 'bare':
      return {
        title: words().bare.title,
        options: {
          body: words().bare.body,
          tag: load.talk === null ? APART : alertTag(load.talk),
          renotify: true,
          data: { ring: '', talk: load.talk, shortReply: '' },
        },
      };
    case 'hush':
      return null;
  }
};

/** Where a tap on an alert leads. */
export const pathOf = ({ talk }: Pick<AlertData, 'talk'>): string =>
  talk === null ? '/line' : `/line/${talk}`;
