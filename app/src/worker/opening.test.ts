import { createOpening } from './opening';

const page = '<html><head><title>x</title></head><body><div id="root">lamp</div></body></html>';
const policy = "default-src 'none'; style-src 'self'; script-src 'self'";
const line = {
  html: '<p class="before-0">Wren $& $1</p>',
  css: '#before .before-0{color:red}',
  hash: 'sha256-abc=',
};

const opening = (kept: typeof line | null, hasShell = true) =>
  createOpening({
    shell: async () =>
      hasShell ? new Response(page, { headers: { 'content-security-policy': policy } }) : undefined,
    network: async () => new Response('from the network'),
    keptLine: async () => kept,
  });
const asked = (path: string) => ({ request: { url: `https://porch.example${path}` } as Request });

describe('opening the app from what the device keeps', () => {
  it('puts the last line into the page, before the app, with just its sheet allowed besides', async () => {
    const answer = await opening(line)(asked('/line?show=waiting'));
    const text = await answer.text();
    expect(text).toContain('<style id="before-style">#before .before-0{color:red}</style></head>');
    expect(text).toContain(
      '<div id="before"><p class="before-0">Wren $& $1</p></div><div id="root">',
    );
    expect(answer.headers.get('content-security-policy')).toBe(
      "default-src 'none'; style-src 'sha256-abc=' 'self'; script-src 'self'",
    );
  });

  it('is the page as it is elsewhere, and where no line is kept', async () => {
    expect(await (await opening(line)(asked('/house'))).text()).toBe(page);
    expect(await (await opening(null)(asked('/line'))).text()).toBe(page);
  });

  it('comes from the network where the device keeps nothing of the app', async () => {
    expect(await (await opening(line, false)(asked('/line'))).text()).toBe('from the network');
  });
});
