/** @jest-environment jsdom */
import { captured } from './capture';

const screen = { isWide: false, isDark: true };
const rootOf = (html: string): Element => {
  const root = document.createElement('div');
  root.innerHTML = html;
  return root;
};

describe('what stands on the page, as text', () => {
  it('has its styles in one sheet, each once, and none at an element', () => {
    const root = rootOf(
      '<p style="color: red;">a</p><p style="color: red;" class="r-1">b</p><i style="top: 1px;">c</i>',
    );
    const { html, css } = captured(root, ['.r-1{margin:0}'], screen);
    expect(html).toBe(
      '<p class="before-0">a</p><p class="r-1 before-0">b</p><i class="before-1">c</i>',
    );
    expect(css).toContain('#before .before-0{color: red;}');
    expect(css.match(/color: red/g)).toHaveLength(1);
    // What is drawn stays as it was.
    expect(root.querySelector('p')?.getAttribute('style')).toBe('color: red;');
  });

  it('is shown only on a screen of the same kind', () => {
    const { css } = captured(rootOf('a'), [], screen);
    expect(css).toMatch(
      /^#before\{display:none\}\n@media \(max-width: 899.98px\) and \(prefers-color-scheme: dark\)/,
    );
    const { css: wide } = captured(rootOf('a'), [], { isWide: true, isDark: false });
    expect(wide).toContain('@media (min-width: 900px) and (prefers-color-scheme: light)');
  });

  it('is without what passes, and safe whatever was written', () => {
    const root = rootOf('<dialog>x</dialog><div role="status">y</div><input value="z"><b></b>');
    const bold = root.querySelector('b');
    if (bold) bold.textContent = '<script>alert(1)</script>';
    expect(captured(root, [], screen).html).toBe('<b>&lt;script&gt;alert(1)&lt;/script&gt;</b>');
  });
});
