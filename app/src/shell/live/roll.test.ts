import type { Row } from '@porch/contract/entries';
import { clientForTest } from '../../../test-kit/client';
import { rollKey, stretchKey } from './cache';
import { ROLLS_AHEAD, readAhead } from './roll';

const rowOf = (at: number): Row => ({ id: `talk-${at}`, state: { lastAt: at } }) as Row;

const filled = (count: number) => {
  const client = clientForTest();
  const rows = Array.from({ length: count }, (_, at) => rowOf(at));
  client.setQueryData(stretchKey({ view: 'all', group: 'waiting' }), { rows, next: null });
  return client;
};

describe('reading ahead, for when there is no signal', () => {
  const asked: string[] = [];
  let isBroken = false;
  beforeEach(() => {
    asked.length = 0;
    isBroken = false;
    globalThis.fetch = jest.fn(async (path: string) => {
      asked.push(path.replace('/api/conversations/', ''));
      if (isBroken) throw new Error('no signal');
      const id = asked.at(-1) ?? '';
      return new Response(JSON.stringify({ row: { id, state: {} }, entries: [], receipts: [] }));
    }) as never;
  });

  it('is of the conversations in which anything was said last, as many as are kept', async () => {
    const client = filled(80);
    await readAhead(client, () => true);
    expect(asked).toHaveLength(ROLLS_AHEAD);
    expect(asked[0]).toBe('talk-79');
    expect(client.getQueryData(rollKey('talk-30'))).toBeTruthy();
    expect(client.getQueryData(rollKey('talk-29'))).toBeUndefined();
  });

  it('leaves what is here already, and stops where there is no signal or nobody any more', async () => {
    const client = filled(5);
    client.setQueryData(rollKey('talk-4'), { entries: ['mine'] });
    await readAhead(client, () => asked.length < 2);
    expect(asked).toEqual(['talk-3', 'talk-2']);
    expect(client.getQueryData(rollKey('talk-4'))).toEqual({ entries: ['mine'] });
    isBroken = true;
    await readAhead(client, () => true);
    expect(asked).toEqual(['talk-3', 'talk-2', 'talk-1']);
  });
});
