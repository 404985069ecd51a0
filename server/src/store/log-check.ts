import {
  closeSync,
  existsSync,
  fsyncSync,
  openSync,
  readFileSync,
  readSync,
  writeSync,
} from 'node:fs';

/** How a log begins: the order of the bytes in its checksums, and the format ("WAL File Format", 4.1). */
const MAGIC_LITTLE = 0x377f0682;
const MAGIC_BIG = 0x377f0683;
const FORMAT = 3_007_000;
const HEADER_BYTES = 32;
const FRAME_HEADER_BYTES = 24;

type Sum = readonly [number, number];

/** The checksum of SQLite's write-ahead log ("WAL File Format", section 4.2). */
const checksum = (bytes: Buffer, isBig: boolean, [first, second]: Sum): Sum => {
  let a = first;
  let b = second;
  for (let at = 0; at < bytes.length; at += 8) {
    const x = isBig ? bytes.readUInt32BE(at) : bytes.readUInt32LE(at);
    const y = isBig ? bytes.readUInt32BE(at + 4) : bytes.readUInt32LE(at + 4);
    a = (a + x + b) >>> 0;
    b = (b + y + a) >>> 0;
  }
  return [a, b];
};

export interface LogDamage {
  /** How many pages of the log were read before it, and how many lie behind it unread. */
  readFrames: number;
  lostFrames: number;
}

/** A log as it lies on the disk, cut into its frames. */
interface Log {
  frames: number;
  frameAt: (index: number) => Buffer;
}

const cut = (bytes: Buffer, pageBytes: number): Log => {
  const frameBytes = FRAME_HEADER_BYTES + pageBytes;
  const at = (index: number): number => HEADER_BYTES + index * frameBytes;
  return {
    frames: Math.floor((bytes.length - HEADER_BYTES) / frameBytes),
    frameAt: (index) => bytes.subarray(at(index), at(index + 1)),
  };
};

const saltOf = (frame: Buffer): Buffer => frame.subarray(8, 16);
const endsACommit = (frame: Buffer): boolean => frame.readUInt32BE(4) !== 0;

const sumThrough = (frame: Buffer, isBig: boolean, sum: Sum): Sum =>
  checksum(frame.subarray(FRAME_HEADER_BYTES), isBig, checksum(frame.subarray(0, 8), isBig, sum));

const isSum = (sum: Sum, bytes: Buffer, at: number): boolean =>
  sum[0] === bytes.readUInt32BE(at) && sum[1] === bytes.readUInt32BE(at + 4);

const isBigIn = (header: Buffer): boolean | null => {
  const magic = header.readUInt32BE(0);
  return magic === MAGIC_BIG ? true : magic === MAGIC_LITTLE ? false : null;
};

const isHeaderSound = (header: Buffer): boolean => {
  const isBig = isBigIn(header);
  if (isBig === null) return false;
  return isSum(checksum(header.subarray(0, 24), isBig, [0, 0]), header, 24);
};

/** By a header that cannot be read SQLite forgets the whole log: how many frames of it end with a commit. */
const behindHeader = (bytes: Buffer, pageBytes: number): number => {
  const { frames, frameAt } = cut(bytes, pageBytes);
  if (frames === 0) return 0;
  const salt = saltOf(frameAt(0));
  for (let index = frames - 1; index >= 0; index -= 1) {
    const frame = frameAt(index);
    const isPage = frame.readUInt32BE(0) > 0;
    if (isPage && saltOf(frame).equals(salt) && endsACommit(frame)) return index + 1;
  }
  return 0;
};

/** Logs of a server that ran for years were begun anew no oftener. */
const ROUNDS_MOST = 50_000;

/**
 * The header that a log must have had, where its own cannot be read: every part of it but its round is known from
 * elsewhere, and the first frame's checksum proves it. Null: there is none that fits.
 */
