import { dehydrate, QueryClient } from '@tanstack/react-query';
import { readAnew } from './apply';
import { forget, keeping, keepLong, lastKnown, toKeep } from './offline';

const filled = (): QueryClient => {
  const client = new QueryClient();
  keepLong(client);
  client.setQueryData(['house'], { me: { id: 'maren' } });
  client.setQueryData(['known'], { seq: 7, lamp: null, counts: null, offsetMs: 0 });
  client.setQueryData(['line', 'waiting'], { rows: [], next: null });
  client.setQueryData(['search', 'fern'], { rows: [] });
  for (let day = 1; day <= 50; day += 1) {
    client.setQueryData(['roll', `talk-${day}`], { entries: [] }, { updatedAt: day });
  }
  return client;
};

const keptOf = (client: QueryClient): string[] =>
  toKeep({
    timestamp: 0,
    buster: '',
    clientState: dehydrate(client, keeping().dehydrateOptions),
  }).clientState.queries.map(({ queryKey }) => queryKey.join(' '));

describe('what this device keeps to be read without signal', () => {
  it('is the house, the line, up to where they go, and the rolls looked at last', () => {
    const client = filled();
    const kept = keptOf(client);
    expect(kept).toEqual(expect.arrayContaining(['house', 'known', 'line waiting']));
    expect(kept).toContain('roll talk-50');
    expect(kept).toContain('roll talk-11');
    expect(kept).not.toContain('roll talk-10');
    expect(kept).not.toContain('search fern');
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
