// The pages for whoever looks after the business's website or shop, made of docs: every house serves them at
// /developers/…, so that an owner can hand on a link.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, normalize } from 'node:path';
import { Marked } from 'marked';

/** By the name under which it is served: from which document it is made. */
export const developerPages = {
  bridge: 'docs/developers/bridge.md',
  orders: 'docs/developers/orders.md',
  phone: 'docs/doors/phone.md',
  text: 'docs/doors/text.md',
};

/** Whole programs to begin with. */
export const developerExamples = ['docs/examples/bridge.mjs', 'docs/examples/orders.mjs'];

const escaped = (text) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Where a link of a document leads to on the pages; null: to something that is not among them. */
const leadsTo = (href, from) => {
  if (/^https:\/\//.test(href)) return href;
  const path = normalize(join(dirname(from), href));
  const page = Object.entries(developerPages).find(([, document]) => document === path);
  if (page) return `${page[0]}.html`;
  return developerExamples.includes(path) ? basename(path) : null;
};

/** A document as a page: its own words, and nothing that runs. */
export const developerPage = (document) => {
  const text = readFileSync(document, 'utf8');
  const title = /^# (.+)$/m.exec(text)?.[1] ?? '';
  const marked = new Marked({
    renderer: {
      link({ href, tokens }) {
        const words = this.parser.parseInline(tokens);
        const to = leadsTo(href, document);
        return to === null ? words : `<a href="${escaped(to)}">${words}</a>`;
      },
      html: ({ text: tag }) => escaped(tag),
    },
  });
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<link rel="icon" href="/lamp.svg">
<link rel="stylesheet" href="developers.css">
<title>${escaped(title)} – Hello Porch</title>
</head>
<body>
<main>
${marked.parse(text)}</main>
</body>
</html>
`;
};

/** Writes them all to a folder. */
export const writeDeveloperPages = (folder) => {
  mkdirSync(folder, { recursive: true });
  for (const [name, document] of Object.entries(developerPages)) {
    writeFileSync(join(folder, `${name}.html`), developerPage(document));
  }
  for (const path of developerExamples) {
    writeFileSync(join(folder, basename(path)), readFileSync(path));
  }
};
