import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Webhook } from 'standardwebhooks';

interface Asked {
  type: string;
  data: Record<string, unknown>;
}

const bodyOf = async (request: IncomingMessage): Promise<string> => {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString('utf8');
};

/** A bridge to a made-up network, by the library that others use; it answers as a test says. */
export const openBridge = async () => {
  const asked: Asked[] = [];
  const unproven: string[] = [];
  const files = new Map<string, Buffer>();
  /** What it says next instead of taking what comes: a status, and perhaps after how many seconds. */
  const answers: { status: number; retryAfter?: string; body?: string }[] = [];
  let key = '';
  const can = {
    name: 'Snails',
    textLongest: 500,
    filesMost: 1,
    fileLargestBytes: 1_000,
    receipts: 'read',
  };
  const server = createServer(async (request, response) => {
    const file = files.get(request.url ?? '');
    if (request.method === 'GET') return response.writeHead(file ? 200 : 404).end(file);
    const body = await bodyOf(request);
    const next = answers.shift();
    if (next) {
      const headers = next.retryAfter ? { 'retry-after': next.retryAfter } : {};
      return response.writeHead(next.status, headers).end(next.body ?? '');
    }
    // Not `verify`, which asks the machine's clock; a house's is set by its test.
    const {
      'webhook-id': id,
      'webhook-timestamp': seconds,
      'webhook-signature': marks,
    } = request.headers as Record<string, string>;
    const right = new Webhook(key).sign(id ?? '', new Date(Number(seconds) * 1_000), body);
    if (!marks?.split(' ').includes(right)) {
      unproven.push(body);
      return response.writeHead(401).end();
    }
    const what: Asked = JSON.parse(body);
    asked.push(what);
    const said = what.type === 'capabilities' ? can : { id: `snail ${asked.length}` };
    response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(said));
  });
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    origin,
    url: `${origin}/porch`,
    can,
    asked,
    unproven,
    files,
    answers,
    setKey: (next: string): void => {
      key = next;
    },
    /** What it would hand over: a body and the headers that prove it. */
    signed: (id: string, what: object, at: Date, by = key) => {
      const body = JSON.stringify(what);
      return {
        body,
        headers: {
          'content-type': 'application/json',
          'webhook-id': id,
          'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
          'webhook-signature': new Webhook(by).sign(id, at, body),
        },
      };
    },
    close: (): Promise<void> =>
      new Promise((closed) => {
        server.closeAllConnections();
        server.close(() => closed());
      }),
  };
};

export type Bridge = Awaited<ReturnType<typeof openBridge>>;
