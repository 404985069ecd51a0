import { QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { PutBySheet } from './put-by-sheet';

// A test has no window to be as wide as, nor one in which a key is pressed.
jest.mock('../../../kit/theme/use-wide', () => ({ useWide: () => false }));
jest.mock('../../../kit/sheets/use-escape', () => ({ useEscape: () => undefined }));
jest.mock('../../../kit/sheets/use-dialog-name', () => ({ useDialogName: () => undefined }));

const HOUR_MS = 3_600_000;
/** Thursday, half a minute into a minute. */
const now = Date.UTC(2026, 10, 12, 10, 0, 30);

const draw = async () => {
  const put: number[] = [];
  jest.useFakeTimers({ now });
  await render(
    <QueryClientProvider client={clientForTest({ enabled: false })}>
      <PutBySheet put={(until) => put.push(until)} close={() => undefined} />
    </QueryClientProvider>,
  );
  return put;
};

describe('putting a conversation by', () => {
  afterEach(() => jest.useRealTimers());

  it('for an hour is for an hour from the moment of pressing it, to the second', async () => {
    const put = await draw();
    jest.setSystemTime(now + 25_000);
    await fireEvent.press(screen.getByText('In an hour'));
    expect(put).toEqual([now + 25_000 + HOUR_MS]);
  });

  it('until tomorrow is until nine of the business’s day', async () => {
    const put = await draw();
    await fireEvent.press(screen.getByText('Tomorrow, 09:00'));
    expect(put).toEqual([Date.UTC(2026, 10, 13, 9, 0)]);
  });

  it('until a moment that has just passed is refused in words, and puts nothing by', async () => {
    const put = await draw();
    await fireEvent.changeText(screen.getByLabelText('Or write it'), 'today 10:00');
    await fireEvent.press(screen.getByText('Put by'));
    expect(screen.getByText(/This is no day and time to come/)).toBeTruthy();
    expect(put).toEqual([]);
  });
});