const headerAgain = (bytes: Buffer, pageBytes: number): Buffer | null => {
  const { frames, frameAt } = cut(bytes, pageBytes);
  if (frames === 0) return null;
  const first = frameAt(0);
  const header = Buffer.alloc(HEADER_BYTES);
  header.writeUInt32BE(FORMAT, 4);
  header.writeUInt32BE(pageBytes, 8);
  saltOf(first).copy(header, 16);
  const fits = (magic: number, round: number): boolean => {
    header.writeUInt32BE(magic, 0);
    header.writeUInt32BE(round, 12);
    const isBig = magic === MAGIC_BIG;
    const sum = checksum(header.subarray(0, 24), isBig, [0, 0]);
    header.writeUInt32BE(sum[0], 24);
    header.writeUInt32BE(sum[1], 28);
    return isSum(sumThrough(first, isBig, sum), first, 16);
  };
  for (const magic of [MAGIC_LITTLE, MAGIC_BIG]) {
    if (fits(magic, bytes.readUInt32BE(12))) return header;
  }
  for (let round = 0; round < ROUNDS_MOST; round += 1) {
    if (fits(MAGIC_LITTLE, round)) return header;
  }
  return null;
};

/** How large a database's pages are (SQLite, "Database File Format", 1.3.2). */
const pageBytesOf = (head: Buffer): number => {
  const written = head.length >= 18 ? head.readUInt16BE(16) : 0;
  return written === 1 ? 65_536 : written >= 512 ? written : 4_096;
};

/**
 * Whether a write-ahead log is damaged in its middle. SQLite reads a log up to the first frame whose checksum is
 * wrong and silently forgets the rest: right for the torn end that a power cut leaves, and a loss where whole
 * commits stand behind it. Null: nothing is wrong, or there is no log. `bytes` is the file as it was found.
 */
export const damageOf = (bytes: Buffer, pageBytes = 4_096): LogDamage | null => {
  if (bytes.length < HEADER_BYTES) return null;
  const isBig = isBigIn(bytes);
  if (isBig === null || !isHeaderSound(bytes)) {
    const lostFrames = behindHeader(bytes, pageBytes);
    return lostFrames > 0 ? { readFrames: 0, lostFrames } : null;
  }
  const salt = bytes.subarray(16, 24);
  const { frames, frameAt } = cut(bytes, bytes.readUInt32BE(8));
  // A frame with another salt is left over from an earlier use of the file.
  const isOfThisLog = (frame: Buffer): boolean => saltOf(frame).equals(salt);

  let sum = checksum(bytes.subarray(0, 24), isBig, [0, 0]);
  let read = 0;
  for (; read < frames; read += 1) {
    const frame = frameAt(read);
    if (!isOfThisLog(frame)) break;
    sum = sumThrough(frame, isBig, sum);
    if (!isSum(sum, frame, 16)) break;
  }
  for (let index = frames - 1; index > read; index -= 1) {
    const frame = frameAt(index);
    if (isOfThisLog(frame) && endsACommit(frame)) {
      return { readFrames: read, lostFrames: index - read + 1 };
    }
  }
  return null;
};

const headOf = (path: string, length: number): Buffer => {
  if (!existsSync(path)) return Buffer.alloc(0);
  const file = openSync(path, 'r');
  try {
    const head = Buffer.alloc(length);
    return head.subarray(0, readSync(file, head, 0, length, 0));
  } finally {
    closeSync(file);
  }
};

/**
 * The same for the log beside a database file, before anybody opens that. Where nothing but the header is damaged it is
 * written anew, and nothing is lost.
 */
export const damageBeside = (databasePath: string): LogDamage | null => {
  const path = `${databasePath}-wal`;
  if (!existsSync(path)) return null;
  const bytes = readFileSync(path);
  const pageBytes = pageBytesOf(headOf(databasePath, 100));
  const damage = damageOf(bytes, pageBytes);
  if (!damage || isHeaderSound(bytes)) return damage;
  const header = headerAgain(bytes, pageBytes);
  if (!header) return damage;
  const file = openSync(path, 'r+');
  writeSync(file, header, 0, header.length, 0);
  fsyncSync(file);
  closeSync(file);
  header.copy(bytes);
  return damageOf(bytes, pageBytes);
};
