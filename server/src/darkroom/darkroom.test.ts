import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import sharp from 'sharp';
import { apartProcess } from '../apart/process';
import { createDarkroom, type Decoder, decoderInside, type StartDecoder } from './darkroom';
import { type Done, develop, type Job } from './work';

const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#2f6247' } });
const visitor = (sender: string) => ({ lane: 'visitors', sender }) as const;
const team = { lane: 'team', sender: 'maren' } as const;
const code = (asked: Promise<unknown>) =>
  asked.then(
    () => 'done',
    (error: Error) => error.message,
  );
const none = Buffer.from('none');
const done: Done = { refusal: { code: 'picture-unreadable' } };

/** Decoders that do nothing until they are told to; what they were asked, by the sender's mark in the bytes. */
const byHand = () => {
  const asked: string[] = [];
  const running: { finish: (done: Done | null) => void; isEnded: boolean }[] = [];
  const start: StartDecoder = (): Decoder => {
    const mine: (typeof running)[number][] = [];
    return {
      do: (job: Job) =>
        new Promise((resolve) => {
          asked.push(job.bytes.toString());
          const one = { finish: resolve, isEnded: false };
          mine.push(one);
          running.push(one);
        }),
      end: () => {
        for (const one of mine) one.isEnded = true;
      },
    };
  };
  const finish = async (): Promise<void> => {
    running.shift()?.finish(done);
    await new Promise((resolve) => setImmediate(resolve));
  };
  return { start, asked, running, finish };
};

describe('how much of a picture is opened', () => {
  it('depends on its format: a few bytes of AVIF unpack to any number of pixels, and slowly', async () => {
    const bomb = await picture(7_000, 7_000).avif({ quality: 1, effort: 0 }).toBuffer();
    expect(bomb.length).toBeLessThan(100_000);
    expect(await develop({ do: 'encode', bytes: bomb })).toEqual({
      refusal: { code: 'picture-takes-too-long' },
    });
    const jpeg = await picture(7_000, 7_000).jpeg({ quality: 1 }).toBuffer();
    expect(
      await develop({ do: 'cut', bytes: jpeg, crop: { left: 0, top: 0, side: 99 } }),
    ).toHaveProperty('face');
  });

  it('is all of it for a camera’s picture in any format', async () => {
    for (const format of ['jpeg', 'png', 'webp', 'avif', 'gif'] as const) {
      const bytes = await picture(800, 600).toFormat(format).toBuffer();
      expect(await develop({ do: 'encode', bytes })).toMatchObject({
        picture: { width: 800, height: 600 },
      });
    }
  });
});

