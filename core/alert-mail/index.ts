import { type Call, callInWords } from '../calling';
import type { FileMention } from '../conversation';
import { day } from '../theme';
import type { AlertMailWords } from './words';

export { type AlertMailWords, en } from './words';

/** One thing that was said, as the mail shows it. */
export interface MailSlip {
  /** The name of whoever of the team said it; null: whoever waits did. */
  by: string | null;
  /** In milliseconds since 1970. */
  at: number;
  text: string;
  files: readonly Pick<FileMention, 'name'>[];
}

export interface AlertMail {
  business: string;
  /** The time zone in which moments are said. */
  zone: string;
  /** Who waits. */
  called: Call;
  /** Since when, in milliseconds since 1970. */
  since: number;
  isNote: boolean;
  slips: readonly MailSlip[];
  /** Whether something was said before these. */
  hasEarlier: boolean;
  /** As whom an answer goes out. */
  as: string;
  /** Until when it can be answered, in milliseconds since 1970; null: it cannot. */
  until: number | null;
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

/** A slip with its moment and whose it is in words. */
interface Told {
  who: string;
  when: string;
  isTeam: boolean;
  text: string;
  files: string[];
}

const linesOf = ({ who, when, text, files }: Told): string =>
  [`${who}, ${when}`, text, ...files].filter(Boolean).join('\n');

const slipHtml = ({ who, when, isTeam, text, files }: Told): string => {
  const edge = isTeam ? `border:2px solid ${day.ink};` : `background:${day.linen};`;
  return `<div style="margin:0 0 10px;padding:10px 12px;border-radius:4px;${edge}">
<div style="font-size:14px;color:${day.slate}"><strong style="color:${day.ink}">${escaped(who)}</strong> ${escaped(when)}</div>
${text ? `<div style="font-size:16px;line-height:1.45">${paragraph(text)}</div>` : ''}
${files.map((file) => `<div style="font-size:14px;color:${day.slate}">${escaped(file)}</div>`).join('')}
</div>`;
};

/**
 * The mail that says that somebody waits, with the conversation so far, as text and as HTML. Nothing in it is
 * fetched from anywhere.
 */
export const renderAlertMail = (mail: AlertMail, words: AlertMailWords): Rendered => {
  const { zone, as, until, link } = mail;
  const who = callInWords(mail.called, words.called);
  const since = words.moment(mail.since, zone);
  const slips = mail.slips.map(
    ({ by, at, text, files }): Told => ({
      who: by ?? who,
      when: words.moment(at, zone),
      isTeam: by !== null,
      text,
      files: files.map(({ name }) => words.file(name)),
    }),
  );
  const last = slips.findLast(({ isTeam }) => !isTeam)?.text.replace(/\s+/g, ' ') ?? '';
  const first = last.length > SUBJECT_WORDS ? `${last.slice(0, SUBJECT_WORDS)}…` : last;
  const lead = mail.isNote ? words.left(who, since) : words.lead(who, since);
  const above = until === null ? '' : words.above;
  const how = until === null ? words.onlyOpen : `${words.answer(as)} ${words.until(until, zone)}`;
  const before = mail.hasEarlier ? words.earlier : '';
  return {
    subject: words.subject(who, first),
    text: [above, lead, before, ...slips.map(linesOf), how, `${words.open}: ${link}`]
      .filter(Boolean)
      .join('\n\n')
      .concat('\n'),
    html: `<!doctype html><html><body style="margin:0;padding:16px;background:${day.paper};color:${day.ink};font-family:sans-serif">
<div style="max-width:560px;margin:0 auto">
${above ? `<div style="font-size:13px;color:${day.slate};margin:0 0 12px">${escaped(above)}</div>` : ''}
<div style="font-size:18px;margin:0 0 14px"><strong>${escaped(lead)}</strong></div>
${before ? `<div style="font-size:14px;color:${day.slate};margin:0 0 10px">${escaped(before)}</div>` : ''}
${slips.map(slipHtml).join('\n')}
<div style="font-size:15px;line-height:1.45;margin:16px 0">${escaped(how)}</div>
<a href="${escaped(link)}" style="display:inline-block;padding:12px 18px;background:${day.ink};color:${day.paper};text-decoration:none;border-radius:4px;font-size:16px">${escaped(words.open)}</a>
<div style="font-size:13px;color:${day.slate};margin:18px 0 0">${escaped(mail.business)}</div>
</div></body></html>
`,
  };
};
