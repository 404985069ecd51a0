import type { DoorRecord } from '../store';

/** The names of the panel's built files, which carry a hash of what is in them. */
export interface PanelFiles {
  script: string;
  style: string;
}

const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (mark) => escapes[mark] ?? '');

/** JSON for a data block: `<` would end the block early. */
const toDataBlock = (data: unknown): string => JSON.stringify(data).replaceAll('<', '\\u003c');

/** The page in which the panel lives: in a frame on a website, or on its own as a link to send. */
export const panelPage = (
  files: PanelFiles,
  door: DoorRecord,
  business: string,
  place: 'frame' | 'page',
): string => `<!doctype html>
<html lang="en" data-place="${place}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1, interactive-widget=resizes-content">
<meta name="robots" content="noindex">
<title>${escapeHtml(business)}</title>
<link rel="stylesheet" href="/widget/${files.style}">
<script type="application/json" id="door">${toDataBlock({ door: door.publicId, business, place })}</script>
<script type="module" src="/widget/${files.script}"></script>
</head>
<body><main id="panel" aria-label="${escapeHtml(business)}"></main></body>
</html>
`;
