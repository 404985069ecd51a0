import type { FastifyInstance, FastifyReply } from 'fastify';
import { type DeviceKeys, keysFrom, newDeviceKeys, openPush, type Sender, senderOf } from './wire';

/**
 * A push service as RFC 8030 describes it, with devices of its own: it checks who sends (RFC 8292), and opens what
 * came as the device would (RFC 8291), to show it. Real ones never can.
 */
export const faults = [
  'none',
  'gone',
  'slow',
  'too-many',
  'too-large',
  'refused',
  'broken',
] as const;
export type Fault = (typeof faults)[number];

export interface Arrival {
  device: string;
  at: number;
  ttl: number;
  urgency: string;
  topic: string | null;
  sender: Sender;
  /** What the device was told; null: it could not be opened. */
  text: string | null;
}

const KEPT_MOST = 400;
/** RFC 8030, 7.2: a push service has to take 4096 bytes. */
const BODY_LARGEST_BYTES = 4_096;
const SLOW_MS = 15_000;
const RETRY_AFTER_SECONDS = 3;

const statusOf: Partial<Record<Fault, number>> = {
  gone: 410,
  'too-many': 429,
  'too-large': 413,
  refused: 403,
  broken: 500,
};

const textOf = (body: Buffer, keys: DeviceKeys): string | null => {
  try {
    return openPush(body, keys).toString('utf8');
  } catch {
    return null;
  }
};

export const createPushService = () => {
  const devices = new Map<string, DeviceKeys>();
  const faultOf = new Map<string, Fault>();
  let arrivals: Arrival[] = [];

  /** What has the same topic would take its place (RFC 8030, 5.4); here all is kept, to be looked at. */
  const take = (arrival: Arrival): void => {
    arrivals = [...arrivals, arrival].slice(-KEPT_MOST);
  };

  return {
    devices: (): string[] => [...devices.keys()],
    faultOf: (device: string): Fault => faultOf.get(device) ?? 'none',
    setFault: (device: string, fault: Fault): void => {
      faultOf.set(device, fault);
    },
    arrivals: (device?: string): Arrival[] =>
      device === undefined ? arrivals : arrivals.filter((one) => one.device === device),
    /** A browser agrees to be rung; with keys of its own, or with those that are given. */
    subscribe: (device: string, given?: { privateKey: string; auth: string }) => {
      const keys = given
        ? keysFrom(Buffer.from(given.privateKey, 'base64url'), Buffer.from(given.auth, 'base64url'))
        : newDeviceKeys();
      devices.set(device, keys);
      return {
        p256dh: keys.publicKey.toString('base64url'),
        auth: keys.auth.toString('base64url'),
      };
    },
    /** A browser does not want to be rung any more. */
    unsubscribe: (device: string): void => {
      devices.delete(device);
    },
    keysOf: (device: string): DeviceKeys | null => devices.get(device) ?? null,
    take,
  };
};

export type PushService = ReturnType<typeof createPushService>;

type InPath = { Params: { device: string } };

const later = (ms: number): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve, ms).unref();
  });

/** The wire: where application servers push, and where the demo and tests subscribe and look. */
export const pushRoutes = (
  app: FastifyInstance,
  service: PushService,
  origin: () => string,
  now: () => number,
): void => {
  app.addContentTypeParser(
    'application/octet-stream',
    { parseAs: 'buffer' },
    (_request, body, done) => done(null, body),
  );

  const refuse = (reply: FastifyReply, status: number): FastifyReply =>
    reply
      .headers(status === 429 ? { 'retry-after': String(RETRY_AFTER_SECONDS) } : {})
      .status(status)
      .send();

  app.post<InPath>('/push/to/:device', async (request, reply) => {
    const { device } = request.params;
    const keys = service.keysOf(device);
    const fault = service.faultOf(device);
    if (fault === 'slow') await later(SLOW_MS);
    const status = statusOf[fault];
    if (status) return refuse(reply, status);
    if (!keys) return refuse(reply, 404);
    const { authorization = '', ttl, urgency, topic } = request.headers;
    const sender = senderOf(authorization, origin(), now() / 1_000);
    if (!sender) return refuse(reply, 403);
    const body = request.body as Buffer;
    const isWhole = typeof ttl === 'string' && request.headers['content-encoding'] === 'aes128gcm';
    if (!isWhole) return refuse(reply, 400);
    if (body.length > BODY_LARGEST_BYTES) return refuse(reply, 413);
    service.take({
      device,
      at: now(),
      ttl: Number(ttl),
      urgency: String(urgency ?? 'normal'),
      topic: typeof topic === 'string' ? topic : null,
      sender,
      text: textOf(body, keys),
    });
    return reply
      .status(201)
      .header('location', `${origin()}/push/message/${service.arrivals().length}`)
      .send();
  });

  app.put<InPath & { Body: { privateKey: string; auth: string } | undefined }>(
    '/push/devices/:device',
    async (request) => {
      const { device } = request.params;
      const keys = service.subscribe(device, request.body ?? undefined);
      return { endpoint: `${origin()}/push/to/${device}`, keys };
    },
  );

  app.delete<InPath>('/push/devices/:device', async (request, reply) => {
    service.unsubscribe(request.params.device);
    return reply.status(204).send();
  });

  app.put<InPath & { Body: { fault: Fault } }>(
    '/push/devices/:device/fault',
    async (request, reply) => {
      const { fault } = request.body;
      if (!faults.includes(fault)) return reply.status(400).send();
      service.setFault(request.params.device, fault);
      return reply.status(204).send();
    },
  );

  app.get<InPath>('/push/devices/:device/arrivals', async (request) =>
    service.arrivals(request.params.device),
  );
};
