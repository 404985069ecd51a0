import { ImapFlow } from 'imapflow';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { until, visit } from '../../test-kit/panel';
import { openRealMailbox } from '../../test-kit/real-mailbox';

const minute = 60_000;

/** Waits for something that has to be asked for; fails after a minute. */
const untilAsync = async (isSo: () => Promise<boolean>): Promise<void> => {
  const deadline = Date.now() + 60_000;
  while (!(await isSo())) {
    if (Date.now() > deadline) throw new Error('waited a minute for nothing');
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
};

/** Against Dovecot from Debian's packages (RFC 3501 and 9051, RFC 5233 for the addresses). */
describe('answers that come by an ordinary mailbox', () => {
  let mailbox: Awaited<ReturnType<typeof openRealMailbox>>;
  let house: House;
  let maren: string;
  let publicId: string;

  const setMail = (password = 'right') =>
    house.ask('PUT', '/api/mail', {
      cookie: maren,
      body: {
        outgoing: {
          host: '127.0.0.1',
          port: 9,
          security: 'none',
          user: '',
          from: 'hello@quillfern.example',
        },
        incoming: {
          kind: 'mailbox',
          host: '127.0.0.1',
          port: mailbox.port(),
          security: 'none',
          user: 'hello',
          address: 'hello@quillfern.example',
        },
        outgoingPassword: null,
        incomingPassword: password,
      },
    });

  beforeAll(async () => {
    mailbox = await openRealMailbox();
  }, 120_000);
  afterAll(() => mailbox.close());

  beforeEach(async () => {
    house = await openHouse({ publicOrigin: 'http://porch.example' });
    const set = await setUp(house);
    maren = set.cookie;
    publicId = set.door.publicId;
    await setMail();
  });
  afterEach(() => house.close());

  const said = (): string[] =>
    house.store.entries
      .since(0, 500)
      .flatMap((entry) => (entry.kind === 'team-said' ? [entry.text] : []));
  const problem = async () =>
    (await house.ask('GET', '/api/mail', { cookie: maren })).body.mailboxProblem;
  /** Somebody waits; gives the address by which the owner answers them. */
  const replyAddress = async (who: string): Promise<string> => {
    await (await visit(house, publicId, who)).say('Hello');
    const talk = house.store.conversations.page('waiting', null, 5).at(-1)?.id ?? '';
    const owner = house.store.members.all()[0]?.id ?? '';
    const made = house.services.replyAddresses.make('hello@quillfern.example', talk, talk, owner);
    return made?.address ?? '';
  };
  const letter = (to: string, text: string, headers = ''): string =>
    `Return-Path: <maren@quillfern.example>\nFrom: Maren <maren@quillfern.example>\nTo: ${to}\nSubject: Re\nMessage-ID: <${text.replace(/\W/g, '')}@q.example>\n${headers}\n${text}\n`;
  const unseen = async (): Promise<number> => {
    const client = new ImapFlow({
      host: '127.0.0.1',
      port: mailbox.port(),
      secure: false,
      doSTARTTLS: false,
      auth: { user: 'hello', pass: 'right' },
      logger: false,
    });
    await client.connect();
    await client.mailboxOpen('INBOX');
    const found = (await client.search({ seen: false })) || [];
    await client.logout();
    return found.length;
  };

  it('are taken as they come, and what is not for us is left as it is', async () => {
    const to = await replyAddress('wren');
    expect(to).toMatch(/^hello\+[a-z2-7]{30}@quillfern\.example$/);
    mailbox.deliver(letter('hello@quillfern.example', 'An order for ferns'));
    mailbox.deliver(letter(to, 'Until four'));
    await until(() => (said().length > 0 ? true : undefined));
    // While it waits there, the next one comes.
    mailbox.deliver(letter(to, 'And on Sunday'));
    await until(() => (said().length > 1 ? true : undefined));
    expect(said()).toEqual(['Until four', 'And on Sunday']);
    await untilAsync(async () => (await unseen()) === 1);
  });

  it('are taken after the mailbox was away, once each', async () => {
    const to = await replyAddress('wren');
    await untilAsync(async () => (await problem()) === null);
    await mailbox.stop();
    mailbox.deliver(letter(to, 'From the pause'));
    await untilAsync(async () => {
      house.clock.advance(5 * minute);
      return (await problem()) === 'mail-unreachable';
    });
    await mailbox.start();
    await untilAsync(async () => {
      house.clock.advance(5 * minute);
      return said().length > 0;
    });
    expect(said()).toEqual(['From the pause']);
  });

  it('are taken later where they could not be written down, and hold up no other', async () => {
    const to = await replyAddress('wren');
    const append = house.store.entries.append.bind(house.store.entries);
    let failures = 0;
    const failing = jest.spyOn(house.store.entries, 'append').mockImplementation((...of) => {
      const [happening] = of.slice(-1);
      if (JSON.stringify(happening).includes('On a full disk')) {
        failures += 1;
        throw new Error('it cannot be written');
      }
      return append(...of);
    });
    mailbox.deliver(letter(to, 'On a full disk'));
    await until(() => (failures > 0 ? true : undefined));
    mailbox.deliver(letter(to, 'On Sunday'));
    await until(() => (said().length > 0 ? true : undefined));
    expect(said()).toEqual(['On Sunday']);
    failing.mockRestore();
    await untilAsync(async () => {
      house.clock.advance(5 * minute);
      return said().length > 1;
    });
    expect(said()).toEqual(['On Sunday', 'On a full disk']);
  });

  it('are held back where a program wrote them', async () => {
    const to = await replyAddress('wren');
    mailbox.deliver(letter(to, 'I am away', 'Auto-Submitted: auto-replied\n'));
    const held = () => house.store.entries.since(0, 500).find(({ kind }) => kind === 'held-back');
    expect(await until(held)).toMatchObject({ why: 'automatic' });
    expect(said()).toEqual([]);
  });

  it('stand beside mails to a door, taken from when it was opened on, read elsewhere or not', async () => {
    const heard = (): string[] =>
      house.store.entries
        .since(0, 500)
        .flatMap((entry) => (entry.kind === 'visitor-said' ? [entry.text] : []));
    const mailTo = (to: string, text: string) =>
      letter(to, text).replaceAll('maren@quillfern.example', 'wren@post.example');
    await untilAsync(async () => (await problem()) === null);
    house.clock.set(Date.now());
    const made = await house.ask('POST', '/api/network-doors', {
      cookie: maren,
      body: { kind: 'mail', name: 'Mail', given: { address: 'hello@quillfern.example' } },
    });
    const cameAt = new Date(house.clock.now() - minute);
    mailbox.deliver(mailTo('hello@quillfern.example', 'From before'), { cameAt });
    mailbox.deliver(mailTo('hello@quillfern.example', 'A new one'));
    await until(() => heard().includes('A new one') || undefined);
    await until(() => house.store.doors.mark(made.body.id) || undefined);
    const isRead = true;
    mailbox.deliver(mailTo('hello@quillfern.example', 'Read on another phone'), { isRead });
    mailbox.deliver(mailTo('somebody@quillfern.example', 'For somebody else'), { isRead });
    mailbox.deliver(mailTo('hello@quillfern.example', 'The last one'));
    await until(() => heard().includes('The last one') || undefined);
    expect(heard()).toEqual(['A new one', 'Read on another phone', 'The last one']);
    // After a break it goes on from where it was, though nothing is unread.
    await mailbox.stop();
    mailbox.deliver(mailTo('hello@quillfern.example', 'Read in the pause'), { isRead });
    await mailbox.start();
    await untilAsync(async () => {
      house.clock.advance(5 * minute);
      return heard().includes('Read in the pause');
    });
  });

  it('say what is wrong where nobody may look in', async () => {
    await setMail('wrong');
    await untilAsync(async () => (await problem()) === 'mail-sign-in');
    await setMail();
    await untilAsync(async () => (await problem()) === null);
  });
});
