import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage } from 'node:http';
import {
  BridgeCanSchema,
  type BridgeIn,
  BridgeInSchema,
  BridgeTakenSchema,
} from '@porch/contract/bridge';
import { changedKeys, type Keys, newKey, provenId, signed } from './signing';

/** Where a bridge is, by which key it is spoken with, and to whom on its network something may be said. */
export interface Checked {
  url: string;
  key: string;
  to: string;
  /** The port at which the bridge finds the door that plays this. */
  port: number;
  /** How long something that the bridge does by itself may take. */
  waitMs: number;
}

/** What was looked at, and what was wrong; null: nothing. */
export interface Finding {
  what: string;
  wrong: string | null;
}

const BODY_LARGEST_BYTES = 1_000_000;
const LONG_AGO_MS = 10 * 60_000;

interface Said {
  id: string | null;
  what: BridgeIn | null;
  raw: string;
}

const bodyOf = async (request: IncomingMessage): Promise<Buffer> => {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of request) {
    bytes += (chunk as Buffer).length;
    if (bytes <= BODY_LARGEST_BYTES) chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
};

const jsonOf = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/** Plays the door: hears what the bridge hands over, and takes the first of it only the second time. */
const openDoor = async (keys: Keys, port: number) => {
  const heard: Said[] = [];
  const server = createServer(async (request, response) => {
    const raw = await bodyOf(request);
    const id = provenId(keys, request.headers, raw, Date.now());
    const said = BridgeInSchema.safeParse(jsonOf(raw.toString('utf8')));
    heard.push({ id, what: said.data ?? null, raw: raw.toString('utf8').slice(0, 400) });
    const status = id === null ? 401 : said.success ? 204 : 400;
    response.writeHead(heard.length === 1 ? 500 : status).end();
  });
  await new Promise<void>((listening, failed) => {
    server.once('error', failed);
    server.listen(port, listening);
  });
  return {
    heard,
    close: (): Promise<void> =>
      new Promise((closed) => {
        server.closeAllConnections();
        server.close(() => closed());
      }),
  };
};

const pause = (ms: number): Promise<void> => new Promise((over) => setTimeout(over, ms));

/** Looks until something is there or the time is over. */
const awaited = async <Found>(look: () => Found | undefined, ms: number): Promise<Found | null> => {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    const found = look();
    if (found !== undefined) return found;
    await pause(50);
  }
  return null;
};

/** What a bridge's answer to something is. */
interface Answer {
  status: number;
  said: unknown;
}

const asking =
  (url: string) =>
  async (body: string, headers: object): Promise<Answer> => {
    const answer = await fetch(url, {
      method: 'POST',
      body,
      headers: { 'content-type': 'application/json', ...headers },
      redirect: 'manual',
      signal: AbortSignal.timeout(15_000),
    }).catch((error: unknown) => new Response(String(error), { status: 599 }));
    return { status: answer.status, said: jsonOf(await answer.text()) };
  };

const isTaken = ({ status }: Answer): boolean => status >= 200 && status < 300;

const written = (type: string, data: object): string =>
  JSON.stringify({ type, timestamp: new Date().toISOString(), data });

/**
 * Speaks with somebody's bridge as a door does, and says of each thing that the open contract asks whether it is kept.
 * It needs to be told of the door that is played: `http://…:port/in/check`, with the same key.
 */
export async function* conformance({
  url,
  key,
  to,
  port,
  waitMs,
}: Checked): AsyncGenerator<Finding> {
  const keys: Keys = { key, before: null };
  const door = await openDoor(keys, port);
  const ask = asking(url);
  const say = (type: string, data: object, by: Keys = keys, at = Date.now()): Promise<Answer> => {
    const body = written(type, data);
    return ask(body, signed(by, `msg_${randomUUID()}`, body, at));
  };
  const found = (what: string, isKept: boolean, wrong: string): Finding => ({
    what,
    wrong: isKept ? null : wrong,
  });
  const message = { id: `check-${randomUUID()}`, to, text: 'A test of the bridge', files: [] };
  try {
    const can = await say('capabilities', {});
    const knows = BridgeCanSchema.safeParse(can.said);
    yield found(
      'says what its network can do',
      isTaken(can) && knows.success,
      `it answered ${can.status} with ${JSON.stringify(can.said)?.slice(0, 200)}`,
    );

    const stranger = await say('message', message, { key: newKey(), before: null });
    yield found('takes nothing by another key', !isTaken(stranger), 'it took it');
    const old = await say('message', message, keys, Date.now() - LONG_AGO_MS);
    yield found('takes nothing that was signed long ago', !isTaken(old), 'it took it');
    const body = written('message', message);
    const other = await ask(`${body} `, signed(keys, 'msg_other', body, Date.now()));
    yield found('takes nothing that was changed on the way', !isTaken(other), 'it took it');
    const bare = await ask(body, {});
    yield found('takes nothing that is not signed', !isTaken(bare), 'it took it');
    const odd = await say('reaction.added', { anything: [1] });
    yield found('passes over what it does not know', isTaken(odd), `it answered ${odd.status}`);

    const first = await say('message', message, changedKeys(keys, newKey(), Date.now()));
    const name = BridgeTakenSchema.safeParse(first.said);
    yield found(
      'takes a message while its key is changed, and names it',
      isTaken(first) && name.success,
      `it answered ${first.status} with ${JSON.stringify(first.said)?.slice(0, 200)}`,
    );
    const again = BridgeTakenSchema.safeParse((await say('message', message)).said);
    yield found(
      'says a message once that comes twice',
      again.success && again.data.id === name.data?.id,
      `it named it ${name.data?.id} and then ${again.data?.id}`,
    );

    if (knows.data?.receipts === 'none') return;
    const receipt = await awaited(
      () =>
        door.heard.find(({ what }) => what?.type === 'receipt' && what.data.id === name.data?.id),
      waitMs,
    );
    yield found(
      'says what became of the message',
      receipt !== null,
      `nothing came to port ${port} in ${waitMs / 1_000} s; what came: ${door.heard[0]?.raw ?? 'nothing'}`,
    );
    yield found(
      'proves what it hands over',
      door.heard.length > 0 && door.heard.every(({ id }) => id !== null),
      'something came that was not signed by the key',
    );
    yield found(
      'hands over in the form of the contract',
      door.heard.length > 0 && door.heard.every(({ what }) => what !== null),
      `something came in another: ${door.heard.find(({ what }) => what === null)?.raw ?? 'nothing came'}`,
    );
    const id = door.heard[0]?.id ?? null;
    const repeated = await awaited(
      () => (door.heard.filter((one) => one.id === id).length > 1 ? true : undefined),
      waitMs,
    );
    yield found(
      'hands over again what was not taken, under the same id',
      id !== null && repeated === true,
      'the first was answered with 500, and did not come again',
    );
  } finally {
    await door.close();
  }
}
