/** What a page needs to know of the door that stands on it. */
export interface Standing {
  server: string;
  snippet: string;
}

/** A page of a kind that widgets tend to break on, or that tends to break widgets. */
export interface KindOfPage {
  path: string;
  title: string;
  headers?: (standing: Standing) => Record<string, string>;
  html: (standing: Standing) => string;
}

const page = (
  title: string,
  body: string,
  { language = 'en', direction = 'ltr', head = '' } = {},
): string => `<!doctype html>
<html lang="${language}" dir="${direction}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<link rel="icon" href="data:,">
<title>${title}</title>
${head}
</head>
<body>
<main><h1>${title}</h1><p>One of the pages on which the door is tried.</p></main>
${body}
</body>
</html>
`;

/** Nothing is listened to on this port: as when our server is down. */
const NOBODY = 'http://127.0.0.1:9';

const routes = `<nav><a href="/one-page/ferns">Ferns</a> <a href="/one-page/about">About</a></nav>
<script>
document.querySelector('nav').addEventListener('click', (event) => {
  const link = event.target.closest('a');
  if (!link) return;
  event.preventDefault();
  history.pushState(null, '', link.href);
  document.title = link.textContent;
  document.querySelector('h1').textContent = link.textContent;
});
</script>`;

const hostile = `<style>
*, *::before { all: revert; position: static !important; transform: rotate(3deg) !important;
  opacity: .1 !important; display: inline !important; visibility: hidden !important; font-size: 3px !important; }
div, button, iframe, hello-porch { display: none !important; pointer-events: none !important; }
body { transform: scale(.5); filter: blur(2px); }
html, main, h1, p { visibility: visible !important; opacity: 1 !important; }
</style>`;

const signedIn = `<script>
addEventListener('load', () => {
  const tell = () => {
    if (!window.HelloPorch) return setTimeout(tell, 50);
    window.HelloPorch.visitorIs({ name: 'Wren Ashdown', email: 'wren@post.example' });
  };
  tell();
});
</script>
<button type="button" onclick="window.HelloPorch.open()">Ask us</button>
<button type="button" onclick="window.HelloPorch.close()">Not now</button>`;

/** One page of each kind. */
export const kindsOfPages: readonly KindOfPage[] = [
  {
    path: '/strict',
    title: 'A strict policy',
    // The two directives that a strict page needs: script-src and frame-src.
    headers: ({ server }) => ({
      'content-security-policy': `default-src 'none'; img-src data:; script-src ${server}; frame-src ${server}`,
    }),
    html: ({ snippet }) => page('A strict policy', snippet),
  },
  {
    path: '/hostile',
    title: 'Hostile styles',
    html: ({ snippet }) => page('Hostile styles', snippet, { head: hostile }),
  },
  ...['/one-page', '/one-page/ferns', '/one-page/about'].map((path) => ({
    path,
    title: 'One page',
    html: ({ snippet }: Standing) => page('One page', routes + snippet),
  })),
  {
    path: '/twice',
    title: 'Pasted twice',
    html: ({ snippet }) => page('Pasted twice', snippet + snippet),
  },
  {
    path: '/unreachable',
    title: 'Server down',
    html: ({ snippet, server }) => page('Server down', snippet.replace(server, NOBODY)),
  },
  {
    path: '/signed-in',
    title: 'Signed in',
    html: ({ snippet }) => page('Signed in', signedIn + snippet),
  },
  {
    path: '/deutsch',
    title: 'Zimmerpflanzen',
    html: ({ snippet }) => page('Zimmerpflanzen', snippet, { language: 'de-AT' }),
  },
  {
    path: '/arabi',
    title: 'نباتات منزلية',
    html: ({ snippet }) => page('نباتات منزلية', snippet, { language: 'ar', direction: 'rtl' }),
  },
];
