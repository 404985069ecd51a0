import { bareMail, headOf } from './read-mail';
import { readHead, readMail } from './reading';

const mail = (lines: readonly string[]) => Buffer.from(lines.join('\r\n'));
const head = ['From: Wren <wren@post.example>', 'To: hello@porch.example', 'Subject: Ferns'];
const wordy = 'The ferns that I ordered have not come, and on Friday we move to another town.';

describe('what a mail says', () => {
  it.each<[string, string[], string]>([
    [
      'a plain part that is only a word in the place of the other form',
      [
        'MIME-Version: 1.0',
        'Content-Type: multipart/alternative; boundary=b',
        '',
        '--b',
        'Content-Type: text/plain',
        '',
        'See the HTML part.',
        '--b',
        'Content-Type: text/html',
        '',
        `<p>${wordy}</p>`,
        '--b--',
      ],
      wordy,
    ],
    [
      'a boundary that does not fit',
      [
        'MIME-Version: 1.0',
        'Content-Type: multipart/mixed; boundary=right',
        '',
        '--wrong',
        'Content-Type: text/plain; charset=utf-8',
        '',
        wordy,
        '--wrong--',
      ],
      wordy,
    ],
    [
      'what was signed in the open',
      [
        '',
        '-----BEGIN PGP SIGNED MESSAGE-----',
        'Hash: SHA256',
        '',
        wordy,
        '-----BEGIN PGP SIGNATURE-----',
        '',
        'iHUEARYKAB0WIQ',
        '-----END PGP SIGNATURE-----',
      ],
      wordy,
    ],
    [
      'deep HTML, with nothing invented',
      [
        'MIME-Version: 1.0',
        'Content-Type: text/html',
        '',
        `${'<div>'.repeat(3_000)}${wordy}${'</div>'.repeat(3_000)}`,
      ],
      wordy,
    ],
  ])('is read in spite of %s', async (_what, lines, said) => {
    const read = await readMail(mail([...head, ...lines]));
    expect(read).toMatchObject({ said, isUnreadable: false });
  });

  it('is read in UTF-16', async () => {
    const lines = [...head, 'MIME-Version: 1.0', 'Content-Type: text/plain; charset=utf-16le'];
    const encoded = Buffer.from(wordy, 'utf16le').toString('base64');
    const bytes = mail([...lines, 'Content-Transfer-Encoding: base64', '', encoded]);
    expect((await readMail(bytes)).said).toBe(wordy);
  });

  it('is the plain part where the other form has a long signature besides', async () => {
    const lines = [
      'MIME-Version: 1.0',
      'Content-Type: multipart/alternative; boundary=b',
      '',
      '--b',
      'Content-Type: text/plain',
      '',
      'Yes, two.',
      '--b',
      'Content-Type: text/html',
      '',
      '<p>Yes, <b>two</b>.</p><p>Wren Ash, Ash and Daughters, 12 Mill Lane, makers of fine pots</p>',
      '--b--',
    ];
    expect((await readMail(mail([...head, ...lines]))).said).toBe('Yes, two.');
  });

  it('is the plain part where that says as much, with what was quoted by hand', async () => {
    const lines = [
      'MIME-Version: 1.0',
      'Content-Type: multipart/alternative; boundary=b',
      '',
      '--b',
      'Content-Type: text/plain',
      '',
      'Yes, two.',
      '--b',
      'Content-Type: text/html',
      '',
      '<p>Yes, <b>two</b>.</p>',
      '--b--',
    ];
    expect((await readMail(mail([...head, ...lines]))).said).toBe('Yes, two.');
  });
});

describe('who a mail is', () => {
  it('is another where one name stands for other words, and the same however often it comes', async () => {
    const named = [...head, 'Message-ID: <one@post.example>', ''];
    const [one, again, other] = await Promise.all(
      ['Two.', 'Two.', 'Three.'].map((text) => readMail(mail([...named, text]))),
    );
    expect(again?.id).toBe(one?.id);
    expect(other?.id).not.toBe(one?.id);
  });

  it('says where its writer wants to be answered, and what it answers, the newest first', async () => {
    const lines = [
      'Reply-To: Ada <ada@post.example>',
      'In-Reply-To: <c@porch.example>',
      'References: <a@porch.example> <b@porch.example>',
    ];
    expect(await readMail(mail([...head, ...lines, '', 'Two.']))).toMatchObject({
      replyTo: 'ada@post.example',
      replyToName: 'Ada',
      answers: ['<c@porch.example>', '<b@porch.example>', '<a@porch.example>'],
    });
  });

  it('is told by its header alone where nothing else can be read, and by nothing where that cannot', async () => {
    const bytes = mail([
      ...head,
      'Content-Type: multipart/mixed;',
      ' boundary=b',
      '',
      '--b',
      'Content-Type: text/plain',
      '',
      'x',
    ]);
    expect(await readHead(headOf(bytes))).toMatchObject({
      from: 'wren@post.example',
      subject: 'Ferns',
      said: '',
      attached: [],
      isUnreadable: true,
    });
    expect(bareMail(bytes)).toMatchObject({ from: '', isUnreadable: true });
  });
});

describe('what a server says of a mail of ours', () => {
  const report = (type: string, part: string, action: string) => [
    'From: mailer-daemon@post.example',
    `Content-Type: multipart/report; report-type=${type}; boundary=b`,
    'MIME-Version: 1.0',
    '',
    '--b',
    'Content-Type: text/plain',
    '',
    'It did not arrive.',
    '--b',
    `Content-Type: ${part}`,
    '',
    'Reporting-MTA: dns; post.example',
    '',
    'Final-Recipient: rfc822; wren@post.example',
    `Action: ${action}`,
    'Status: 5.1.1',
    '',
    '--b--',
  ];

  it.each([
    ['delivery-status', 'message/delivery-status'],
    ['global-delivery-status', 'message/global-delivery-status'],
  ])('is read from a report of type %s', async (type, part) => {
    const { status, attached } = await readMail(mail(report(type, part, 'failed')));
    expect(status).toContain('Action: failed');
    expect(attached).toEqual([]);
  });

  it.each([
    [
      'failed',
      "Hi. This is the mail program at post.example. I wasn't able to deliver your message.",
      'failed',
    ],
    ['is still tried', 'Your message is delayed. We will keep trying for two days.', 'delayed'],
  ])('is read in a text of its own that says that it %s', async (_what, text, action) => {
    const lines = ['From: MAILER-DAEMON@post.example', 'Subject: your mail', '', text];
    const named = [...lines, '', '<wren@post.example>:', '550 5.1.1 no such user'];
    const { status } = await readMail(mail(action === 'failed' ? named : lines));
    expect(status).toContain(`Action: ${action}`);
    if (action === 'failed') expect(status).toContain('Status: 5.1.1');
  });

  it('is nothing where a person writes of such things', async () => {
    const text = 'My mail could not be delivered, 550 5.1.1 no such user. What now?';
    expect((await readMail(mail([...head, '', text]))).status).toBe('');
  });
});
