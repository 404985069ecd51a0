import type { IncomingMessage, ServerResponse } from 'node:http';
import type { FastifyBaseLogger, FastifyInstance, FastifyRequest, RawServerDefault } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { createAccounts } from './accounts/accounts';
import { createPasswords } from './accounts/passwords';
import type { Clock } from './clock';
import type { PanelFiles } from './doors/page';
import { createPresence } from './doors/presence';
import { createSightings } from './doors/sightings';
import { createWebsite } from './doors/website';
import { createDressing } from './dress/dressing';
import { createShown } from './dress/shown';
import { createFiles } from './files/files';
import { createBatch } from './inbox/batch';
import { createLine } from './inbox/line';
import { createReach } from './inbox/reach';
import { createReceive } from './inbox/receive';
import { createRecorder } from './inbox/record';
import { createReply } from './inbox/reply';
import { createSearch } from './inbox/search';
import { createLamp } from './lamp/lamp';
import { createHub, type News } from './live/hub';
import { createPairings } from './pairing/pairing';
import { createPictures } from './pictures/pictures';
import { createBuckets } from './security/bucket';
import type { Settings } from './settings';
import type { Store } from './store';
import { createTeam } from './team/team';

/** Builds everything that does the work, each part from the parts it needs; nothing is global. */
export const createServices = (
  settings: Settings,
  { clock, store }: { clock: Clock; store: Store },
) => {
  const hub = createHub((...who) => shown.person(...who), store.conversations.counts);
  const dressing = createDressing({ store, clock, hub });
  const shown = createShown({ store, dressing });
  const reach = createReach({ store, hub });
  const publish = (news: News[]): void => {
    hub.publish(news);
    reach.note(news);
  };
  const write = createBatch(store, publish);
  const record = createRecorder({ store, clock });
  const inbox = { store, clock, record, write, hub, dressing };
  const receive = createReceive(inbox);
  const passwords = createPasswords(settings.passwordCost);
  const accounts = createAccounts({ store, clock, passwords });
  const { visitorMessagesAMinute, newVisitorsAnHour, uploadsAnHour, linksAnHour } = settings.limits;
  return {
    clock,
    store,
    hub,
    reach,
    receive,
    reply: createReply(inbox),
    line: createLine({ store, clock }),
    search: createSearch(store),
    files: createFiles(inbox),
    lamp: createLamp({ store, clock, hub }),
    website: createWebsite({ store, personAt: shown.person }),
    sightings: createSightings({ store, clock, hub }),
    dressing,
    shown,
    pictures: createPictures({ store, clock }),
    presence: createPresence({ clock, store, hub, receive }),
    accounts,
    team: createTeam({ store, clock, hub, accounts }),
    pairings: createPairings({ store, clock, accounts }),
    limits: {
      messages: createBuckets(clock, visitorMessagesAMinute, 60_000),
      newVisitors: createBuckets(clock, newVisitorsAnHour, 3_600_000),
      uploads: createBuckets(clock, uploadsAnHour, 3_600_000),
      links: createBuckets(clock, linksAnHour, 3_600_000),
    },
    /** Where people reach us: as set, or as this request did. */
    originOf: (request: FastifyRequest): string =>
      settings.publicOrigin ?? `${request.protocol}://${request.host}`,
  };
};

export type Services = ReturnType<typeof createServices>;

export type App = FastifyInstance<
  RawServerDefault,
  IncomingMessage,
  ServerResponse,
  FastifyBaseLogger,
  ZodTypeProvider
>;

/** What a room (one subject's routes) is given. */
export interface Room {
  app: App;
  settings: Settings;
  services: Services;
  panelFiles: PanelFiles;
}
