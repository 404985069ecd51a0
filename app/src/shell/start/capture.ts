import { WIDE } from '../../kit/theme/sizes';
import { BEFORE_ID, type StartPage } from './kept';

/** What is drawn is the same only on a screen of this kind. */
export interface ScreenKind {
  isWide: boolean;
  isDark: boolean;
}

const mediaOf = ({ isWide, isDark }: ScreenKind): string =>
  `(${isWide ? 'min' : 'max'}-width: ${isWide ? WIDE : WIDE - 0.02}px) and (prefers-color-scheme: ${isDark ? 'dark' : 'light'})`;

/** Takes what stands at single elements into a sheet: a page's policy lets no style stand there. */
const liftStyles = (copy: Element): string => {
  const names = new Map<string, string>();
  for (const element of copy.querySelectorAll('[style]')) {
    const style = element.getAttribute('style') ?? '';
    const name = names.get(style) ?? `before-${names.size}`;
    names.set(style, name);
    element.classList.add(name);
    element.removeAttribute('style');
  }
  return [...names].map(([style, name]) => `#${BEFORE_ID} .${name}{${style}}`).join('\n');
};

/** Only rules that draw any of it; what has no class (a reset, an animation) stays. */
const rulesFor = (copy: Element, rules: readonly string[]): string[] => {
  const used = new Set(
    [...copy.querySelectorAll('[class]')].flatMap(({ classList }) => [...classList]),
  );
  return rules.filter((rule) => {
    const names = [...(rule.split('{')[0] ?? '').matchAll(/\.([\w-]+)/g)].map(
      ([, name]) => name ?? '',
    );
    return names.length === 0 || names.some((name) => used.has(name));
  });
};

/** What is there for a moment only, or means something only while the app runs. */
const PASSING = 'dialog, [aria-modal], [role="alert"], [role="status"], input, textarea';

/**
 * What stands on the page as text: its elements without what passes, and one sheet for them, which shows them only
 * on a screen of the same kind. `rules`: the sheet by which they are drawn now. Rows out of sight are left out.
 */
export const captured = (
  root: Element,
  rules: readonly string[],
  screen: ScreenKind,
  isInSight: (element: Element) => boolean = () => true,
): Omit<StartPage, 'hash'> => {
  const copy = root.cloneNode(true) as Element;
  const rowsOf = (tree: Element): Element[] => [...tree.querySelectorAll('[role="listitem"]')];
  const copied = rowsOf(copy);
  for (const [at, row] of rowsOf(root).entries()) if (!isInSight(row)) copied[at]?.remove();
  for (const passing of copy.querySelectorAll(PASSING)) passing.remove();
  const lifted = liftStyles(copy);
  const css = `#${BEFORE_ID}{display:none}
@media ${mediaOf(screen)}{#${BEFORE_ID}{display:flex}
${rulesFor(copy, rules).join('\n')}
${lifted}}`;
  return { html: copy.innerHTML, css };
};

/** CSP level 3, 2.3.1: the digest of a sheet's text as a policy names it. */
export const hashOf = async (css: string): Promise<string> => {
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(css));
  return `sha256-${btoa(String.fromCharCode(...new Uint8Array(digest)))}`;
};
