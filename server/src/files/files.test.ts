import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { createDarkroom, decoderInside } from '../darkroom/darkroom';
import { takeIn as takeInFrom } from './intake';

const darkroom = createDarkroom(decoderInside, 60_000);
const takeIn = (name: string, bytes: Buffer) =>
  takeInFrom(darkroom, name, bytes, { lane: 'team', sender: 'somebody' });

const picture = (width: number, height: number, format: 'png' | 'jpeg' = 'png') =>
  sharp({ create: { width, height, channels: 3, background: '#2f6247' } })
    .withExif({ IFD0: { Copyright: 'where it was taken' } })
    [format]()
    .toBuffer();

const code = async (name: string, bytes: Buffer): Promise<string> => {
  try {
    await takeIn(name, bytes);
    return 'taken';
  } catch (error) {
    return (error as Error).message;
  }
};

const crc = (bytes: Buffer): number => {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit += 1)
      value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return (value ^ 0xffffffff) >>> 0;
};

const chunk = (type: string, data: Buffer): Buffer => {
  const body = Buffer.concat([Buffer.from(type), data]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const check = Buffer.alloc(4);
  check.writeUInt32BE(crc(body));
  return Buffer.concat([length, body, check]);
};

/** A PNG of a few kilobytes that claims to unpack to gigabytes (PNG specification, 5 and 11.2). */
const bomb = (side: number): Buffer => {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header.set([8, 0, 0, 0, 0], 8);
  const data = deflateSync(Buffer.alloc(1_000_000));
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', data),
    chunk('IEND', Buffer.alloc(0)),
  ]);
};

describe('a file that comes in', () => {
  it('is encoded anew when it is a picture: smaller, upright, without what a camera wrote into it', async () => {
    const taken = await takeIn('fern.PNG', await picture(4_000, 1_000, 'jpeg'));
    expect(taken).toMatchObject({
      type: 'image/jpeg',
      width: 2_560,
      height: 640,
      name: 'fern.jpg',
    });
    const kept = await sharp(taken.whole).metadata();
    expect([kept.exif, kept.xmp, kept.icc]).toEqual([undefined, undefined, undefined]);
    expect((await sharp(taken.thumbnail ?? Buffer.alloc(0)).metadata()).width).toBe(640);
    expect(taken.whole.includes('where it was taken')).toBe(false);
  });

  it('is turned upright as its camera said', async () => {
    const lying = await sharp(await picture(40, 20, 'jpeg'))
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect(await takeIn('a.jpg', lying)).toMatchObject({ width: 20, height: 40 });
  });

  it('keeps what is transparent', async () => {
    const clear = await sharp({ create: { width: 9, height: 9, channels: 4, background: '#0000' } })
      .png()
      .toBuffer();
    expect((await takeIn('a.png', clear)).type).toBe('image/png');
  });

  it.each([
    ['10,001 pixels wide', async () => picture(10_001, 10)],
    ['a bomb: a small file that claims to be 30,000 pixels square', async () => bomb(30_000)],
    ['a bomb within the longest side', async () => bomb(9_999)],
  ])('is refused as too large when it is %s', async (_name, make) => {
    expect(await code('a.png', await make())).toBe('picture-too-large');
  });

  it.each([
    ['a program', Buffer.from('7f454c4602010100', 'hex')],
    ['a page with a script', Buffer.from('<html><script>alert(1)</script>')],
    [
      'a drawing that may run scripts',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>'),
    ],
    ['cut off', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex')],
  ])('is refused as unreadable when it is called a picture and is %s', async (_name, bytes) => {
    expect(await code('holiday.png', bytes)).toBe('picture-unreadable');
  });

  it('is kept as it came when it is anything else, under a name without a path', async () => {
    const taken = await takeIn('../../etc/\u202Epasswd.txt', Buffer.from('words'));
    expect(taken).toMatchObject({ type: 'application/octet-stream', width: null, thumbnail: null });
    expect(taken.name).not.toMatch(/[/\\\u202E]/);
    expect(taken.whole.toString()).toBe('words');
  });

  it('is refused when it is empty or one byte too large', async () => {
    expect(await code('a.txt', Buffer.alloc(0))).toBe('file-empty');
    expect(await code('a.txt', Buffer.alloc(10 * 1024 * 1024 + 1))).toBe('too-large');
    expect(await code('a.txt', Buffer.alloc(10 * 1024 * 1024))).toBe('taken');
  });
});
