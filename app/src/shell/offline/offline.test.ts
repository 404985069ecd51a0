import { dehydrate, type QueryClient } from '@tanstack/react-query';
import { clientForTest } from '../../../test-kit/client';
import { readAnew } from '../live/apply';
import { forget, keeping, keepLong, lastKnown, toKeep } from './offline';

const filled = (): QueryClient => {
  const client = clientForTest();
  keepLong(client);
  client.setQueryData(['house'], { me: { id: 'maren' } });
  client.setQueryData(['known'], { seq: 7, lamp: null, counts: null, offsetMs: 0 });
  client.setQueryData(['line', 'waiting'], { rows: [], next: null });
  client.setQueryData(['search', 'fern'], { rows: [] });
  for (let day = 1; day <= 60; day += 1) {
    client.setQueryData(['roll', `talk-${day}`], { entries: [] }, { updatedAt: day });
  }
  return client;
};

const keptQueries = (client: QueryClient) =>
  toKeep({
    timestamp: 0,
    buster: '',
    clientState: dehydrate(client, keeping().dehydrateOptions),
  }).clientState.queries;
const keptOf = (client: QueryClient): string[] =>
  keptQueries(client).map(({ queryKey }) => queryKey.join(' '));
const keptData = (client: QueryClient, key: string): unknown =>
  keptQueries(client).find(({ queryKey }) => queryKey.join(' ') === key)?.state.data;

describe('what this device keeps to be read without signal', () => {
  it('is the house, the line, up to where they go, and the rolls looked at last', () => {
    const client = filled();
    const kept = keptOf(client);
    expect(kept).toEqual(expect.arrayContaining(['house', 'known', 'line waiting']));
    expect(kept).toContain('roll talk-60');
    expect(kept).toContain('roll talk-11');
    expect(kept).not.toContain('roll talk-10');
    expect(kept).not.toContain('search fern');
    client.clear();
  });

  it('stays small however far somebody has read back, and goes on from there', () => {
    const client = filled();
    const rows = Array.from({ length: 400 }, (_, at) => ({ id: `talk-${at}`, place: at }));
    const entries = Array.from({ length: 900 }, (_, at) => ({ seq: at }));
    client.setQueryData(['line', 'wrapped'], { rows, next: null });
    const receipts = [{ seq: 899, step: 'failed', why: 'gone' }];
    client.setQueryData(['roll', 'talk-1'], { entries, hasOlder: false, receipts });
    expect(keptData(client, 'line wrapped')).toEqual({
      rows: rows.slice(0, 120),
      next: '119.talk-119',
    });
    expect(keptData(client, 'roll talk-1')).toEqual({
      entries: entries.slice(-100),
      hasOlder: true,
      receipts,
    });
    client.clear();
  });

  it('is whole where it is short', () => {
    const client = filled();
    const rows = Array.from({ length: 120 }, (_, at) => ({ id: `talk-${at}`, place: at }));
    client.setQueryData(['line', 'left'], { rows, next: null });
    expect(keptData(client, 'line left')).toEqual({ rows, next: null });
    expect(keptData(client, 'roll talk-50')).toEqual({ entries: [] });
    client.clear();
  });

  it('says up to which seq it goes, so that what came since is asked for', () => {
    const client = filled();
    expect(lastKnown(client)?.seq).toBe(7);
    client.clear();
  });

  it('is nothing of anybody’s words once nobody is signed in', () => {
    const client = filled();
    client.setQueryData(['house'], { me: null });
    forget(client);
    expect(keptOf(client)).toEqual([]);
    expect(client.getQueryData(['search', 'fern'])).toBeUndefined();
    client.clear();
  });

  it('has no gap after too much was missed: what is on no screen goes', async () => {
    const client = filled();
    await readAnew(client);
    expect(client.getQueryData(['roll', 'talk-50'])).toBeUndefined();
    expect(client.getQueryData(['house'])).toEqual({ me: { id: 'maren' } });
    client.clear();
  });
});
