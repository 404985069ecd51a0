import { guessedServers, mailPorts, mailServices } from '.';

describe('where a domain’s mail servers are', () => {
  // RFC 6186, 3.1 and 3.2; RFC 8314, 5.1.
  it('is said by the domain under these names, the better encryption first', () => {
    expect(mailServices('out', 'post.example').map(({ name }) => name)).toEqual([
      '_submissions._tcp.post.example',
      '_submission._tcp.post.example',
    ]);
    expect(mailServices('in', 'post.example')).toEqual([
      { name: '_imaps._tcp.post.example', security: 'tls' },
      { name: '_imap._tcp.post.example', security: 'starttls' },
    ]);
  });

  // RFC 8314, 7.3: 465 for submissions; RFC 6409, 3.1: 587; RFC 9051, 2.1: 993 and 143.
  it('has the ports of the standards', () => {
    expect(mailPorts).toEqual({
      out: { tls: 465, starttls: 587 },
      in: { tls: 993, starttls: 143 },
    });
  });

  it('is guessed below the domain, then below that of whoever takes its mail', () => {
    const hosts = guessedServers('in', 'quillfern.example', ['mx1.in.post.example']).map(
      ({ host, port }) => `${host}:${port}`,
    );
    expect(hosts).toEqual([
      'imap.quillfern.example:993',
      'imap.quillfern.example:143',
      'mail.quillfern.example:993',
      'mail.quillfern.example:143',
      'imap.in.post.example:993',
      'imap.in.post.example:143',
      'mail.in.post.example:993',
      'mail.in.post.example:143',
      'imap.post.example:993',
      'imap.post.example:143',
      'mail.post.example:993',
      'mail.post.example:143',
    ]);
  });

  it('is never guessed where anybody may have a name', () => {
    const hosts = guessedServers('out', 'fern.co.uk', ['mx.provider.co.uk', 'mx.example']).map(
      ({ host }) => host,
    );
    expect(hosts).toContain('smtp.provider.co.uk');
    expect(hosts).not.toContain('smtp.co.uk');
    expect(hosts).not.toContain('smtp.example');
  });

  it('is bounded, however many there are', () => {
    const many = Array.from({ length: 50 }, (_, nth) => `mx.p${nth}.example`);
    expect(guessedServers('out', 'post.example', many)).toHaveLength(24);
  });
});
