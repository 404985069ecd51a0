import type { Writable } from 'node:stream';
import type { Member } from '@porch/contract/people';
import { buildApp } from '../src/app';
import { handClock } from '../src/clock';
import { NotDescribed } from '../src/refused';
import { createServices, type Parts } from '../src/services';
import { type SettingsInput, toSettings } from '../src/settings';
import { createStore, openDatabase } from '../src/store';
import type { Db } from '../src/store/db';
import { tickOnce } from '../src/ticking';
import { openDayAndNight } from './day-and-night';

/** Thursday 12 November 2026, 10:00 in London. */
export const someDay = Date.UTC(2026, 10, 12, 10, 0, 0);

export const site = 'https://quillfern.example';

export const owner = {
  business: 'Quillfern Nursery',
  zone: 'Europe/London',
  name: 'Maren Oduya',
  email: 'maren@quillfern.example',
  password: 'a long enough password',
};

/** The weakest that argon2id takes: tests check what is done with passwords, not how slowly. */
const cheapPasswords = { memoryKib: 8, passes: 1 };

/** A whole server in memory on a clock that stands still, talked to without a port. */
export const openHouse = async (
  input: SettingsInput = {},
  path = ':memory:',
  { logTo, db = openDatabase(path), ...parts }: Partial<Parts> & { logTo?: Writable; db?: Db } = {},
) => {
  const settings = toSettings({
    logLevel: 'silent',
    passwordCost: cheapPasswords,
    withStreet: true,
    ...input,
  });
  const clock = handClock(someDay);
  const store = createStore(db);
  const services = createServices(settings, { clock, store, ...parts });
  const app = await buildApp(settings, services, logTo);
  const undescribed: NotDescribed[] = [];
  services.onReport((error) => {
    if (error instanceof NotDescribed) undescribed.push(error);
    app.log.error(error);
  });
  await app.ready();

  /** A request as a page of ours sends it, from its own origin. */
  const ask = async (
    method: 'GET' | 'POST' | 'PUT' | 'DELETE' | 'OPTIONS',
    url: string,
    { body, cookie, headers }: { body?: unknown; cookie?: string; headers?: object } = {},
  ) => {
    const response = await app.inject({
      method,
      url,
      headers: {
        host: 'porch.example',
        origin: 'http://porch.example',
        ...(cookie ? { cookie } : {}),
        ...headers,
      },
      ...(body === undefined ? {} : { payload: body as object }),
    });
    const isJson = String(response.headers['content-type']).includes('json');
    return {
      status: response.statusCode,
      headers: response.headers,
      body: isJson ? response.json() : response.body,
      bytes: response.rawPayload,
    };
  };

  /** Sockets that a test has opened; they end with the house. */
  const sockets = new Set<{ terminate(): void }>();

  return {
    app,
    sockets,
    clock,
    store,
    services,
    ask,
    tick: () => tickOnce(services),
    /** Ends it; throws where a route has refused with a code that its description lacks. */
    close: async () => {
      for (const socket of sockets) socket.terminate();
      await app.close();
      store.close();
      const [first] = undescribed;
      if (first) throw first;
    },
  };
};

export type House = Awaited<ReturnType<typeof openHouse>>;

/** Sets the house up; gives the owner's cookie and the website door, allowed on `site`. */
export const setUpOnly = async (house: House) => {
  const code = house.services.firstCode.shown();
  const response = await house.ask('POST', '/api/set-up', { body: { ...owner, code } });
  const cookie = String(response.headers['set-cookie']).split(';')[0] ?? '';
  const member: Member = response.body;
  const [door] = house.store.doors.all();
  if (!door) throw new Error('no door was made');
  house.store.doors.update({ ...door, settings: { sites: ['quillfern.example'] } });
  return { cookie, member, door };
};

/** The same, with somebody in it who answers at any hour. */
export const setUp = async (house: House) => {
  const made = await setUpOnly(house);
  // Whether somebody is here has tests of its own.
  house.services.here.isHere = () => true;
  openDayAndNight(house);
  return made;
};
