import { existsSync, readFileSync } from 'node:fs';

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

/**
 * Whether a write-ahead log is damaged in its middle. SQLite reads a log up to the first frame whose checksum is
 * wrong and silently forgets the rest: right for the torn end that a power cut leaves, and a loss where whole
 * commits stand behind it. Null: nothing is wrong, or there is no log. `bytes` is the file as it was found.
 */
export const damageOf = (bytes: Buffer): LogDamage | null => {
  if (bytes.length < HEADER_BYTES) return null;
  const magic = bytes.readUInt32BE(0);
  if (magic !== 0x377f0682 && magic !== 0x377f0683) return null;
  const isBig = magic === 0x377f0683;
  const frameBytes = FRAME_HEADER_BYTES + bytes.readUInt32BE(8);
  const salt = bytes.subarray(16, 24);
  let sum = checksum(bytes.subarray(0, 24), isBig, [0, 0]);
  if (sum[0] !== bytes.readUInt32BE(24) || sum[1] !== bytes.readUInt32BE(28)) return null;

  const frames = Math.floor((bytes.length - HEADER_BYTES) / frameBytes);
  const frameAt = (index: number): Buffer =>
    bytes.subarray(HEADER_BYTES + index * frameBytes, HEADER_BYTES + (index + 1) * frameBytes);
  // A frame with another salt is left over from an earlier use of the file.
  const isOfThisLog = (frame: Buffer): boolean => frame.subarray(8, 16).equals(salt);
  const endsACommit = (frame: Buffer): boolean => frame.readUInt32BE(4) !== 0;

  let read = 0;
  for (; read < frames; read += 1) {
    const frame = frameAt(read);
    if (!isOfThisLog(frame)) break;
    sum = checksum(frame.subarray(0, 8), isBig, sum);
    sum = checksum(frame.subarray(FRAME_HEADER_BYTES), isBig, sum);
    if (sum[0] !== frame.readUInt32BE(16) || sum[1] !== frame.readUInt32BE(20)) break;
  }
  for (let index = frames - 1; index > read; index -= 1) {
    const frame = frameAt(index);
    if (isOfThisLog(frame) && endsACommit(frame)) {
      return { readFrames: read, lostFrames: index - read + 1 };
    }
  }
  return null;
};

/** The same for the log beside a database file, before anybody opens that. */
export const damageBeside = (databasePath: string): LogDamage | null => {
  const path = `${databasePath}-wal`;
  return existsSync(path) ? damageOf(readFileSync(path)) : null;
};
