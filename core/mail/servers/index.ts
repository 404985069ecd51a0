/** Where mail is handed over to go out, or looked into as it comes in. */
export type MailWay = 'out' | 'in';

/** A mail server as a domain or its habits say: always encrypted. */
export interface MailServer {
  host: string;
  port: number;
  security: 'tls' | 'starttls';
}

/** The ports that go with each way and encryption (RFC 8314, 3.3 and 7.3; RFC 6409; RFC 9051). */
export const mailPorts: Readonly<
  Record<MailWay, Readonly<Record<MailServer['security'], number>>>
> = {
  out: { tls: 465, starttls: 587 },
  in: { tls: 993, starttls: 143 },
};

const securities = ['tls', 'starttls'] as const;

/** Under which names a domain says where its servers are, the better encryption first (RFC 6186, 3; RFC 8314, 5.1). */
export const mailServices = (
  way: MailWay,
  domain: string,
): { name: string; security: MailServer['security'] }[] => {
  const names = way === 'out' ? ['_submissions', '_submission'] : ['_imaps', '_imap'];
  return names.map((name, at) => ({
    name: `${name}._tcp.${domain}`,
    security: securities[at] ?? 'tls',
  }));
};

/** "co.uk": under it anybody has a name, so that nothing of one business is there. */
const isShared = (domain: string): boolean => {
  const labels = domain.split('.');
  const [second = '', top = ''] = labels.slice(-2);
  return labels.length < 2 || (labels.length === 2 && top.length === 2 && second.length <= 3);
};

/** The domains that whoever takes a domain's mail may be called by: "mx1.in.post.example" → in.post.example, post.example. */
const providersOf = (exchanger: string): string[] => {
  const labels = exchanger.split('.');
  return labels
    .map((_label, at) => labels.slice(at + 1).join('.'))
    .filter((domain) => domain.includes('.') && !isShared(domain));
};

const prefixes: Readonly<Record<MailWay, readonly string[]>> = {
  out: ['smtp', 'mail'],
  in: ['imap', 'mail'],
};

const GUESSES_MOST = 24;

/**
 * Where a domain's mail servers may be by habit, the likelier first: below the domain itself, and below that of whoever
 * takes its mail.
 *
 * @param exchangers hosts of its MX records (RFC 5321, 5), the preferred first
 */
export const guessedServers = (
  way: MailWay,
  domain: string,
  exchangers: readonly string[],
): MailServer[] => {
  const domains = [...new Set([domain, ...exchangers.flatMap(providersOf)])];
  return domains
    .flatMap((one) =>
      prefixes[way].flatMap((prefix) =>
        securities.map((security) => ({
          host: `${prefix}.${one}`,
          port: mailPorts[way][security],
          security,
        })),
      ),
    )
    .slice(0, GUESSES_MOST);
};
