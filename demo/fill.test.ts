import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { foldAll, groups } from '@porch/core/conversation';
import { createStore, openDatabase, type Store, toRow } from '@porch/server/store/index';
import { sitePages } from '@porch/street/site/page';
import { fill } from './fill';

const now = Date.UTC(2026, 10, 12, 10, 0, 0);

describe('the demo data', () => {
  const dataDir = mkdtempSync(join(tmpdir(), 'demo-'));
  let store: Store;

  beforeAll(async () => {
    const accounts = JSON.parse(readFileSync('demo/accounts.json', 'utf8'));
    const devices = JSON.parse(readFileSync('demo/bell-devices.json', 'utf8'));
    await fill({ dataDir, now, siteOrigin: 'http://127.0.0.1:4870', accounts, devices });
    store = createStore(openDatabase(join(dataDir, 'porch.sqlite')));
  }, 120_000);
  afterAll(() => {
    store.close();
    rmSync(dataDir, { recursive: true });
  });

  const all = () => {
    const found: ReturnType<Store['conversations']['batchAfter']> = [];
    for (let after = ''; ; ) {
      const batch = store.conversations.batchAfter(after);
      if (batch.length === 0) return found;
      found.push(...batch);
      after = batch.at(-1)?.id ?? '';
    }
  };

  it('has about sixty conversations in every state, over six weeks up to the day', () => {
    expect(all().length).toBeGreaterThanOrEqual(58);
    const counts = store.conversations.counts();
    expect(Math.min(...groups.map((group) => counts[group]))).toBeGreaterThanOrEqual(3);
    const times = all().map(({ state }) => state.firstAt);
    expect(now - Math.min(...times)).toBeGreaterThan(35 * 24 * 3_600_000);
    expect(Math.max(...times)).toBeLessThanOrEqual(now);
  });

  it('keeps in every row exactly the fold of its entries', () => {
    for (const { id, state } of all()) {
      expect(state).toEqual(foldAll(store.entries.allOf(id)));
    }
  });

  it('stands on pages that the website has', () => {
    const pages = all().flatMap(({ id }) =>
      store.entries
        .allOf(id)
        .flatMap((entry) => ('page' in entry && entry.page ? [entry.page] : [])),
    );
    const paths = new Set(pages.map(({ url }) => new URL(url).pathname));
    expect([...paths].sort()).toEqual(sitePages.map(({ path }) => path).sort());
  });

  it('counts in the line what is in it', () => {
    const counted = Object.fromEntries(groups.map((group) => [group, 0]));
    for (const group of groups) {
      for (let after: { place: number; id: string } | null = null; ; ) {
        const page: ReturnType<Store['conversations']['page']> = store.conversations.page(
          group,
          after,
          7,
        );
        counted[group] = (counted[group] ?? 0) + page.length;
        const last = page.at(-1);
        if (!last || page.length < 7) break;
        after = { place: toRow(last).place, id: last.id };
      }
    }
    expect(counted).toEqual(store.conversations.counts());
  });

  it('has orders that are expected in the days to come', () => {
    const days = store.orders.ofPerson({ emailKey: 'ada.lindqvist@post.example', phone: '' }, 9);
    expect(days.map(({ expectedOn }) => expectedOn)).toEqual(['2026-11-15']);
  });

  it('has pictures, and only made-up people: example addresses and numbers set aside for drama', () => {
    const entries = all().flatMap(({ id }) => store.entries.allOf(id));
    const files = entries.flatMap((entry) => ('files' in entry ? entry.files : []));
    expect(files.length).toBeGreaterThanOrEqual(4);
    expect(files.every(({ picture }) => picture)).toBe(true);
    const text = JSON.stringify(entries);
    for (const [address] of text.matchAll(/[\w.]+@[\w.]+\w/g))
      expect(address).toMatch(/\.example$/);
    for (const [number] of text.matchAll(/\b0\d{4} \d{6}\b|\b020 \d{4} \d{4}\b/g)) {
      expect(number).toMatch(/^(07700 900\d{3}|020 7946 0\d{3})$/);
    }
  });
});
