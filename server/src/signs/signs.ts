import { dayOf, isZone, minuteOfDay } from '@porch/core/hours';
import { weekdayOf } from '@porch/core/hours/opening';
import { lampAt } from '@porch/core/lamp';
import { saysHello, signFor } from '@porch/core/signs';
import { aheadIn, localeOf, momentIn } from '@porch/core/when';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import { voiceOf } from '../dress/voice';
import type { Recording } from '../inbox/record';
import type { Lamp } from '../lamp/lamp';
import type { Store } from '../store';

/** To whom a door speaks: in which language, and by which clock they live. */
export interface Listening {
  language?: string;
  zone?: string;
  /** They try a draft: it is that which speaks. */
  isTrial?: boolean;
}

/** Whoever was silent for so long has come for something else. */
export const ANOTHER_VISIT_MS = 12 * 3_600_000;
const LOOKED_BACK_MOST = 60;

/** The one automatic message of a door that answers what is left while nobody is in, or acknowledges a first message while somebody is. */
export const createSigns = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'worn'>;
  lamp: Pick<Lamp, 'atDoor' | 'notLitSince'>;
}) => {
  const { store, clock, dressing, lamp } = services;

  const textFor = (
    doorId: string,
    key: 'signUntil' | 'signDark' | 'hello',
    until: number | null,
    to: Listening,
  ): string => {
    const worn = dressing.worn(doorId, to.isTrial ?? false);
    const { language, say } = voiceOf(worn, [to.language ?? '']);
    const business = store.business.read();
    const zone = to.zone && isZone(to.zone) ? to.zone : (business?.zone ?? 'UTC');
    const now = clock.now();
    const at = until ?? now;
    return say(key, {
      business: business?.name ?? '',
      time: momentIn({ locale: localeOf(language, business?.country ?? ''), zone }, at, now),
      ahead: aheadIn(language, at - now),
    });
  };

  /** What was said last by either side in any of these threads, before what is being said now; null: nothing. */
  const lastSaidIn = (threadIds: readonly string[]) => {
    const seqs = threadIds.flatMap((id) => {
      const conversation = store.conversations.byId(store.threads.byId(id)?.conversationId ?? '');
      return conversation?.threads.find(({ threadId }) => threadId === id)?.saidSeq ?? [];
    });
    const last = store.entries.bySeq(Math.max(0, ...seqs));
    // What a card was tapped for is no message.
    if (last?.kind !== 'visitor-said' || last.setAside !== 'card' || !last.threadId) return last;
    return (
      store.entries
        .threadBefore(last.threadId, last.seq, LOOKED_BACK_MOST)
        .findLast(
          (one) => one.kind === 'team-said' || (one.kind === 'visitor-said' && !one.tapped),
        ) ?? null
    );
  };

  /** A first message is acknowledged once a visit. Its id is that of the last thing said before. */
  const helloAfter = (doorId: string, threadIds: readonly string[], to: Listening): Recording[] => {
    const { hello } = dressing.worn(doorId, to.isTrial ?? false);
    if (!hello.isOn) return [];
    const last = lastSaidIn(threadIds);
    const now = clock.now();
    const isFirst = !last || now - last.at > ANOTHER_VISIT_MS;
    const zone = store.business.read()?.zone ?? 'UTC';
    const weekday = weekdayOf(dayOf(now, zone));
    const minute = minuteOfDay(now, zone);
    const light = lamp.atDoor(doorId);
    if (!saysHello({ light, hello, isFirst, isAutomatic: false, weekday, minute }, now)) return [];
    const text = textFor(doorId, 'hello', null, to);
    const id = `first-hello-${last?.seq ?? 0}`;
    const isTried = to.isTrial ? { isTried: true } : {};
    return [{ id, happening: { kind: 'door-sign', text, until: null, isHello: true, ...isTried } }];
  };

  return {
    /**
     * What a door says after somebody wrote there, whose conversation has these threads in it. Its id is that of the
     * spell for which the light is out: it cannot be said twice in one.
     */
    after: (doorId: string, threadIds: readonly string[], to: Listening): Recording[] => {
      const light = lamp.atDoor(doorId);
      // Lit, and so for each of many messages: there is nothing to be looked up.
      if (lampAt(light, clock.now()).state === 'lit') return helloAfter(doorId, threadIds, to);
      const id = `door-sign-${lamp.notLitSince(doorId).toString(36)}`;
      const hasSign = threadIds.some((one) => store.entries.inThread(one, id) !== null);
      const sign = signFor({ light, hasSign, isAutomatic: false }, clock.now());
      if (!sign) return helloAfter(doorId, threadIds, to);
      const text = textFor(doorId, sign.text, sign.until, to);
      return [{ id, happening: { kind: 'door-sign', text, until: sign.until } }];
    },
  };
};

export type Signs = ReturnType<typeof createSigns>;
