import type { TeamLamp } from '@porch/contract/lamp';
import { LATE_BACK_SOON_MS } from '@porch/core/promises';
import type { Clock } from '../clock';
import type { WriteNow } from '../inbox/batch';
import type { Record } from '../inbox/record';
import type { PromisesKept } from '../promises/promises';
import { newId } from '../security/tokens';
import type { ConversationRecord, Store } from '../store';
import type { Lamp } from './lamp';
import type { Unlooked } from './unlooked';

/**
 * Sees that somebody's patience is over and nobody has looked, while the light says that somebody answers: asks the
 * team once whether it should say "back soon", or turns it, whichever the owner chose.
 */
export const createLate = (services: {
  store: Store;
  clock: Clock;
  unlooked: Unlooked;
  lamp: Lamp;
  promises: Pick<PromisesKept, 'now'>;
  writeNow: WriteNow;
  record: Pick<Record, 'add'>;
}) => {
  const { store, clock, unlooked, lamp, promises, writeNow, record } = services;

  const sinceOf = ({ state }: ConversationRecord): number => state.waitingSince ?? 0;

  /** Whoever waits too long, unseen, and was not asked about yet. */
  const newlyLate = (): ConversationRecord | undefined =>
    unlooked.all().find((one) => !store.promises.wasLateAsked(one.id, sinceOf(one)));

  const turn = (late: ConversationRecord): void => {
    const until = clock.now() + LATE_BACK_SOON_MS;
    writeNow(() => {
      store.promises.noteLateAsked(late.id, sinceOf(late));
      lamp.turn({ state: 'back-soon', until });
      const happening = { kind: 'turned-soon' as const, until };
      return { result: null, news: [record.add(late, null, [{ id: newId(), happening }])] };
    });
    lamp.tell();
  };

  const ask = (late: ConversationRecord): void => {
    const since = sinceOf(late);
    store.promises.noteLateAsked(late.id, since);
    lamp.ask({ conversationId: late.id, since });
  };

  const isStill = ({ conversationId, since }: NonNullable<TeamLamp['ask']>): boolean => {
    const asked = store.conversations.byId(conversationId);
    return asked !== null && sinceOf(asked) === since && unlooked.isLate(asked);
  };

  return {
    tick: (): void => {
      const asked = lamp.asked();
      if (asked && !isStill(asked)) lamp.ask(null);
      const { whenLate } = promises.now();
      const light = lamp.forTeam();
      // Outside the hours nobody was promised an answer.
      if (whenLate === 'nothing' || light.state !== 'lit') return;
      if (light.hasHours && !light.isOpen) return;
      const late = newlyLate();
      if (!late) return;
      if (whenLate === 'itself') turn(late);
      else ask(late);
    },
  };
};

export type Late = ReturnType<typeof createLate>;
