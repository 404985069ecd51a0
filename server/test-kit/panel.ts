import type { FromTeam, ToTeam } from '@porch/contract/live';
import type { FromVisitor, ToVisitor } from '@porch/contract/visitor';
import type { House } from './house';
import { site } from './house';

/** A token as a visitor's browser makes it; `which` tells visitors apart. */
export const visitorToken = (which: string): string => which.padEnd(43, '0');

let made = 0;

/** An id as a client makes it. */
export const clientId = (): string => {
  made += 1;
  return `client-made-${String(made).padStart(6, '0')}`;
};

/** Most of what a test waits for is there within so many turns. */
const TURNS_AT_ONCE = 200;
const NEVER_MS = 60_000;
// Real ones, also where a test has the clock in its hand.
const wait = setTimeout;
const steady = performance.now.bind(performance);

/** Waits for something to be there, and lets others work meanwhile; fails after a minute, which no machine is slow enough for. */
export const until = async <Value>(look: () => Value | undefined): Promise<Value> => {
  const deadline = steady() + NEVER_MS;
  for (let turn = 0; ; turn += 1) {
    const value = look();
    if (value !== undefined) return value;
    if (steady() > deadline) throw new Error('waited a minute for nothing');
    await new Promise((resolve) =>
      turn < TURNS_AT_ONCE ? setImmediate(resolve) : wait(resolve, 5),
    );
  }
};

const openSocket = async <From, To extends { say: string }>(
  house: House,
  path: string,
  headers: Record<string, string>,
) => {
  const heard: To[] = [];
  const socket = await house.app.injectWS(
    path,
    {
      headers: { host: 'porch.example', origin: 'http://porch.example', ...headers },
      // A real upgrade comes over a socket; where none is named there would be no address.
      socket: { remoteAddress: '127.0.0.1' } as never,
    },
    {
      onInit: (ws) => ws.on('message', (data) => heard.push(JSON.parse(String(data)))),
    },
  );
  house.sockets.add(socket);
  return {
    heard,
    socket,
    tell: (message: From) => socket.send(JSON.stringify(message)),
    tellRaw: (text: string) => socket.send(text),
    /** The first message of a kind that fits, taken out of what was heard. */
    hear: <Say extends To['say']>(
      say: Say,
      fits: (message: Extract<To, { say: Say }>) => boolean = () => true,
    ) =>
      until(() => {
        const at = heard.findIndex(
          (message) => message.say === say && fits(message as Extract<To, { say: Say }>),
        );
        return at < 0 ? undefined : (heard.splice(at, 1)[0] as Extract<To, { say: Say }>);
      }),
    closed: () =>
      new Promise<number>((resolve) => socket.once('close', (code: number) => resolve(code))),
    /** Is gone from one moment to the next, as a page that is closed. */
    close: () => socket.terminate(),
  };
};

/** A visitor's panel on a page of the website. */
export const openPanel = (house: House, door: string) =>
  openSocket<FromVisitor, ToVisitor>(house, `/door/${door}/live`, {});

/** A panel that has said hello and was welcomed. */
export const visit = async (
  house: House,
  door: string,
  which: string,
  since = 0,
  last: string | null = null,
) => {
  const panel = await openPanel(house, door);
  panel.tell({ do: 'hello', token: visitorToken(which), since, last, site });
  const welcome = await panel.hear('welcome');
  return {
    ...panel,
    welcome,
    /** Says something and waits until it is taken. */
    say: async (text: string, id = clientId(), fileIds: string[] = []) => {
      panel.tell({ do: 'say', id, text, fileIds, page: null });
      await panel.hear('taken', (message) => message.id === id);
      return id;
    },
  };
};

/** What a panel is told in answer to a letter, where no socket can be had. */
export const write = async (
  house: House,
  door: string,
  which: string,
  says: FromVisitor[],
  since = 0,
): Promise<ToVisitor[]> => {
  const hello: FromVisitor = { do: 'hello', token: visitorToken(which), since, site };
  const response = await house.ask('POST', `/door/${door}/letters`, {
    body: { says: [hello, ...says] },
  });
  return response.body.says;
};

/** A socket of the team that has not said a word yet. */
export const openTeamSocket = (house: House, cookie: string) =>
  openSocket<FromTeam, ToTeam>(house, '/api/live', { cookie });

/** A signed-in device of the team, welcomed. */
export const openDevice = async (
  house: House,
  cookie: string,
  since = 0,
  last: string | null = null,
) => {
  const device = await openTeamSocket(house, cookie);
  device.tell({ do: 'hello', since, last });
  return { ...device, welcome: await device.hear('welcome') };
};
