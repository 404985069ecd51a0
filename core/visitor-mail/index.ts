import { bothColours, type ChosenColours, type DoorColours } from '../colours';
import { directionOf, fillGaps, type LanguageCode, type Texts } from '../door-texts';

/** By this our own line is known in whatever a program quotes, whichever words an owner has given it. */
export const ABOVE_MARK = '–––––';

/** One thing that was said, as the mail shows it. */
export interface VisitorSlip {
  /** Who said it, as visitors see them; empty: whoever reads the mail. */
  who: string;
  /** When, in the reader's words. */
  when: string;
  text: string;
  files: readonly string[];
}

export interface VisitorMail {
  business: string;
  language: LanguageCode;
  texts: Texts;
  colours: ChosenColours;
  /** What is new, oldest first; and what was said before it. */
  fresh: readonly VisitorSlip[];
  before: readonly VisitorSlip[];
  /** Where mails to this address are stopped. */
  stopLink: string;
}

export interface RenderedMail {
  subject: string;
  text: string;
  html: string;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
const paragraph = (text: string): string => escaped(text).replaceAll('\n', '<br>');

const slipText = ({ who, when, text, files }: VisitorSlip, you: string): string =>
  [`${who || you}, ${when}`, text, ...files].filter(Boolean).join('\n');

const slipHtml = ({ who, when, text, files }: VisitorSlip, you: string): string =>
  `<div class="slip${who ? ' ours' : ''}"><div class="top"><strong>${escaped(who || you)}</strong> ${escaped(when)}</div>
${text ? `<div>${paragraph(text)}</div>` : ''}${files.map((name) => `<div class="top">${escaped(name)}</div>`).join('')}</div>`;

const sheetOf = (colours: DoorColours): string =>
  `body{background:${colours.ground};color:${colours.ink}}.slip{background:${colours.raised}}.ours{background:${colours.ground};border:2px solid ${colours.ink}}.top,.small{color:${colours.second}}a{color:${colours.link}}hr{border-color:${colours.seam}}`;

/**
 * The mail that brings answers to a visitor who has gone: what is new, then the conversation so far, in the business's
 * name and colours, by day and by night, as text and as HTML. Nothing in it is fetched from anywhere.
 */
export const renderVisitorMail = (mail: VisitorMail): RenderedMail => {
  const { texts, business, fresh, before, stopLink } = mail;
  const say = (text: string): string => fillGaps(text, { business });
  const { day, night } = bothColours(mail.colours);
  const [why, stop, above] = [
    say(texts.mailWhy),
    say(texts.mailStop),
    `${ABOVE_MARK} ${say(texts.mailAbove)}`,
  ];
  const earlier = before.length > 0 ? texts.mailBefore : '';
  return {
    subject: say(texts.mailSubject),
    text: [
      above,
      ...fresh.map((slip) => slipText(slip, texts.you)),
      earlier && `— ${earlier} —`,
      ...before.map((slip) => slipText(slip, texts.you)),
      why,
      `${stop} ${stopLink}`,
    ]
      .filter(Boolean)
      .join('\n\n')
      .concat('\n'),
    html: `<!doctype html><html lang="${escaped(mail.language)}" dir="${directionOf(mail.language)}"><head><meta charset="utf-8"><meta name="color-scheme" content="light dark"><meta name="supported-color-schemes" content="light dark"><style>body{margin:0;padding:16px;font-family:sans-serif;font-size:16px;line-height:1.45}.page{max-width:560px;margin:0 auto}.slip{margin:0 0 10px;padding:10px 12px;border-radius:4px}.top,.small{font-size:14px;overflow-wrap:anywhere}h1{font-size:18px}hr{border:0;border-top:1px solid}${sheetOf(day)}@media(prefers-color-scheme:dark){${sheetOf(night)}}</style></head><body><div class="page">
<div class="small">${escaped(above)}</div>
<h1>${escaped(business)}</h1>
${fresh.map((slip) => slipHtml(slip, texts.you)).join('\n')}
${earlier ? `<hr><div class="small">${escaped(earlier)}</div>\n${before.map((slip) => slipHtml(slip, texts.you)).join('\n')}` : ''}
<hr><div class="small">${escaped(why)}</div>
<div class="small">${escaped(stop)} <a href="${escaped(stopLink)}">${escaped(stopLink)}</a></div>
</div></body></html>
`,
  };
};
