import type { RollPage } from '@porch/contract/line';
import { type Entry, foldAll, groupOf } from '@porch/core/conversation';
import { placeInLine } from '@porch/core/patience';
import { QueryClientProvider } from '@tanstack/react-query';
import { act, render, screen } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { applyNews } from '../../../shell/live/apply';
import { rollKey } from '../../../shell/live/cache';
import { live } from '../../../shell/live/store';
import { Conversation } from './conversation';

const mockDrawn: number[] = [];

// A test has neither addresses, nor a keyboard, nor a page to be looked at.
jest.mock('expo-router', () => ({ router: {} }));
jest.mock('../../../shell/frame/use-keys', () => ({ useKeys: () => undefined }));
jest.mock('../../../kit/theme/use-wide', () => ({ useWide: () => false }));
jest.mock('./use-is-looking', () => ({ useIsLooking: () => false }));
jest.mock('./composer', () => ({ Composer: () => null }));
// Each slip tells of its drawings.
jest.mock('./roll-slips', () => {
  const { memo, Profiler } = jest.requireActual<typeof import('react')>('react');
  const real = jest.requireActual<typeof import('./roll-slips')>('./roll-slips');
  const Watched = (props: Parameters<typeof real.RollEntry>[0]) => (
    <Profiler id="slip" onRender={() => mockDrawn.push(props.entry.seq)}>
      <real.RollEntry {...props} />
    </Profiler>
  );
  return { ...real, RollEntry: memo(Watched) };
});

const NINE = Date.UTC(2026, 10, 12, 9, 0);
const MINUTE_MS = 60_000;

const said = (seq: number): Entry => ({
  seq,
  id: `entry-number-${seq}`,
  conversationId: 'conversation-1',
  threadId: 'conversation-1',
  at: NINE + seq,
  kind: 'visitor-said',
  text: `Message ${seq}`,
  files: [],
  note: false,
  page: null,
});

const rollOf = (entries: Entry[]): RollPage => {
  const state = foldAll(entries);
  const [id, doorId] = ['conversation-1', 'door-1'];
  const row = { id, doorId, group: groupOf(state), place: placeInLine(state), state, threads: [] };
  return { row, entries, hasOlder: false, receipts: [] };
};

const later = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));

const drawRoll = async () => {
  const client = clientForTest({ enabled: false });
  client.setQueryData(rollKey('conversation-1'), rollOf([said(1), said(2), said(3)]));
  live.set({ typing: {} });
  await render(
    <QueryClientProvider client={client}>
      <Conversation id="conversation-1" />
    </QueryClientProvider>,
  );
  expect(new Set(mockDrawn)).toEqual(new Set([1, 2, 3]));
  mockDrawn.length = 0;
  return client;
};

describe('a roll, as it is drawn', () => {
  beforeEach(() => {
    mockDrawn.length = 0;
    jest.useFakeTimers({ now: NINE + MINUTE_MS });
  });
  afterEach(() => jest.useRealTimers());

  it('is not drawn anew while only time passes', async () => {
    await drawRoll();
    await later(5 * MINUTE_MS);
    expect(mockDrawn).toEqual([]);
  });

  it('says that somebody types and stops saying so, without drawing what was said anew', async () => {
    await drawRoll();
    await act(async () => live.set({ typing: { 'conversation-1': Date.now() } }));
    expect(screen.getByText('Somebody is typing')).toBeTruthy();
    await later(7_000);
    expect(screen.queryByText('Somebody is typing')).toBeNull();
    expect(mockDrawn).toEqual([]);
  });

  it('tells the times of the day before as such once a day has begun', async () => {
    await drawRoll();
    expect(screen.getAllByText(/^09:00/)).toHaveLength(3);
    jest.setSystemTime(NINE + 24 * 60 * MINUTE_MS);
    await later(1_000);
    expect(screen.getAllByText(/^Thu 09:00/)).toHaveLength(3);
  });

  it('shows what is said while it is looked at', async () => {
    const client = await drawRoll();
    const { row } = rollOf([said(1), said(2), said(3), said(4)]);
    applyNews(client, [said(4)], [row]);
    await later(10);
    expect(screen.getByText('Message 4')).toBeTruthy();
  });
});
