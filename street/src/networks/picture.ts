import { crc32, deflateSync } from 'node:zlib';

const SIDE = 96;

const chunk = (type: string, data: Buffer): Buffer => {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(data.length);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, sum]);
};

/** A made-up picture, of another green for each name: PNG (ISO/IEC 15948). */
export const pictureOf = (name: string): Buffer => {
  const seed = crc32(name);
  const rows = Buffer.alloc(SIDE * (SIDE * 3 + 1));
  for (let y = 0; y < SIDE; y += 1) {
    for (let x = 0; x < SIDE; x += 1) {
      const isLeaf = (x - SIDE / 2) ** 2 / 900 + (y - SIDE / 2) ** 2 / 1_800 < 1;
      const isVein = Math.abs(x - SIDE / 2) < 2;
      const at = y * (SIDE * 3 + 1) + 1 + x * 3;
      rows[at] = isLeaf ? (isVein ? 180 : 40 + (seed % 60)) : 241;
      rows[at + 1] = isLeaf ? 110 + ((seed >> 8) % 80) : 232;
      rows[at + 2] = isLeaf ? 60 + ((seed >> 16) % 50) : 216;
    }
  }
  const head = Buffer.alloc(13);
  head.writeUInt32BE(SIDE, 0);
  head.writeUInt32BE(SIDE, 4);
  head[8] = 8;
  head[9] = 2;
  return Buffer.concat([
    Buffer.from('89504e470d0a1a0a', 'hex'),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
};
