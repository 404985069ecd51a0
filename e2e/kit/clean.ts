import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './porch';

/** WCAG 2.2 AA as far as a machine can tell, by axe-core. */
export const expectClean = async (page: Page, what: string): Promise<void> => {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  const told = violations.map(
    ({ id, nodes }) =>
      `${what}: ${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
  );
  expect.soft(told).toEqual([]);
};
