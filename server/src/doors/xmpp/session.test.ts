import type { AddressInfo } from 'node:net';
import { createServer, type Server, type Socket } from 'node:net';
import { createOutside, type Outside } from '../../security/outside';
import { isServer, openSession, type SignIn } from './session';

const stream = `<?xml version='1.0'?><stream:stream xmlns='jabber:client' xmlns:stream='http://etherx.jabber.org/streams' id='1' from='post.test' version='1.0'>`;
const features = (what: string): string => `<stream:features>${what}</stream:features>`;
const mechanisms = `<mechanisms xmlns='urn:ietf:params:xml:ns:xmpp-sasl'><mechanism>SCRAM-SHA-1</mechanism><mechanism>PLAIN</mechanism></mechanisms>`;

/** Servers that do as they should not; a well-kept one is in the door's own test. */
describe('a session with a server', () => {
  let server: Server;
  let sockets: Socket[];
  let heard: string;
  let says: (socket: Socket, text: string) => void;
  let signIn: SignIn;
  let near: Outside;

  beforeEach(async () => {
    sockets = [];
    heard = '';
    server = createServer((socket) => {
      sockets.push(socket);
      socket.on('error', () => undefined);
      socket.on('data', (data) => {
        heard += data;
        says(socket, String(data));
      });
    });
    await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
    const { port } = server.address() as AddressInfo;
    signIn = {
      address: 'shop@post.test',
      password: 'right',
      server: `127.0.0.1:${port}`,
      resource: 'here',
    };
    near = createOutside({ allowed: [`xmpp://127.0.0.1:${port}`] });
  });
  afterEach(async () => {
    for (const socket of sockets) socket.destroy();
    await new Promise((closed) => server.close(closed));
  });

  const whyNot = (outside: Outside = near): Promise<string> =>
    openSession(outside, signIn, () => undefined).then(
      () => 'opened',
      (error) => error.why,
    );
  const offers = (what: string) => (socket: Socket, text: string) => {
    if (text.includes('<stream:stream')) socket.write(stream + features(what));
  };

  it('tells no password to a server that does not encrypt', async () => {
    says = offers(mechanisms);
    const outside = { ...near, whereIs: async () => ({ address: '127.0.0.1', isNear: false }) };
    expect(await whyNot(outside)).toBe('network-unencrypted');
    expect(heard).not.toContain('<auth');
  });

  it('tells the password itself to nobody unencrypted, not even to one beside us', async () => {
    says = offers(mechanisms.replace('<mechanism>SCRAM-SHA-1</mechanism>', ''));
    expect(await whyNot()).toBe('network-unencrypted');
    expect(heard).not.toContain('<auth');
  });

  it('signs in as nobody at no server', async () => {
    says = offers(mechanisms.replaceAll(/SCRAM-SHA-1|PLAIN/g, 'ANONYMOUS'));
    expect(await whyNot()).toBe('network-unencrypted');
    expect(heard).not.toContain('<auth');
  });

  it('goes nowhere else, where a server sends it elsewhere', async () => {
    let visits = 0;
    const inside = createServer(() => {
      visits += 1;
    });
    await new Promise<void>((listening) => inside.listen(0, '127.0.0.1', listening));
    const { port } = inside.address() as AddressInfo;
    says = (socket) =>
      socket.write(
        `${stream}<stream:error><see-other-host xmlns='urn:ietf:params:xml:ns:xmpp-streams'>127.0.0.1:${port}</see-other-host></stream:error>`,
      );
    expect(await whyNot()).toBe('network-unreachable');
    expect(visits).toBe(0);
    await new Promise((closed) => inside.close(closed));
  });

  it.each([
    ['what is no XML', '</nothing><<<>'],
    ['no end of one element', `${stream}<message>${'a'.repeat(2_100_000)}`],
    ['nothing but an end', '</stream:stream>'],
  ])('ends where a server says %s', async (_what, said) => {
    says = (socket) => socket.write(said);
    expect(await whyNot()).toMatch(/^network-/);
  });

  it('looks for nothing in the network around us', async () => {
    expect(await whyNot(createOutside({ allowed: [] }))).toBe('network-inside');
    const byName = { ...signIn, server: 'localhost:5222' };
    await expect(
      openSession(createOutside({ allowed: [] }), byName, () => undefined),
    ).rejects.toMatchObject({ why: 'network-inside' });
  });

  it('finds the server where its domain says (RFC 2782), and where its name leads otherwise', async () => {
    const asked: string[] = [];
    const outside = (found: { name: string; port: number; priority: number }[]): Outside => {
      const made = createOutside({
        allowed: [],
        resolveService: async (name) => {
          asked.push(name);
          return found;
        },
        resolve: (name, _options, done) => {
          asked.push(name);
          done(new Error('nobody'), '', 0);
        },
      });
      return made;
    };
    const bySrv = { ...signIn, server: '' };
    const far = { name: 'far.example', port: 5_222, priority: 20 };
    const close = { name: 'close.example', port: 5_269, priority: 10 };
    for (const found of [[far, close], []]) {
      await openSession(outside(found), bySrv, () => undefined).catch(() => undefined);
    }
    const service = '_xmpp-client._tcp.post.test';
    expect(asked).toEqual([service, 'close.example', service, 'post.test']);
  });

  it.each([
    ['chat.post.example', true],
    ['chat.post.example:5222', true],
    ['[2001:db8::1]:5222', true],
    ['chat.post.example:0', false],
    ['chat.post.example:70000', false],
    ['https://chat.post.example', false],
    ['a b', false],
  ])('knows whether %s is where a server can be', (said, isOne) => {
    expect(isServer(said)).toBe(isOne);
  });
});
