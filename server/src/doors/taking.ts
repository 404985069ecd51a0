import {
  type Changed,
  ChangedSchema,
  type Delivery,
  DeliverySchema,
  type Inbound,
  InboundSchema,
  type RemoteFile,
  RemoteFileSchema,
  type Stopped,
  StoppedSchema,
  TEXT_HANDED_LONGEST,
} from '@porch/contract/doors';
import { FILES_MOST } from '@porch/contract/entries';
import { z } from 'zod';
import type { Written } from '../inbox/batch';
import type { Receive } from '../inbox/receive';
import type { Hub, News } from '../live/hub';
import { Refused } from '../refused';
import type { Store } from '../store';
import type { Delivering } from './delivering';
import type { Fetching } from './fetching';
import type { Heard } from './registry';

/** So much may come in one go; a network that has more says it again. */
const HEARD_MOST = 500;

/** Nobody is called something longer, in characters. */
const NAME_MOST = 200;

/** What is too long is no reason to hear nothing: as much of it is taken as is kept. */
const SaidSchema = InboundSchema.extend({
  name: z
    .string()
    .default('')
    .transform((name) => [...name].slice(0, NAME_MOST).join('')),
  text: z.string().transform((text) => text.slice(0, TEXT_HANDED_LONGEST)),
  files: z.array(RemoteFileSchema).max(FILES_MOST).optional(),
});

/** What was heard at a door, as far as it can be understood. */
export interface Understood {
  doorId: string;
  said: (Inbound & { files?: RemoteFile[] })[];
  changed: Changed[];
  stopped: Stopped[];
  told: Delivery[];
  typing: readonly string[];
}

type Said = NonNullable<Heard['inbounds']>[number];

/** Nobody sends more files in one message; what names more is cut off there, and says how many. */
const FILES_HANDED_MOST = 10 * FILES_MOST;

/** More files than a message has are as many messages as it takes. */
const apart = (said: Said): Said[] => {
  const { files = [], ...words } = said;
  if (files.length <= FILES_MOST) return [said];
  const most = Math.min(files.length, FILES_HANDED_MOST);
  const parts: Said[] = [];
  for (let from = 0; from < most; from += FILES_MOST) {
    const nth = from / FILES_MOST;
    const networkId = `${said.networkId}${' +'.repeat(nth)}`;
    const some = files.slice(from, Math.min(from + FILES_MOST, most));
    parts.push({ ...words, networkId, files: some, ...(nth === 0 ? {} : { text: '' }) });
  }
  const left = files.length - most;
  const last = parts.at(-1);
  if (left > 0 && last) last.missing = [`+${left}`];
  return parts;
};

const all = <Shape extends z.ZodType>(
  shape: Shape,
  given: readonly unknown[],
): { known: z.infer<Shape>[]; isWhole: boolean } => {
  const read = given.map((one) => shape.safeParse(one));
  const known = read.flatMap(({ data }) => (data === undefined ? [] : [data]));
  return { known: known as z.infer<Shape>[], isWhole: known.length === given.length };
};

/** Takes what a door has made of its network's words: all of it in one transaction, each once. */
export const createTaking = (services: {
  store: Store;
  receive: Receive;
  fetching: Fetching;
  delivering: Delivering;
  hub: Pick<Hub, 'tellTeamTyping'>;
}) => {
  const { store, receive, fetching, delivering, hub } = services;

  /** What can be understood of it; `isTaken`: there is some, and not too much of it. */
  const read = (doorId: string, heard: Heard): { understood: Understood; isTaken: boolean } => {
    const here = <One extends object>(given: readonly One[] = []) =>
      given.map((one) => ({ ...one, doorId }));
    const said = all(SaidSchema, here(heard.inbounds?.flatMap(apart)));
    const changed = all(ChangedSchema, here(heard.changes));
    const stopped = all(StoppedSchema, here(heard.stops));
    const told = all(DeliverySchema, heard.deliveries ?? []);
    const parts = [said, changed, stopped, told];
    const count = parts.reduce((sum, { known }) => sum + known.length, 0);
    const isNothing = count === 0 && parts.some((part) => !part.isWhole);
    return {
      understood: {
        doorId,
        said: said.known,
        changed: changed.known,
        stopped: stopped.known,
        told: told.known,
        typing: heard.typing ?? [],
      },
      isTaken: count <= HEARD_MOST && !isNothing,
    };
  };

  /** What a message says stands at once; its files come after it. */
  const sayNow = ({ files = [], ...said }: Understood['said'][number]): News[] =>
    files.length === 0 ? receive.inboundNow(said).news : fetching.begin(said, files).news;

  return {
    /** What of it can be understood; refuses where that is nothing, or too much at once. */
    understand: (doorId: string, heard: Heard): Understood => {
      const { understood, isTaken } = read(doorId, heard);
      if (!isTaken) throw new Refused('bad-request');
      return understood;
    },
    /** What of it can be understood; the rest is passed over, so that it stops nothing that comes after it. */
    understandSome: (doorId: string, heard: Heard): Understood => read(doorId, heard).understood,
    /** In a transaction that is under way. */
    now: ({ doorId, said, changed, stopped, told }: Understood): Written<null> => ({
      result: null,
      news: [
        ...said.flatMap(sayNow),
        ...changed.flatMap((one) => receive.changedNow(one).news),
        ...stopped.flatMap((one) => receive.stoppedNow(one).news),
        ...told.flatMap((one) => delivering.reportNow(doorId, one).news),
      ],
    }),
    /** Who is typing is told to whoever looks, and kept nowhere. */
    tellTyping: ({ doorId, typing }: Understood): void => {
      for (const address of typing) {
        const thread = store.threads.byWriter({ doorId, address });
        if (thread?.conversationId) hub.tellTeamTyping(thread.conversationId);
      }
    },
  };
};

export type Taking = ReturnType<typeof createTaking>;
