import { createTransport } from 'nodemailer';
import { createPostOffice, type PostOffice, quoting } from './post-office';

const PORT = 0;

describe('the street’s mail server', () => {
  let office: PostOffice;
  let port: number;
  let now = Date.UTC(2026, 10, 12, 10);

  beforeEach(async () => {
    office = createPostOffice({ now: () => now, porchMailPort: () => port });
    port = await office.listen(PORT);
  });
  afterEach(() => office.close());

  const send = async (to: string, subject = 'Hello'): Promise<string> => {
    const transport = createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
    const mail = {
      from: 'hello@quillfern.example',
      replyTo: 'replies@quillfern.example',
      to,
      subject,
      text: 'Words',
    };
    return transport.sendMail(mail).then(
      ({ response }) => response,
      (error) => error.response,
    );
  };

  it('has a mailbox for every address, and shows what came', async () => {
    await send('Maren@quillfern.example');
    expect(office.boxes()).toEqual(['maren@quillfern.example']);
    expect(office.mails('maren@quillfern.example')).toMatchObject([
      {
        from: 'hello@quillfern.example',
        replyTo: 'replies@quillfern.example',
        subject: 'Hello',
        at: now,
      },
    ]);
  });

  it('answers where a mail says that answers go, with what it answers quoted', async () => {
    await send('maren@quillfern.example');
    const [mail] = office.mails('maren@quillfern.example');
    if (!mail) throw new Error('nothing came');
    expect(await office.answer(mail, 'Yes')).toMatch(/^250/);
    expect(office.mails('replies@quillfern.example')).toMatchObject([
      {
        from: 'maren@quillfern.example',
        subject: 'Re: Hello',
        text: expect.stringMatching(/^Yes\n\nOn .* wrote:\n\n> Words/),
      },
    ]);
    expect(quoting('Yes', mail)).toContain('> Words');
  });

  it('fails as it is told to', async () => {
    office.setFault('a@post.example', 'refused');
    expect(await send('a@post.example')).toMatch(/550/);
    office.setFault('b@post.example', 'greylisting');
    expect(await send('b@post.example')).toMatch(/451/);
    now += 2_000;
    expect(await send('b@post.example')).toMatch(/^250/);
  });
});
