import type { FastifyInstance } from 'fastify';
import { pictureOf } from '../networks/picture';
import { choice, escaped, streetPage } from '../page';
import {
  type BoxedMail,
  type MailFault,
  mailFaults,
  type NewMail,
  type PostOffice,
} from './post-office';

const faultsInWords: Record<MailFault, string> = {
  none: 'Takes everything',
  refused: 'Does not exist (550)',
  slow: 'Takes eight seconds',
  greylisting: 'Wants every first mail later (451)',
  bounce: 'Takes it, and sends it back',
  'out-of-office': 'Is away, and says so to everybody',
};

const pathOf = (address: string): string => `/mail/${encodeURIComponent(address)}`;

const listed = ({ id, at, from, subject }: BoxedMail): string =>
  `<li><a href="/mail/read/${id}"><strong>${escaped(subject)}</strong></a><br>${escaped(from)}, ${new Date(at).toUTCString()}</li>`;

const boxPage = (office: PostOffice, address: string): string =>
  streetPage(
    address,
    `<p><a href="/mail">All mailboxes</a></p>
<form method="post" action="${pathOf(address)}"><label>This mailbox ${choice('fault', faultsInWords, office.faultOf(address))}</label> <button>Set</button></form>
<ul class="mails">${office.mails(address).reverse().map(listed).join('') || '<li>Nothing has come yet.</li>'}</ul>`,
  );

const readPage = (mail: BoxedMail): string =>
  streetPage(
    mail.subject,
    `<p><a href="${pathOf(mail.to)}">${escaped(mail.to)}</a></p>
<p>From ${escaped(mail.from)}, ${new Date(mail.at).toUTCString()}<br>Answers go to ${escaped(mail.replyTo)}</p>
${mail.html ? `<iframe sandbox title="The mail" srcdoc="${escaped(mail.html)}"></iframe>` : `<pre>${escaped(mail.text)}</pre>`}
<h2>Answer</h2>
<form method="post" action="/mail/read/${mail.id}"><label>Sent from <input name="from" type="email" value="${escaped(mail.to)}" required></label><br><label>Your answer<textarea name="text" required></textarea></label><br><button>Send</button></form>`,
  );

const kindsInWords: Record<NewMail['kind'], string> = {
  person: 'A person',
  pictures:
    'A person, with a picture that lies on the street and one that only tells that it was read',
  list: 'A mailing list',
};

const newMailForm = `<h2>Write a mail</h2>
<form method="post" action="/mail"><label>From <input name="from" type="email" value="rosa@post.example" required></label><br>
<label>To <input name="to" type="email" value="hello@quillfern.example" required></label><br>
<label>Subject <input name="subject" value="A question"></label><br>
<label>Text<textarea name="text" required></textarea></label><br>
<label>Written by ${choice('kind', kindsInWords, 'person')}</label><br><button>Send</button></form>`;

/** Mailboxes as a mail program shows them, with the switches for what may go wrong. */
export const mailPages = (app: FastifyInstance, office: PostOffice): void => {
  const html = 'text/html; charset=utf-8';
  app.get('/mail', async (_request, reply) =>
    reply.type(html).send(
      streetPage(
        'The street’s mailboxes',
        `<p>Whatever is mailed in the demo comes here: every address has a mailbox.</p><ul>${
          office
            .boxes()
            .map((address) => `<li><a href="${pathOf(address)}">${escaped(address)}</a></li>`)
            .join('') || '<li>Nothing has come yet.</li>'
        }</ul>${newMailForm}`,
      ),
    ),
  );
  app.get<{ Params: { name: string } }>('/pictures/:name', async (request, reply) =>
    reply.type('image/png').send(pictureOf(request.params.name)),
  );
  app.post<{ Body: Omit<NewMail, 'html'> }>('/mail', async (request, reply) => {
    const { kind, text, ...letter } = request.body;
    const street = `${request.protocol}://${request.host}`;
    const html = `<p>${escaped(text).replaceAll('\n', '<br>')}</p><img src="${street}/pictures/barn.png" alt="A barn"><img src="${street}/pictures/barn.png?seen" width="1" height="1" alt="">`;
    const said = await office.write({
      ...letter,
      kind,
      text,
      ...(kind === 'pictures' ? { html } : {}),
    });
    return reply
      .type('text/html; charset=utf-8')
      .send(
        streetPage(
          'Handed over',
          `<p>The server said: ${escaped(said)}</p><p><a href="/mail">Back to the mailboxes</a></p>`,
        ),
      );
  });
  app.get<{ Params: { address: string } }>('/mail/:address', async (request, reply) =>
    reply.type(html).send(boxPage(office, request.params.address)),
  );
  app.post<{ Params: { address: string }; Body: { fault: string } }>(
    '/mail/:address',
    async (request, reply) => {
      const { address } = request.params;
      const fault = mailFaults.find((one) => one === request.body.fault);
      if (fault) office.setFault(address, fault);
      return reply.redirect(pathOf(address), 303);
    },
  );
  app.get<{ Params: { id: string } }>('/mail/read/:id', async (request, reply) => {
    const mail = office.byId(Number(request.params.id));
    if (!mail) return reply.redirect('/mail', 303);
    return reply.type(html).send(readPage(mail));
  });
  app.post<{ Params: { id: string }; Body: { text: string; from?: string } }>(
    '/mail/read/:id',
    async (request, reply) => {
      const mail = office.byId(Number(request.params.id));
      if (!mail) return reply.redirect('/mail', 303);
      const { text, from } = request.body;
      const said = await office.answer(mail, String(text ?? ''), from);
      return reply
        .type(html)
        .send(
          streetPage(
            'Handed over',
            `<p>The server said: ${escaped(said)}</p><p><a href="${pathOf(mail.to)}">Back to the mailbox</a></p>`,
          ),
        );
    },
  );
  app.get<{ Params: { address: string } }>('/mail/:address/mails', async (request) =>
    office.mails(request.params.address),
  );
  app.post<{ Params: { id: string }; Body: { text: string; from?: string } }>(
    '/mail/read/:id/answer',
    async (request, reply) => {
      const mail = office.byId(Number(request.params.id));
      if (!mail) return reply.status(404).send();
      const { text, from } = request.body;
      return { said: await office.answer(mail, text, from) };
    },
  );
};
