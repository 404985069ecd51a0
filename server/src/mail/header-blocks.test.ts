import { readMail } from './reading';

// Every combination of these: names of headers in eight languages, how they are laid out, in which order, what stands
// over them, and whether what follows is marked as quoted.
const languages: readonly (readonly string[])[] = [
  ['From', 'Sent', 'To', 'Subject', 'Thu, 26 Nov 2026 14:02', 'Original Message'],
  ['Von', 'Gesendet', 'An', 'Betreff', '26. November 2026 14:02', 'Ursprüngliche Nachricht'],
  ['De', 'Envoyé', 'À', 'Objet', 'jeudi 26 novembre 2026 14:02', 'Message d’origine'],
  ['Od', 'Wysłano', 'Do', 'Temat', '26 listopada 2026 14:02', 'Wiadomość oryginalna'],
  ['De', 'Enviado el', 'Para', 'Asunto', '26 de noviembre de 2026 14:02', 'Mensaje original'],
  ['Da', 'Inviato', 'A', 'Oggetto', 'giovedì 26 novembre 2026 14:02', 'Messaggio originale'],
  ['Van', 'Verzonden', 'Aan', 'Onderwerp', '26 november 2026 14:02', 'Oorspronkelijk bericht'],
  ['De', 'Enviada', 'Para', 'Assunto', '26 de novembro de 2026 14:02', 'Mensagem original'],
];
const writers = [
  'Maren Oduya &lt;hello@quillfern.example&gt;',
  'Maren Oduya',
  'Maren Oduya &lt;<a href="mailto:hello@quillfern.example">hello@quillfern.example</a>&gt;',
];
type Row = readonly [name: string, value: string];
const each = (rows: readonly Row[], as: (...row: Row) => string, between = ''): string =>
  rows.map((row) => as(...row)).join(between);
const layouts: readonly ((rows: readonly Row[]) => string)[] = [
  (rows) => `<p>${each(rows, (name, value) => `<b>${name}:</b> ${value}`, '<br>')}</p>`,
  (rows) => `<p>${each(rows, (name, value) => `<b>${name}</b>: ${value}`, '<br>')}</p>`,
  (rows) => each(rows, (name, value) => `<div><b>${name}:</b> ${value}</div>`),
  (rows) => each(rows, (name, value) => `<p><b>${name}:</b> ${value}</p>`),
  (rows) => each(rows, (name, value) => `<div>${name}:</div><div>${value}</div>`),
  (rows) => `<ul>${each(rows, (name, value) => `<li>${name}: ${value}</li>`)}</ul>`,
  (rows) => `<dl>${each(rows, (name, value) => `<dt>${name}:</dt><dd>${value}</dd>`)}</dl>`,
  (rows) =>
    `<table>${each(rows, (name, value) => `<tr><th>${name}:</th><td>${value}</td></tr>`)}</table>`,
  (rows) =>
    `<table>\n${each(rows, (name, value) => `<tr>\n<td>${name}:</td>\n<td>${value}</td>\n</tr>`, '\n')}</table>`,
];
const rules = [
  () => '',
  () => '<hr>',
  (original: string) => `<div>-----${original}-----</div>`,
  () => '<p>Begin forwarded message:</p>',
];
const body = '<p>The ferns are in again.</p><p>Maren</p>';
const bodies = [body, `<blockquote>${body}</blockquote>`];

const all = languages.flatMap(([from = '', sent = '', to = '', about = '', date = '', was = '']) =>
  writers.flatMap((writer) => {
    const rows: readonly Row[] = [
      [from, writer],
      [sent, date],
      [to, 'Wren Ash'],
      [about, 'Re: Ferns'],
    ];
    return [rows, [...rows.slice(3), ...rows.slice(0, 3)]].flatMap((ordered) =>
      layouts.flatMap((layout) =>
        rules.flatMap((rule) => bodies.map((one) => `${rule(was)}${layout(ordered)}${one}`)),
      ),
    );
  }),
);

const mailOf = (html: string): Buffer =>
  Buffer.from(
    [
      'From: Wren <wren@post.example>',
      'To: hello@porch.example',
      'Subject: Re: Ferns',
      'MIME-Version: 1.0',
      'Content-Type: text/html; charset=utf-8',
      '',
      html,
    ].join('\r\n'),
  );

describe('header lines over what is answered or passed on', () => {
  it('are parted from what its writer says, in every combination', async () => {
    expect(all.length).toBe(8 * 3 * 2 * 9 * 4 * 2);
    const wrong: string[] = [];
    for (const html of all) {
      const { said } = await readMail(mailOf(`<div>Yes, keep two for me.</div><br>${html}`));
      if (said !== 'Yes, keep two for me.') wrong.push(html);
    }
    expect({ count: wrong.length, first: wrong.slice(0, 3) }).toEqual({ count: 0, first: [] });
  }, 180_000);

  it.each([
    [
      'a form of a website',
      '<p>New enquiry:</p><p>Name: Wren Ash<br>Email: wren@post.example<br>Best time: 27.11.2026 10:30<br>Message: Two ferns</p>',
      'New enquiry:\n\nName: Wren Ash\nEmail: wren@post.example\nBest time: 27.11.2026 10:30\nMessage: Two ferns',
    ],
    [
      'a delivery',
      '<p>It goes like this:</p><p>From: the station<br>To: Mill Lane 12<br>When: 27.11.2026 10:30</p>',
      'It goes like this:\n\nFrom: the station\nTo: Mill Lane 12\nWhen: 27.11.2026 10:30',
    ],
  ])('are not seen in %s', async (_what, html, said) => {
    expect((await readMail(mailOf(html))).said).toBe(said);
  });

  it.each(rules.map((rule) => [rule('Original Message')]))(
    'leave all of it to be read where nothing else is in it (%s)',
    async (rule) => {
      const rows = '<p>From: Bramble<br>Date: 26.11.2026 14:02<br>Subject: Offer</p>';
      const { said } = await readMail(mailOf(`${rule}${rows}<p>Bonsai, 40 each.</p>`));
      expect(said).toContain('Bonsai, 40 each.');
    },
  );
});
