import { rmSync } from 'node:fs';
import { connect, type Socket } from 'node:net';
import { dirname } from 'node:path';
import { MAIL_LARGEST_BYTES } from '@porch/contract/mail';
import { builtScript } from '../../test-kit/built';
import { type MailHouse, openMailHouse } from '../../test-kit/mailed';
import { until } from '../../test-kit/panel';
import { post } from '../../test-kit/post';
import { apartProcess } from '../apart/process';
import type { MailJob, ReadMail } from './read-mail';

const HELLO = 'hello@porch.example';
const wren = 'wren@post.example';

/** A client that says what a test says, and no more. */
const openClient = async (port: number, localAddress = '127.0.0.1') => {
  const socket: Socket = connect({ port, host: '127.0.0.1', localAddress });
  const heard: string[] = [];
  socket.on('data', (bytes) => heard.push(...bytes.toString().split('\r\n').filter(Boolean)));
  socket.on('error', () => undefined);
  const answers = (count: number) => until(() => (heard.length >= count ? true : undefined));
  let lines = 1;
  const say = async (line: string): Promise<void> => {
    socket.write(`${line}\r\n`);
    lines += 1;
    await answers(lines);
  };
  await until(() => (heard.length > 0 || socket.destroyed ? true : undefined));
  return {
    heard,
    socket,
    /** As far as the middle of a mail. */
    toData: async (): Promise<void> => {
      for (const line of ['HELO x', `MAIL FROM:<${wren}>`, `RCPT TO:<${HELLO}>`, 'DATA']) {
        await say(line);
      }
      socket.write('Subject: half\r\nFrom: ');
    },
  };
};

