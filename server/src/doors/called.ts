import { type Call, callOf } from '@porch/core/calling';
import type { ConversationRecord, DoorRecord, Store } from '../store';
import { sitesOf } from './website/kind';

/** The door by which somebody spoke last; null where it is gone. */
export const lastDoorOf = (store: Store, { threads }: ConversationRecord): DoorRecord | null => {
  const [spoken] = [...threads].sort((a, b) => b.saidSeq - a.saidSeq);
  return spoken ? store.doors.byId(spoken.doorId) : null;
};

/** What somebody is called, as it is in the line. */
export const calledOf = (store: Store, conversation: ConversationRecord): Call => {
  const business = store.business.read();
  const door = lastDoorOf(store, conversation);
  return callOf(conversation.state, {
    business: business?.name ?? '',
    zone: business?.zone ?? 'UTC',
    sites: door ? sitesOf(door) : [],
  });
};
