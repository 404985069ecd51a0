import sharp from 'sharp';
import { type House, openHouse, setUp } from '../../test-kit/house';

const painted = (width: number, height: number, background: string): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background } })
    .png()
    .toBuffer();

describe('faces and the business\u2019s picture', () => {
  let house: House;
  let cookie: string;
  beforeEach(async () => {
    house = await openHouse();
    ({ cookie } = await setUp(house));
  });
  afterEach(() => house.close());

  const send = (path: string, body: Buffer) =>
    house.ask('PUT', path, {
      cookie,
      body,
      headers: { 'content-type': 'application/octet-stream' },
    });

  it('keeps the square that was cut out, encoded anew, where anybody may see it', async () => {
    const left = await painted(300, 400, '#ff0000');
    const wide = await sharp({
      create: { width: 600, height: 400, channels: 3, background: '#0000ff' },
    })
      .composite([{ input: left, left: 0, top: 0 }])
      .jpeg({ quality: 100 })
      .withExif({ IFD0: { Copyright: 'a secret place' } })
      .toBuffer();
    const { body } = await send('/api/business/picture?left=0&top=50&side=300&shape=round', wide);
    expect(body).toMatchObject({ pictureShape: 'round' });
    const shown = await house.ask('GET', `/pictures/${body.pictureId}`);
    expect(shown.headers['content-type']).toBe('image/webp');
    const { data, info } = await sharp(shown.bytes).raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([320, 320]);
    expect(data[0]).toBeGreaterThan(240);
    expect(shown.bytes.includes('a secret place')).toBe(false);
    const colours = (await house.ask('GET', '/api/business/colours', { cookie })).body;
    expect(colours.accent).toMatch(/^#F/);
  });

  it('refuses what is no picture, or too large, in plain codes', async () => {
    const at = '/api/me/picture?left=0&top=0&side=10';
    expect((await send(at, Buffer.from('MZ a program'))).body.code).toBe('picture-unreadable');
    expect((await send(at, Buffer.alloc(11 * 1024 * 1024))).body.code).toBe('too-large');
    expect((await send(at, (await painted(40, 40, '#123456')).subarray(0, 60))).body.code).toBe(
      'picture-unreadable',
    );
    const kept = await send(at, await painted(40, 30, '#123456'));
    expect(kept.body.pictureId).toMatch(/^[0-9a-f]{32}$/);
    await house.ask('DELETE', '/api/me/picture', { cookie });
    const { body } = await house.ask('GET', '/api/house', { cookie });
    expect(body.me.pictureId).toBeNull();
  });
});
