import type { IncomingMail, MailSecurity } from '@porch/contract/mail';

export const en = {
  title: 'Mail',
  place: 'Mail',
  placeMore: 'How alerts go out by email, and how they are answered',
  simple: {
    title: 'Set up mail',
    more: 'Enter the email address of the business. Alerts and answers go out from it, and replies come back to it.',
    address: 'Email address',
    find: 'Find my mail servers',
    finding: 'Looking …',
    found: (out: string | null, incoming: string | null) =>
      [
        out ? `Mail goes out by ${out}.` : 'We found no server for outgoing mail.',
        incoming ? `Mail arrives at ${incoming}.` : 'We found no server for incoming mail.',
      ].join(' '),
    foundNone:
      'We found no mail servers for this address. Ask your email provider for their names, and enter them below.',
    isRight: 'Is this your provider? Then enter the password for this address.',
    password: 'Password',
    passwordMore: 'Some providers have a separate password for apps. We keep it encrypted.',
    setUp: 'Set up mail',
  },
  byHand: 'Enter the servers yourself',
  out: {
    title: 'Mail that goes out',
    more: 'By the server of your mail address: its provider says what to write here. Without it nothing is written by email.',
    isOn: 'Write alerts by email',
    host: 'Server',
    hostMore: 'As in smtp.post.example',
    port: 'Port',
    security: 'Encryption',
    securities: {
      tls: 'From the start (often 465)',
      starttls: 'After a greeting (often 587)',
      none: 'None',
    } satisfies Record<MailSecurity, string>,
    noneMore:
      'Without encryption everybody on the way can read along. Only for a server on this machine.',
    user: 'Sign-in name',
    userMore: 'Empty: nobody signs in.',
    password: 'Password',
    passwordKept: 'One is kept. Leave it empty to keep it.',
    from: 'From which address',
    fromMore: 'Your team sees it as the sender of alerts.',
    portWrong: 'A port is a number from 1 to 65535.',
    links: (origin: string) => `Links in emails lead to ${origin}.`,
    linksNear: (origin: string) =>
      `Links in emails lead to ${origin}. It only opens on this network. Open Hello Porch at the address everyone uses, and save here again. Or ask the person who looks after the server to set PUBLIC_ORIGIN.`,
    test: 'Send me a test',
    testDone: (to: string) => `It was taken. Look whether it has come to ${to}.`,
    testSaid: (said: string) => `The server said: ${said}`,
    whys: {
      'mail-unreachable':
        'The server cannot be reached. Check its name, the port and the encryption.',
      'mail-sign-in': 'The server does not take this sign-in name and password.',
      'mail-encryption': 'The connection could not be encrypted in this way. Try the other one.',
      'mail-refused': 'The server refused the mail.',
      'mail-later':
        'The server wants it later. Nothing is wrong here; alerts are tried again by themselves.',
    } as Record<string, string>,
  },
  in: {
    title: 'Answers by mail',
    more: 'Whoever gets an alert can answer it from any mail program, and the visitor gets the answer. Only the address that the alert went to can answer, for 14 days.',
    kind: 'How answers come in',
    kinds: {
      none: 'Not at all',
      own: 'By a port of this server',
      mailbox: 'By a mailbox',
    } satisfies Record<IncomingMail['kind'], string>,
    domain: 'Mail domain',
    domainMore: (port: number) =>
      `Answers go to replies+…@ this domain. Its MX record has to lead to this server, to port ${port} or one that is passed on to it.`,
    mailboxMore:
      'The server looks into it for answers and leaves everything else alone. The mailbox has to take addresses with a plus sign, as in hello+…@post.example; most do.',
    host: 'Mail server',
    hostMore: 'As in imap.post.example',
    address: 'Address of the mailbox',
    failing: (why: string) => `The mailbox cannot be looked into. ${why}`,
  },
};
