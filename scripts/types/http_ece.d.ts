/** Encrypted content encoding (RFC 8188, RFC 8291): as much of it as tests use. */
declare module 'http_ece' {
  interface Ways {
    version: 'aes128gcm';
    dh: string;
    privateKey: import('node:crypto').ECDH;
    authSecret: string;
  }
  const ece: {
    encrypt(text: Buffer, ways: Ways): Buffer;
    decrypt(body: Buffer, ways: Omit<Ways, 'dh'>): Buffer;
  };
  export default ece;
}
