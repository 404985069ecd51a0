import { BEFORE_ID, BEFORE_STYLE_ID, type StartPage } from '../shell/start/kept';

/** Where a line stands first that was seen before. */
const withLine = new Set(['/', '/line']);

/** A page's policy that lets one more style sheet through, by its digest. */
const allowing = (policy: string, hash: string): string =>
  policy.replace(/style-src /, `style-src '${hash}' `);

/** The page of the app with the line in it as it was seen last. */
export const pageWithLine = async (
  shell: Response,
  { html, css, hash }: StartPage,
): Promise<Response> => {
  const page = (await shell.text())
    // By functions: in what was written a dollar sign means nothing.
    .replace('</head>', () => `<style id="${BEFORE_STYLE_ID}">${css}</style></head>`)
    .replace('<div id="root">', () => `<div id="${BEFORE_ID}">${html}</div><div id="root">`);
  const headers = new Headers(shell.headers);
  headers.delete('content-length');
  headers.delete('content-encoding');
  headers.set(
    'content-security-policy',
    allowing(headers.get('content-security-policy') ?? '', hash),
  );
  return new Response(page, { status: 200, headers });
};

/**
 * Opens the app from what the device keeps of it, with the last line readable before the app has started. What is
 * not kept is had from the network.
 */
export const createOpening =
  (means: {
    shell: () => Promise<Response | undefined>;
    network: (request: Request) => Promise<Response>;
    keptLine: () => Promise<StartPage | null>;
  }) =>
  async ({ request }: { request: Request }): Promise<Response> => {
    const isLine = withLine.has(new URL(request.url).pathname);
    const [shell, line] = await Promise.all([means.shell(), isLine ? means.keptLine() : null]);
    if (!shell) return means.network(request);
    return line ? pageWithLine(shell, line) : shell;
  };
