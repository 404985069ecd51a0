import type { EmojiPageData } from '@porch/contract/emoji';
import type { PanelPageData } from '@porch/contract/visitor';
import type { DoorView } from '@porch/core/dress';

/** The names of the built files of the picker of emoji. */
export interface EmojiFiles {
  script: string;
  style: string;
  /** Emoji with their names, by language; English is always there. */
  sources: Readonly<Record<string, string>>;
}

/** The names of the panel's built files, which carry a hash of what is in them. */
export interface PanelFiles {
  script: string;
  /** What the script needs at once. */
  parts: readonly string[];
  /** The loader's second part. */
  more: string;
  style: string;
  preview: string;
  emoji: EmojiFiles;
}

const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (mark) => escapes[mark] ?? '');

/** JSON for a data block: `<` would end the block early. */
const toDataBlock = (data: unknown): string => JSON.stringify(data).replaceAll('<', '\\u003c');

const head = (title: string): string => `<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1, interactive-widget=resizes-content">
<meta name="robots" content="noindex">
<link rel="icon" href="/lamp.svg" type="image/svg+xml">
<title>${escapeHtml(title)}</title>`;

/** The page in which the panel lives: in a frame on a website, or on its own as a link to send. */
export const panelPage = (
  files: PanelFiles,
  data: PanelPageData & { view: DoorView },
): string => `<!doctype html>
<html lang="${data.view.language}" dir="${data.view.direction}" data-place="${data.place}">
<head>
${head(data.view.business.name)}
<link rel="stylesheet" href="/widget/${files.style}">
<script type="application/json" id="door">${toDataBlock(data)}</script>
${files.parts.map((part) => `<link rel="modulepreload" href="/widget/${part}">\n`).join('')}<script type="module" src="/widget/${files.script}"></script>
</head>
<body><main id="panel" aria-label="${escapeHtml(data.view.business.name)}"></main></body>
</html>
`;

/** The page of the picker of emoji, in a frame of the app or of the panel. */
export const emojiPage = ({ script, style, sources }: EmojiFiles, asked: string): string => {
  const language = sources[asked] ? asked : 'en';
  const data: EmojiPageData = { language, source: `/widget/${sources[language]}` };
  return `<!doctype html>
<html lang="${language}">
<head>
${head('Emoji')}
<link rel="stylesheet" href="/widget/${style}">
<script type="application/json" id="emoji">${toDataBlock(data)}</script>
<script type="module" src="/widget/${script}"></script>
</head>
<body><main></main></body>
</html>
`;
};

/** A stretch of an imaginary website on which the dressing room shows plate and panel. */
export const previewPage = (
  files: PanelFiles,
  business: string,
  door: 'open' | 'closed',
): string => `<!doctype html>
<html lang="en">
<head>
${head(business)}
<link rel="stylesheet" href="/widget/${files.style}">
<script type="module" src="/widget/${files.preview}"></script>
</head>
<body class="imagined"><main aria-label="Page of ${escapeHtml(business)}, its door ${door}"><h1>${escapeHtml(business)}</h1><p class="bar"></p><p class="bar"></p><p class="bar short"></p><p class="bar tall"></p><p class="bar"></p><p class="bar short"></p></main></body>
</html>
`;