describe('mail that comes from anybody', () => {
  let script: string;
  let here: MailHouse;
  beforeAll(async () => {
    script = await builtScript('server/src/mail/mail-reader.ts');
  });
  afterAll(() => rmSync(dirname(script), { recursive: true, force: true }));
  beforeEach(async () => {
    here = await openMailHouse(
      { startMailReader: apartProcess<MailJob, ReadMail>(script, 256) },
      { mailLongestMs: 15_000 },
    );
    const given = { address: HELLO };
    const body = { kind: 'mail', name: 'Mail', given };
    const made = await here.house.ask('POST', '/api/network-doors', { cookie: here.cookie, body });
    expect(made.status).toBe(200);
  });
  afterEach(() => here.close());

  const texts = () => here.roll('visitor-said').map(({ text }) => text);
  const writes = (text: string, more: object = {}) =>
    post(here.ours, { from: wren, to: HELLO, subject: 'Hello', text, ...more });
  const raw = (lines: readonly string[]) => writes('', { raw: Buffer.from(lines.join('\r\n')) });

  it('is heard after a dozen clients were cut off in the middle of a mail', async () => {
    for (let nth = 0; nth < 12; nth += 1) {
      const client = await openClient(here.ours);
      await client.toData();
      // Of all of them more than one address may have in memory at a time.
      await new Promise((sent) => client.socket.write(Buffer.alloc(MAIL_LARGEST_BYTES / 2), sent));
      client.socket.destroy();
    }
    // What they had is free again: the largest mail that is taken has room.
    const large = await openClient(here.ours);
    await large.toData();
    const heardBefore = large.heard.length;
    large.socket.write(Buffer.alloc(MAIL_LARGEST_BYTES - 10_000));
    large.socket.write('\r\n.\r\n');
    await until(() => large.heard[heardBefore]);
    expect(large.heard[heardBefore]).not.toContain('4.3.2');
    large.socket.destroy();
    expect(await writes('Honest')).toMatch(/^250/);
    expect(texts()).toContain('Honest');
  });

  it('is not taken where its client is cut off before the end of it, however that ends', async () => {
    for (const cut of ['destroy', 'resetAndDestroy', 'end'] as const) {
      const client = await openClient(here.ours);
      await client.toData();
      const head = [`From: ${wren}`, `To: ${HELLO}`, 'Subject: half', 'Message-ID: <h@x.example>'];
      await new Promise((sent) =>
        client.socket.write(['', ...head, '', 'Half of what was to be s'].join('\r\n'), sent),
      );
      client.socket[cut]();
      await until(() => client.socket.closed || undefined);
    }
    expect(await writes('Honest')).toMatch(/^250/);
    expect(texts()).toEqual(['Honest']);
  });

  it('is heard while one address holds all that it may: idle, and in the middle of mails', async () => {
    const others = await Promise.all(
      Array.from({ length: 60 }, () => openClient(here.ours, '127.0.0.2')),
    );
    const isIn = others.map(({ heard }) => heard[0]?.startsWith('220') ?? false);
    expect(isIn.filter(Boolean)).toHaveLength(10);
    for (const [at, client] of others.entries()) if (isIn[at] && at % 2) await client.toData();
    expect(await writes('Honest')).toMatch(/^250/);
    for (const { socket } of others) socket.destroy();
    await until(() => others.every(({ socket }) => socket.destroyed) || undefined);
    const again = await openClient(here.ours, '127.0.0.2');
    expect(again.heard[0]).toMatch(/^220/);
    again.socket.destroy();
  });

  it('is heard from whoever has written before while strangers from many addresses hold all that strangers may', async () => {
    expect(await writes('Honest')).toMatch(/^250/);
    const strangers = await Promise.all(
      Array.from({ length: 110 }, (_none, nth) =>
        openClient(here.ours, `127.0.1.${1 + Math.floor(nth / 10)}`),
      ),
    );
    const isIn = strangers.filter(({ heard }) => heard[0]?.startsWith('220'));
    expect(isIn).toHaveLength(70);
    expect(await writes('Honest again')).toMatch(/^250/);
    expect(texts()).toEqual(['Honest', 'Honest again']);
    for (const { socket } of strangers) socket.destroy();
  });

  it('is noted as what cannot be read where reading it takes too much, and the next one comes', async () => {
    const parts = Array.from(
      { length: 1_001 },
      () => '--b\r\nContent-Type: application/octet-stream\r\n\r\nx\r\n',
    );
    const bomb = [
      `From: ${wren}`,
      `To: ${HELLO}`,
      'Subject: Many parts',
      'Message-ID: <bomb@post.example>',
      'MIME-Version: 1.0',
      'Content-Type: multipart/mixed; boundary=b',
      '',
      ...parts,
      '--b--',
    ];
    const [taken, next] = await Promise.all([
      raw(bomb),
      post(here.ours, { from: 'ada@post.example', to: HELLO, subject: 'Hi', text: 'Honest' }),
    ]);
    expect([taken, next].map((said) => said.slice(0, 3))).toEqual(['250', '250']);
    expect(texts()).toContain('Honest');
    const noted = here.roll('visitor-said').find(({ text }) => text !== 'Honest');
    expect(noted).toMatchObject({ text: '[unreadable]', subject: 'Many parts' });
    expect(noted?.files).toMatchObject([{ name: 'email.eml' }]);
  }, 90_000);

  it('freezes nobody with HTML that is nested ten thousand deep', async () => {
    const depth = 10_000;
    const html = `${'<div>'.repeat(depth)}Deep words${'</div>'.repeat(depth)}`;
    let longestMs = 0;
    const begun = performance.now();
    let last = begun;
    const beat = setInterval(() => {
      const now = performance.now();
      longestMs = Math.max(longestMs, now - last);
      last = now;
    }, 5);
    expect(await writes('', { html, text: undefined })).toMatch(/^250/);
    clearInterval(beat);
    const tookMs = performance.now() - begun;
    expect(texts()).toEqual(['Deep words']);
    // Read here, it would have held up everything for nearly as long as that took.
    expect(longestMs).toBeLessThan(tookMs / 2);
  });
});
