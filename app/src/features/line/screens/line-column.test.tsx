import type { Counts, Row } from '@porch/contract/entries';
import { type Entry, type Group, groups } from '@porch/core/conversation';
import { QueryClientProvider } from '@tanstack/react-query';
import { act, render, screen } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { answered, rowOf, said } from '../../../../test-kit/talk';
import { applyNews } from '../../../shell/live/apply';
import { type GroupData, stretches, stretchKey } from '../../../shell/live/cache';
import { live } from '../../../shell/live/store';
import { LineColumn } from './line-column';

const mockDrawn: string[] = [];

// A test has neither addresses nor a keyboard.
jest.mock('../../../shell/frame/use-keys', () => ({ useKeys: () => undefined }));
jest.mock('expo-router', () => ({ router: {}, useGlobalSearchParams: () => ({}) }));
// Each row tells of its drawings, and of those of all that stands in it.
jest.mock('./line-row', () => {
  const { memo, Profiler } = jest.requireActual<typeof import('react')>('react');
  const { LineRow } = jest.requireActual<typeof import('./line-row')>('./line-row');
  const Watched = (props: Parameters<typeof LineRow>[0]) => (
    <Profiler id={props.row.id} onRender={(id) => mockDrawn.push(id)}>
      <LineRow {...props} />
    </Profiler>
  );
  return { LineRow: memo(Watched) };
});

const NINE = Date.UTC(2026, 10, 12, 9, 0);
const MINUTE_MS = 60_000;

const ids = Array.from({ length: 12 }, (_, at) => `conversation-${at}`);
const firstSaid = (id: string): Entry => said(ids.indexOf(id) + 1, id, NINE);
const waiting = ids.map((id) => rowOf(firstSaid(id)));
const settled = ids.map((id) => rowOf(firstSaid(id), answered(ids.indexOf(id) + 20, id, NINE)));

const later = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));

const drawLine = async (rows: readonly Row[]) => {
  const client = clientForTest({ enabled: false });
  const of = (group: Group): Row[] => rows.filter((row) => row.group === group);
  for (const stretch of stretches) {
    const data: GroupData = { rows: of(stretch.group), next: null };
    client.setQueryData(stretchKey(stretch), data);
  }
  const counts = Object.fromEntries(groups.map((group) => [group, of(group).length])) as Counts;
  live.set({ counts: { all: counts }, typing: {} });
  await render(
    <QueryClientProvider client={client}>
      <LineColumn />
    </QueryClientProvider>,
  );
  expect(new Set(mockDrawn)).toEqual(new Set(ids));
  mockDrawn.length = 0;
  return client;
};

describe('the line, as it is drawn', () => {
  beforeEach(() => {
    mockDrawn.length = 0;
    jest.useFakeTimers({ now: NINE + MINUTE_MS });
  });
  afterEach(() => jest.useRealTimers());

  it('draws one row anew when somebody types, and that one once more when they have stopped', async () => {
    await drawLine(settled);
    await act(async () => live.set({ typing: { 'conversation-3': Date.now() } }));
    expect(screen.getByLabelText(/is typing$/)).toBeTruthy();
    expect([...new Set(mockDrawn)]).toEqual(['conversation-3']);
    mockDrawn.length = 0;
    await later(3_000);
    expect(mockDrawn).toEqual([]);
    await later(4_000);
    expect(screen.queryByLabelText(/is typing$/)).toBeNull();
    expect([...new Set(mockDrawn)]).toEqual(['conversation-3']);
  });

  it('draws nothing anew while time passes by which nothing reads differently', async () => {
    await drawLine(settled);
    await later(3 * MINUTE_MS);
    expect(mockDrawn).toEqual([]);
  });

  it('draws a patience anew as often as it has burnt down by a hundredth, and not every second', async () => {
    await drawLine(waiting);
    await later(MINUTE_MS);
    for (const id of ids) {
      const times = mockDrawn.filter((one) => one === id).length;
      expect([id, times > 0, times < 15]).toEqual([id, true, true]);
    }
  });

  it('draws one row anew when somebody says something', async () => {
    const client = await drawLine(waiting);
    const more = said(40, 'conversation-5', NINE);
    applyNews(client, [more], [rowOf(firstSaid('conversation-5'), more)]);
    await later(10);
    expect(screen.getByLabelText(/Message 40$/)).toBeTruthy();
    expect([...new Set(mockDrawn)]).toEqual(['conversation-5']);
  });
});
