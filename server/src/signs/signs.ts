import { chooseLanguage, fillGaps } from '@porch/core/door-texts';
import { languagesOf, textsOf } from '@porch/core/dress';
import { isZone } from '@porch/core/hours';
import { signFor } from '@porch/core/signs';
import { aheadIn, momentIn } from '@porch/core/when';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import type { Recording } from '../inbox/record';
import type { Lamp } from '../lamp/lamp';
import type { Store } from '../store';

/** To whom a door speaks: in which language, and by which clock they live. */
export interface Listening {
  language?: string;
  zone?: string;
}

/** The one automatic message of a door that answers what is left while nobody is in. */
export const createSigns = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'published'>;
  lamp: Pick<Lamp, 'atDoor' | 'notLitSince'>;
}) => {
  const { store, clock, dressing, lamp } = services;

  const textFor = (
    doorId: string,
    key: 'signUntil' | 'signDark',
    until: number | null,
    to: Listening,
  ): string => {
    const dress = dressing.published(doorId);
    const asked = to.language ? [to.language] : [];
    const language = chooseLanguage(asked, languagesOf(dress), dress.fallback);
    const business = store.business.read();
    const zone = to.zone && isZone(to.zone) ? to.zone : (business?.zone ?? 'UTC');
    const now = clock.now();
    const at = until ?? now;
    return fillGaps(textsOf(dress, language)[key], {
      business: business?.name ?? '',
      // Of two English ways to write a time nobody can misread this one.
      time: momentIn({ language, clock: language === 'en' ? 'en-GB' : language, zone }, at, now),
      ahead: aheadIn(language, at - now),
    });
  };

  return {
    /**
     * What a door says after somebody wrote there, whose conversation has these threads in it. Its id is that of the
     * spell for which the light is out: it cannot be said twice in one.
     */
    after: (doorId: string, threadIds: readonly string[], to: Listening): Recording[] => {
      const id = `door-sign-${lamp.notLitSince(doorId).toString(36)}`;
      const hasSign = threadIds.some((one) => store.entries.inThread(one, id) !== null);
      const light = lamp.atDoor(doorId);
      const sign = signFor({ light, hasSign, isAutomatic: false }, clock.now());
      if (!sign) return [];
      const text = textFor(doorId, sign.text, sign.until, to);
      return [{ id, happening: { kind: 'door-sign', text, until: sign.until } }];
    },
  };
};

export type Signs = ReturnType<typeof createSigns>;
