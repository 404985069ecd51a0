import {
  createDecipheriv,
  createECDH,
  createPublicKey,
  hkdfSync,
  randomBytes,
  verify,
} from 'node:crypto';

/** What a browser keeps of a subscription: a pair of keys on P-256 and 16 bytes (RFC 8291, 3.1 and 3.2). */
export interface DeviceKeys {
  /** 32 bytes. */
  privateKey: Buffer;
  /** 65 bytes, uncompressed. */
  publicKey: Buffer;
  auth: Buffer;
}

export const newDeviceKeys = (): DeviceKeys => {
  const pair = createECDH('prime256v1');
  pair.generateKeys();
  return keysFrom(pair.getPrivateKey(), randomBytes(16));
};

export const keysFrom = (privateKey: Buffer, auth: Buffer): DeviceKeys => {
  const pair = createECDH('prime256v1');
  pair.setPrivateKey(privateKey);
  return { privateKey, publicKey: pair.getPublicKey(), auth };
};

const KEY_BYTES = 16;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;
const SALT_BYTES = 16;

const derive = (secret: Buffer, salt: Buffer, info: Buffer, length: number): Buffer =>
  Buffer.from(hkdfSync('sha256', secret, salt, info, length));

/** The header of a body in aes128gcm (RFC 8188, 2.1). */
const readHeader = (body: Buffer) => {
  const recordBytes = body.readUInt32BE(SALT_BYTES);
  const idLength = body.readUInt8(SALT_BYTES + 4);
  const start = SALT_BYTES + 5;
  return {
    salt: body.subarray(0, SALT_BYTES),
    recordBytes,
    keyId: body.subarray(start, start + idLength),
    records: body.subarray(start + idLength),
  };
};

/** One record without its padding (RFC 8188, 2.2): 2 ends the last one, 1 any other. */
const openRecord = (record: Buffer, key: Buffer, nonce: Buffer, isLast: boolean): Buffer => {
  const decipher = createDecipheriv('aes-128-gcm', key, nonce);
  decipher.setAuthTag(record.subarray(-TAG_BYTES));
  const sealed = record.subarray(0, -TAG_BYTES);
  const padded = Buffer.concat([decipher.update(sealed), decipher.final()]);
  const end = padded.findLastIndex((byte) => byte !== 0);
  if (padded[end] !== (isLast ? 2 : 1)) throw new Error('a record ends wrongly');
  return padded.subarray(0, end);
};

/** Opens a body in aes128gcm with its input keying material (RFC 8188, 2). Throws where anything is wrong with it. */
export const openContent = (body: Buffer, material: (keyId: Buffer) => Buffer): Buffer => {
  const { salt, recordBytes, keyId, records } = readHeader(body);
  const secret = material(keyId);
  const key = derive(secret, salt, Buffer.from('Content-Encoding: aes128gcm\0'), KEY_BYTES);
  const base = derive(secret, salt, Buffer.from('Content-Encoding: nonce\0'), NONCE_BYTES);
  const opened: Buffer[] = [];
  for (let at = 0, count = 0; at < records.length; at += recordBytes, count += 1) {
    const nonce = Buffer.from(base);
    nonce.writeUInt32BE((nonce.readUInt32BE(NONCE_BYTES - 4) ^ count) >>> 0, NONCE_BYTES - 4);
    const isLast = at + recordBytes >= records.length;
    opened.push(openRecord(records.subarray(at, at + recordBytes), key, nonce, isLast));
  }
  return Buffer.concat(opened);
};

/** Opens what was pushed to a device (RFC 8291, 3.4): the sender's public key is the key id. */
export const openPush = (body: Buffer, { privateKey, publicKey, auth }: DeviceKeys): Buffer =>
  openContent(body, (senderKey) => {
    const pair = createECDH('prime256v1');
    pair.setPrivateKey(privateKey);
    const shared = pair.computeSecret(senderKey);
    const info = Buffer.concat([Buffer.from('WebPush: info\0'), publicKey, senderKey]);
    return derive(shared, auth, info, 32);
  });

const jsonOf = (part: string): Record<string, unknown> =>
  JSON.parse(Buffer.from(part, 'base64url').toString('utf8'));

const SPKI_OF_P256 = Buffer.from('3059301306072a8648ce3d020106082a8648ce3d030107034200', 'hex');

export interface Sender {
  /** The sender's public key, base64url. */
  key: string;
  aud: string;
  exp: number;
  sub: string;
}

const DAY_SECONDS = 24 * 3_600;

/**
 * Who sends, by the header `Authorization` (RFC 8292, 2 and 3; RFC 7515, ES256); null where the token is not
 * theirs, not for this service, over, or good for longer than a day.
 */
export const senderOf = (header: string, origin: string, nowSeconds: number): Sender | null => {
  const [, token, key] = /^vapid t=([\w.-]+), ?k=([\w-]+)$/.exec(header) ?? [];
  const [head, claims, signature] = token?.split('.') ?? [];
  if (!head || !claims || !signature || !key) return null;
  const publicKey = createPublicKey({
    key: Buffer.concat([SPKI_OF_P256, Buffer.from(key, 'base64url')]),
    format: 'der',
    type: 'spki',
  });
  const isSigned = verify(
    'sha256',
    Buffer.from(`${head}.${claims}`),
    { key: publicKey, dsaEncoding: 'ieee-p1363' },
    Buffer.from(signature, 'base64url'),
  );
  const { aud, exp, sub } = jsonOf(claims) as { aud: string; exp: number; sub: string };
  const isMeant = aud === origin && exp > nowSeconds && exp <= nowSeconds + DAY_SECONDS;
  return isSigned && jsonOf(head).alg === 'ES256' && isMeant ? { key, aud, exp, sub } : null;
};
