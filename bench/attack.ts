import { randomBytes } from 'node:crypto';
import { request } from 'node:http';
import { connect } from 'node:net';
import { setPriority } from 'node:os';
import { createTransport } from 'nodemailer';
import sharp from 'sharp';
import WebSocket from 'ws';

/** One visitor who does their worst, from an address of their own, until they are ended. */
const [way = '', portText = '', door = '', mailPortText = ''] = process.argv.slice(2);
const port = Number(portText);
const origin = `http://127.0.0.1:${port}`;
const localAddress = '127.0.0.2';
const SOCKETS = 20;
const PICTURES = 12;
const BODIES = 40;
const BODY_BYTES = 10 * 1024 * 1024;
const AGAIN_MS = 250;

// What is measured is what the server does, not what is left of the machine.
setPriority(10);

const token = (): string => randomBytes(32).toString('base64url');

/** Hellos, and how far they have read, as fast as they go, on sockets that read nothing. */
const flood = (): void => {
  const mine = token();
  const socket = new WebSocket(`ws://127.0.0.1:${port}/door/${door}/live`, {
    origin,
    localAddress,
  });
  const again = (): void => void setTimeout(flood, AGAIN_MS);
  socket.on('error', () => {});
  socket.on('close', again);
  socket.on('open', () => {
    const hello = JSON.stringify({ do: 'hello', token: mine, since: 0, site: '' });
    socket.send(hello);
    socket.send(
      JSON.stringify({
        do: 'say',
        id: `flood-${mine.slice(0, 20)}`,
        text: 'x'.repeat(3_900),
        fileIds: [],
        page: null,
      }),
    );
    socket.pause();
    for (let count = 0; count < 6_000; count += 1) {
      socket.send(hello);
      socket.send(JSON.stringify({ do: 'read', upTo: 1_000_000 + count }));
      socket.send(JSON.stringify({ do: 'typing' }));
    }
  });
};

const put = (
  path: string,
  bytes: Buffer,
  write: (send: (chunk: Buffer) => void, end: () => void) => void,
): Promise<void> =>
  new Promise((resolve) => {
    const asking = request(
      {
        port,
        path,
        method: 'PUT',
        localAddress,
        headers: {
          host: `127.0.0.1:${port}`,
          origin,
          authorization: `Bearer ${token()}`,
          'content-type': 'application/octet-stream',
          'content-length': bytes.length,
        },
      },
      (response) => {
        response.resume();
        response.on('close', () => resolve());
      },
    );
    asking.on('error', () => resolve());
    write(
      (chunk) => void asking.write(chunk),
      () => asking.end(),
    );
  });

const forEver = async (work: () => Promise<void>): Promise<void> => {
  for (;;) {
    await work();
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
  }
};

const fileId = (): string => `attack-${randomBytes(9).toString('hex')}`;

const pictures = async (): Promise<void> => {
  const bomb = await sharp({
    create: { width: 3_600, height: 3_600, channels: 3, background: '#2f6247' },
  })
    .avif({ quality: 1, effort: 0 })
    .toBuffer();
  const send = () =>
    put(`/door/${door}/files/${fileId()}`, bomb, (write, end) => {
      write(bomb);
      end();
    });
  for (let count = 0; count < PICTURES; count += 1) void forEver(send);
};

/** Half of them as fast as they go, half a few bytes at a time, all of them for nobody. */
const bodies = (): void => {
  const bytes = Buffer.alloc(BODY_BYTES, 7);
  const fast = () =>
    put(`/door/${door}/files/${fileId()}`, bytes, (write, end) => {
      write(bytes);
      end();
    });
  const slow = () =>
    put(`/door/${door}/files/${fileId()}`, bytes, (write) => {
      const timer = setInterval(() => write(bytes.subarray(0, 64)), 500);
      timer.unref();
    });
  for (let count = 0; count < BODIES; count += 1) void forEver(count % 2 ? fast : slow);
};

/** Mails that take as long to read as they can, and connections that say nothing. */
const mails = (): void => {
  const mailPort = Number(mailPortText);
  const head = (nth: number): string[] => [
    'From: Bad <bad@post.example>',
    'To: hello@porch.example',
    `Message-ID: <bad-${nth}-${token()}@post.example>`,
    'MIME-Version: 1.0',
  ];
  const deep = `${'<div>'.repeat(25_000)}x${'</div>'.repeat(25_000)}`;
  const parts = Array.from({ length: 1_001 }, () => '--p\r\nContent-Type: text/plain\r\n\r\nx\r\n');
  const raws = [
    (nth: number) => [...head(nth), 'Content-Type: text/html', '', deep].join('\r\n'),
    (nth: number) =>
      [...head(nth), 'Content-Type: multipart/mixed; boundary=p', '', ...parts, '--p--'].join(
        '\r\n',
      ),
  ];
  let made = 0;
  const send = async (): Promise<void> => {
    made += 1;
    const transport = createTransport({
      host: '127.0.0.1',
      port: mailPort,
      ignoreTLS: true,
      localAddress,
    });
    const raw = raws[made % raws.length]?.(made) ?? '';
    const envelope = { from: 'bad@post.example', to: 'hello@porch.example' };
    await transport.sendMail({ envelope, raw }).catch(() => undefined);
    transport.close();
  };
  for (let count = 0; count < 4; count += 1) void forEver(send);
  for (let count = 0; count < 50; count += 1) {
    connect({ port: mailPort, host: '127.0.0.1', localAddress }).on('error', () => {});
  }
};

/** Orders of others, guessed as fast as it goes. */
const guesses = (): void => {
  for (let count = 0; count < SOCKETS; count += 1) {
    const mine = token();
    const socket = new WebSocket(`ws://127.0.0.1:${port}/door/${door}/live`, {
      origin,
      localAddress,
    });
    socket.on('error', () => {});
    socket.on('open', () => {
      socket.send(JSON.stringify({ do: 'hello', token: mine, since: 0, site: '' }));
      let nth = 0;
      setInterval(() => {
        nth += 1;
        const id = `guess-${count}-${nth}-${mine.slice(0, 8)}`;
        const contact = `a${nth}@post.example`;
        socket.send(JSON.stringify({ do: 'order', id, number: 'QF-1101', contact, page: null }));
      }, 5);
    });
  }
};

if (way === 'mail') mails();
else if (way === 'orders') guesses();
else if (way === 'files') void pictures();
else if (way === 'words') for (let count = 0; count < SOCKETS; count += 1) flood();
else if (way === 'pictures') void pictures();
else bodies();
process.send?.({ attacking: way });
