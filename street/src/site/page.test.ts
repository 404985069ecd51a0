import { renderPage, sitePages } from './page';

describe('the demo website', () => {
  it('carries the snippet once, just before the end of each page\u2019s body, as an owner would paste it', () => {
    expect(sitePages.length).toBeGreaterThanOrEqual(4);
    for (const page of sitePages) {
      const html = renderPage(page, '<script async src="x"></script>');
      expect(html.match(/<script/g)).toHaveLength(1);
      expect(html).toMatch(/<script async src="x"><\/script>\s*<\/body>/);
      expect(html).toContain(`<h1>${page.title}</h1>`);
    }
  });

  it('links every page from every other', () => {
    for (const page of sitePages) {
      const html = renderPage(page, '');
      for (const { path } of sitePages) expect(html).toContain(`href="${path}"`);
    }
  });
});
