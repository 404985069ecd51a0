import { kindsOfPages } from './kinds';

const standing = {
  server: 'http://127.0.0.1:4860',
  snippet: '<script async src="http://127.0.0.1:4860/loader.js" data-door="a-door"></script>',
};

describe('the pages of every kind', () => {
  it('are each at an address of their own, and carry the one line', () => {
    const paths = kindsOfPages.map(({ path }) => path);
    expect(new Set(paths).size).toBe(paths.length);
    expect(paths.length).toBeGreaterThan(7);
    for (const { html } of kindsOfPages) expect(html(standing)).toContain('data-door="a-door"');
  });

  it('need two directives where the policy is strict, and nothing else of ours', () => {
    const strict = kindsOfPages.find(({ headers }) => headers);
    const policy = strict?.headers?.(standing)['content-security-policy'] ?? '';
    expect(policy.match(/127\.0\.0\.1:4860/g)).toHaveLength(2);
    expect(policy).toContain("default-src 'none'");
  });

  it('really carry it twice, and really lead nowhere, where they say so', () => {
    const page = (path: string) => kindsOfPages.find((kind) => kind.path === path)?.html(standing);
    expect(page('/twice')?.match(/<script async/g)).toHaveLength(2);
    expect(page('/unreachable')).not.toContain(standing.server);
  });
});