describe('whoever sends many pictures', () => {
  it('has them opened beside everybody else’s from the first slow one on, for a while', async () => {
    let now = 0;
    const hand = byHand();
    const darkroom = createDarkroom(hand.start, 60_000, () => now);
    const sends = (sender: string, mark: string) =>
      code(darkroom.encode(Buffer.from(mark), visitor(sender)));
    const bombs = ['bomb 1', 'bomb 2', 'bomb 3'].map((mark) => sends('flood', mark));
    const before = sends('wren', 'wren 1');
    expect(hand.asked).toEqual(['bomb 1']);
    now += 500;
    await hand.finish();
    // What they had waiting has gone with them: nobody waits for it.
    expect([...hand.asked].sort()).toEqual(['bomb 1', 'bomb 2', 'wren 1']);
    await hand.finish();
    await hand.finish();
    expect(await before).toBe('picture-unreadable');
    bombs.push(sends('flood', 'bomb 4'));
    const after = sends('wren', 'wren 2');
    expect(hand.asked).toContain('wren 2');
    expect(hand.asked).not.toContain('bomb 4');
    while (hand.running.length > 0) await hand.finish();
    expect(await Promise.all([...bombs, after])).toHaveLength(5);
    now += 11 * 60_000;
    const calm = [sends('flood', 'small'), sends('wren', 'wren 3')];
    expect(hand.asked.at(-1)).toBe('small');
    while (hand.running.length > 0) await hand.finish();
    await Promise.all(calm);
    darkroom.end();
  });

  it('has one opened at a time, and the next is somebody else’s', async () => {
    const hand = byHand();
    const darkroom = createDarkroom(hand.start, 60_000);
    const sends = (sender: string, mark: string) =>
      code(darkroom.encode(Buffer.from(mark), visitor(sender)));
    const all = [
      sends('flood', 'flood 1'),
      sends('flood', 'flood 2'),
      sends('flood', 'flood 3'),
      sends('wren', 'wren 1'),
    ];
    expect(hand.asked).toEqual(['flood 1']);
    for (let count = 0; count < 4; count += 1) await hand.finish();
    expect(hand.asked).toEqual(['flood 1', 'wren 1', 'flood 2', 'flood 3']);
    await Promise.all(all);
  });

  it('holds nobody of the team up', async () => {
    const hand = byHand();
    const darkroom = createDarkroom(hand.start, 60_000);
    const flood = [1, 2, 3].map(() =>
      code(darkroom.encode(Buffer.from('flood'), visitor('flood'))),
    );
    const ours = code(darkroom.encode(Buffer.from('ours'), team));
    expect(hand.asked).toEqual(['flood', 'ours']);
    for (let count = 0; count < 4; count += 1) await hand.finish();
    await Promise.all([...flood, ours]);
  });

  it('is told to wait once enough of theirs lies there', async () => {
    const hand = byHand();
    const darkroom = createDarkroom(hand.start, 60_000);
    const sent = Array.from({ length: 9 }, () => code(darkroom.encode(none, visitor('flood'))));
    expect(await sent[8]).toBe('too-many');
    const wren = code(darkroom.encode(none, visitor('wren')));
    for (let count = 0; count < 12; count += 1) await hand.finish();
    expect(await wren).toBe('picture-unreadable');
    await Promise.all(sent);
  });
});

describe('a picture that takes too long', () => {
  it('is given up, its decoder ended, and the next gets a new one', async () => {
    const hand = byHand();
    const darkroom = createDarkroom(hand.start, 20);
    const slow = code(darkroom.encode(Buffer.from('slow'), visitor('a')));
    expect(await slow).toBe('picture-takes-too-long');
    expect(hand.running[0]?.isEnded).toBe(true);
    const next = code(darkroom.encode(Buffer.from('next'), visitor('a')));
    hand.running[1]?.finish(done);
    expect(await next).toBe('picture-unreadable');
  });

  it('that takes its decoder with it is refused, and the next is opened', async () => {
    let starts = 0;
    const darkroom = createDarkroom(() => {
      starts += 1;
      return starts === 1 ? { do: async () => null, end: () => {} } : decoderInside();
    }, 60_000);
    const bytes = await picture(9, 9).png().toBuffer();
    expect(await code(darkroom.encode(bytes, team))).toBe('picture-unreadable');
    expect(await code(darkroom.encode(bytes, team))).toBe('done');
  });
});

describe('a decoder in a process of its own', () => {
  let script: string;
  beforeAll(async () => {
    // Below the packages that it needs.
    mkdirSync('.built', { recursive: true });
    const outdir = mkdtempSync(join(process.cwd(), '.built/decoder-'));
    script = join(outdir, 'decoder.mjs');
    await build({
      entryPoints: ['server/src/darkroom/decoder.ts'],
      outfile: script,
      bundle: true,
      platform: 'node',
      format: 'esm',
      packages: 'external',
      alias: { '@porch/core/files': './core/files/index.ts' },
    });
  });
  afterAll(() => rmSync(join(script, '..'), { recursive: true, force: true }));

  it('does what is asked of it, one after the other, and ends in the middle of one', async () => {
    const darkroom = createDarkroom(apartProcess<Job, Done>(script), 60_000);
    const bytes = await picture(60, 40).png().toBuffer();
    const [one, two] = await Promise.all([
      darkroom.encode(bytes, team),
      darkroom.encode(bytes, team),
    ]);
    expect([one.width, two.height]).toEqual([60, 40]);
    expect(one.thumbnail.length).toBeGreaterThan(10);
    const large = await picture(6_000, 6_000).png().toBuffer();
    const given = code(darkroom.encode(large, team));
    await new Promise((resolve) => setImmediate(resolve));
    darkroom.end();
    expect(await given).toBe('picture-unreadable');
    expect(await code(darkroom.encode(bytes, team))).toBe('done');
    darkroom.end();
  });
});
