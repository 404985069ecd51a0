import { once } from 'node:events';
import { type AddressInfo, createServer } from 'node:net';
import { openHouse, setUp } from '../../test-kit/house';
import { answersAt, findMailServers, type MailAsking } from './finding';

const nobody = () => Promise.reject(new Error('ENOTFOUND'));

/** A world in which these servers answer, as "host:port". */
const world = (there: readonly string[], change: Partial<MailAsking> = {}): MailAsking => ({
  services: nobody,
  exchangers: nobody,
  reaches: async ({ host, port }) => there.includes(`${host}:${port}`),
  ...change,
});

describe('the mail servers of an address', () => {
  it('are those that its domain says, in the order that it wants', async () => {
    const found = await findMailServers(
      'Hello@Quillfern.example',
      world(['b.post.example:465', 'a.post.example:465', 'c.post.example:1993'], {
        services: async (name) =>
          name === '_submissions._tcp.quillfern.example'
            ? [
                { name: 'b.post.example', port: 465, priority: 20 },
                { name: 'a.post.example', port: 465, priority: 10 },
              ]
            : name === '_imaps._tcp.quillfern.example'
              ? [{ name: 'c.post.example', port: 1_993, priority: 0 }]
              : nobody(),
      }),
    );
    expect(found.outgoing).toEqual({ host: 'a.post.example', port: 465, security: 'tls' });
    expect(found.incoming).toEqual({ host: 'c.post.example', port: 1_993, security: 'tls' });
  });

  it('are guessed where it says nothing: of those that answer the likeliest', async () => {
    const exchangers = async () => [
      { exchange: 'MX2.other.example', priority: 20 },
      { exchange: 'mx.post.example', priority: 10 },
    ];
    const found = await findMailServers(
      'hello@quillfern.example',
      world(['smtp.post.example:587', 'mail.quillfern.example:143', 'imap.post.example:993'], {
        exchangers,
      }),
    );
    expect(found.outgoing).toEqual({ host: 'smtp.post.example', port: 587, security: 'starttls' });
    expect(found.incoming).toMatchObject({ host: 'mail.quillfern.example', security: 'starttls' });
  });

  it('are not guessed past what the domain says: “.” is no server', async () => {
    const found = await findMailServers(
      'hello@quillfern.example',
      world(['smtp.quillfern.example:465'], {
        services: async (name) =>
          name === '_submission._tcp.quillfern.example'
            ? [{ name: 'gone.post.example', port: 587, priority: 0 }]
            : [{ name: '.', port: 0, priority: 0 }],
      }),
    );
    expect(found.outgoing).toBeNull();
  });

  it.each([
    ['one that greets', 'starttls', '220 post.example ready\r\n', true],
    ['none that only listens', 'starttls', null, false],
    ['none whose certificate is not for its name', 'tls', '220 post.example ready\r\n', false],
  ] as const)('are %s', async (_what, security, greeting, isThere) => {
    const server = createServer((socket) => {
      socket.on('error', () => undefined);
      if (greeting) socket.write(greeting);
    }).listen(0, '127.0.0.1');
    await once(server, 'listening');
    const { port } = server.address() as AddressInfo;
    const asked = answersAt(
      { host: 'post.example', port, security },
      '127.0.0.1',
      isThere ? 20_000 : 300,
    );
    expect(await asked).toBe(isThere);
    server.close();
  });

  it('are found by owners only, a dozen times a minute, for what looks like an address', async () => {
    const house = await openHouse({}, ':memory:', {
      mailAsking: world(['smtp.quillfern.example:465']),
    });
    const { cookie } = await setUp(house);
    const find = (address: string) =>
      house.ask('POST', '/api/mail/find', { cookie, body: { address } });
    expect((await find('nonsense')).body).toMatchObject({
      code: 'email-not-understood',
      field: 'address',
    });
    expect((await find('hello@quillfern.example')).body).toEqual({
      address: 'hello@quillfern.example',
      outgoing: { host: 'smtp.quillfern.example', port: 465, security: 'tls' },
      incoming: null,
    });
    for (let nth = 0; nth < 12; nth += 1) await find('hello@quillfern.example');
    expect((await find('hello@quillfern.example')).body.code).toBe('too-many');
    await house.close();
  });
});
