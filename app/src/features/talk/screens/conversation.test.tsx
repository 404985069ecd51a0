import type { RollPage } from '@porch/contract/line';
import { QueryClientProvider } from '@tanstack/react-query';
import { act, render, screen } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { rowOf, said } from '../../../../test-kit/talk';
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

const roll = [1, 2, 3].map((seq) => said(seq, 'a', NINE));

const later = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));

const drawRoll = async () => {
  const client = clientForTest({ enabled: false });
  const page: RollPage = {
    row: rowOf(...roll),
    entries: roll,
    hasOlder: false,
    receipts: [],
  };
  client.setQueryData(rollKey('a'), page);
  live.set({ typing: {} });
  await render(
    <QueryClientProvider client={client}>
      <Conversation id="a" />
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
    await act(async () => live.set({ typing: { a: Date.now() } }));
    expect(screen.getByText('Visitor is typing')).toBeTruthy();
    await later(7_000);
    expect(screen.queryByText('Visitor is typing')).toBeNull();
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
    const more = said(4, 'a', NINE);
    applyNews(client, [more], [rowOf(...roll, more)]);
    await later(10);
    expect(screen.getByText('Message 4')).toBeTruthy();
  });
});
