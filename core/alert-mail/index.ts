import type { FileMention } from '../conversation';
import { day } from '../theme';
import type { AlertMailWords } from './words';

export { type AlertMailWords, en } from './words';

/** One thing that was said, as the mail shows it. */
export interface MailSlip {
  who: string;
  /** When, in words. */
  when: string;
  isTeam: boolean;
  text: string;
  files: readonly Pick<FileMention, 'name'>[];
}

export interface AlertMail {
  business: string;
  /** Who waits, what they are called. */
  who: string;
  /** Since when, in words. */
  since: string;
  isNote: boolean;
  slips: readonly MailSlip[];
  /** How many were said before these. */
  earlier: number;
  /** As whom an answer goes out. */
  as: string;
  /** Until when it can be answered, in words; null: it cannot. */
  until: string | null;
  /** Where the conversation is opened. */
  link: string;
}

export interface Rendered {
  subject: string;
  text: string;
  html: string;
}

const SUBJECT_WORDS = 60;

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

const paragraph = (text: string): string => escaped(text).replaceAll('\n', '<br>');

const linesOf = ({ who, when, text, files }: MailSlip, words: AlertMailWords): string =>
  [`${who}, ${when}`, text, ...files.map(({ name }) => words.file(name))]
    .filter(Boolean)
    .join('\n');

const slipHtml = ({ who, when, isTeam, text, files }: MailSlip, words: AlertMailWords): string => {
  const edge = isTeam ? `border:2px solid ${day.ink};` : `background:${day.linen};`;
  return `<div style="margin:0 0 10px;padding:10px 12px;border-radius:4px;${edge}">
<div style="font-size:14px;color:${day.slate}"><strong style="color:${day.ink}">${escaped(who)}</strong> ${escaped(when)}</div>
${text ? `<div style="font-size:16px;line-height:1.45">${paragraph(text)}</div>` : ''}
${files.map(({ name }) => `<div style="font-size:14px;color:${day.slate}">${escaped(words.file(name))}</div>`).join('')}
</div>`;
};

/**
 * The mail that says that somebody waits, with the conversation so far, as text and as HTML. Nothing in it is
 * fetched from anywhere.
 */
export const renderAlertMail = (mail: AlertMail, words: AlertMailWords): Rendered => {
  const { who, since, slips, earlier, as, until, link } = mail;
  const last = slips.findLast(({ isTeam }) => !isTeam)?.text.replace(/\s+/g, ' ') ?? '';
  const first = last.length > SUBJECT_WORDS ? `${last.slice(0, SUBJECT_WORDS)}…` : last;
  const lead = mail.isNote ? words.left(who, since) : words.lead(who, since);
  const above = until === null ? '' : words.above;
  const how = until === null ? words.onlyOpen : `${words.answer(who, as)} ${words.until(until)}`;
  const before = earlier > 0 ? words.earlier(earlier) : '';
  return {
    subject: words.subject(who, first),
    text: [
      above,
      lead,
      before,
      ...slips.map((slip) => linesOf(slip, words)),
      how,
      `${words.open}: ${link}`,
    ]
      .filter(Boolean)
      .join('\n\n')
      .concat('\n'),
    html: `<!doctype html><html><body style="margin:0;padding:16px;background:${day.paper};color:${day.ink};font-family:sans-serif">
<div style="max-width:560px;margin:0 auto">
${above ? `<div style="font-size:13px;color:${day.slate};margin:0 0 12px">${escaped(above)}</div>` : ''}
<div style="font-size:18px;margin:0 0 14px"><strong>${escaped(lead)}</strong></div>
${before ? `<div style="font-size:14px;color:${day.slate};margin:0 0 10px">${escaped(before)}</div>` : ''}
${slips.map((slip) => slipHtml(slip, words)).join('\n')}
<div style="font-size:15px;line-height:1.45;margin:16px 0">${escaped(how)}</div>
<a href="${escaped(link)}" style="display:inline-block;padding:12px 18px;background:${day.ink};color:${day.paper};text-decoration:none;border-radius:4px;font-size:16px">${escaped(words.open)}</a>
<div style="font-size:13px;color:${day.slate};margin:18px 0 0">${escaped(mail.business)}</div>
</div></body></html>
`,
  };
};
