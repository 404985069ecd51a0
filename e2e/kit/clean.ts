import type { Frame, Page } from '@playwright/test';
import axe from 'axe-core';
import { expect } from './porch';

const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** What a whole page has to have, and not each frame in it. */
const ofWholePages = ['bypass', 'landmark-one-main', 'page-has-heading-one', 'region'];

const violationsIn = async (frame: Frame, isWhole: boolean): Promise<string[]> => {
  await frame.evaluate(axe.source);
  return frame.evaluate(
    async ({ values, left }) => {
      const { axe: inPage } = window as unknown as { axe: typeof axe };
      const { violations } = await inPage.run(document, {
        runOnly: { type: 'tag', values },
        rules: Object.fromEntries(left.map((rule) => [rule, { enabled: false }])),
        resultTypes: ['violations'],
        // Each frame is looked at by itself.
        iframes: false,
      });
      return violations.map(
        ({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
      );
    },
    { values: tags, left: isWhole ? [] : ofWholePages },
  );
};

/** What may not stand where it stands (HTML, "Content models"), or is named though nothing says what it is (ARIA 1.2, 5.2.8.6). */
const misplacedIn = (frame: Frame): Promise<string[]> =>
  frame.evaluate(() => {
    const blocks = 'div, p, ul, ol, li, section, article, header, footer, h1, h2, h3, h4';
    const rules = {
      'a block within a button': `button :is(${blocks})`,
      'an item of no list': 'li:not(:is(ul, ol, menu) > li)',
      'a name without a role': ':is(div, span)[aria-label]:not([role])',
      'a block within a paragraph': `p :is(${blocks})`,
      // Enter does nothing there, and no new tab opens.
      'a link that leads nowhere': '[role="link"]:not([href]), a:not([href])',
    };
    return Object.entries(rules).flatMap(([rule, selector]) => {
      const [first, ...more] = document.querySelectorAll(selector);
      return first ? [`${rule}, ${more.length + 1} times: ${first.outerHTML.slice(0, 160)}`] : [];
    });
  });

/** WCAG 2.2 AA as far as a machine can tell, by axe-core, in a page and in every frame of it. */
export const expectClean = async (page: Page, what: string): Promise<void> => {
  const told: string[] = [];
  for (const frame of page.frames()) {
    if (frame.isDetached() || frame.url() === 'about:blank') continue;
    const found = [
      ...(await violationsIn(frame, frame === page.mainFrame())),
      ...(await misplacedIn(frame)),
    ];
    told.push(...found.map((one) => `${what}: ${one}`));
  }
  expect.soft(told).toEqual([]);
};
