import { createHash } from 'node:crypto';
import { bothColours, type ChosenColours, type DoorColours } from '@porch/core/colours';
import { directionOf, type LanguageCode } from '@porch/core/door-texts';

export interface StopPage {
  business: string;
  language: LanguageCode;
  colours: ChosenColours;
  /** What it says. */
  says: string;
  /** On the button that does it; null: it is done. */
  button: string | null;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

const coloured = (colours: DoorColours): string =>
  `body{background:${colours.ground};color:${colours.ink}}main{background:${colours.raised};border-color:${colours.ink}}button{background:${colours.accent};color:${colours.onAccent}}button:focus-visible{outline:3px solid ${colours.link};outline-offset:3px}`;

const sheet = (colours: ChosenColours): string => {
  const { day, night } = bothColours(colours);
  return `:root{color-scheme:light dark}body{margin:0;padding:24px 16px;font:1.0625rem/1.45 system-ui,sans-serif}main{max-width:30rem;margin:8vh auto 0;padding:20px 24px 24px;border-top:4px solid;border-radius:4px;overflow-wrap:anywhere}h1{margin:0 0 12px;font-size:1.375rem;line-height:1.25}p{margin:0 0 20px}button{min-height:48px;padding:0 20px;border:0;border-radius:4px;font:inherit;font-weight:600;cursor:pointer}${coloured(day)}@media(prefers-color-scheme:dark){${coloured(night)}}`;
};

/**
 * The page on which somebody stops mails to an address, in the business's colours by day and by night, and the policy
 * it is sent with: its one style sheet, and nothing from anywhere.
 */
export const stopPage = (page: StopPage): { html: string; policy: string } => {
  const { business, language, says, button } = page;
  const style = sheet(page.colours);
  const hash = createHash('sha256').update(style).digest('base64');
  const form = button
    ? `<form method="post"><button type="submit">${escaped(button)}</button></form>`
    : '';
  return {
    policy: `default-src 'none'; style-src 'sha256-${hash}'; form-action 'self'; frame-ancestors 'none'`,
    html: `<!doctype html>
<html lang="${escaped(language)}" dir="${directionOf(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${escaped(business)}</title>
<style>${style}</style>
</head>
<body><main><h1>${escaped(business)}</h1><p>${escaped(says)}</p>${form}</main></body>
</html>
`,
  };
};
