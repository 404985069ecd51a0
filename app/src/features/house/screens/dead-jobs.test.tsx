import type { DeadJobs as Dead } from '@porch/contract/jobs';
import { QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen, waitFor } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { DeadJobs } from './dead-jobs';

const dead: Dead = {
  count: 60,
  jobs: [
    { id: 7, kind: 'return', why: 'too-slow', tries: 3, madeAt: 0, diedAt: 1 },
    { id: 5, kind: 'chime', why: 'gone', tries: 1, madeAt: 0, diedAt: 1 },
    { id: 4, kind: 'return', why: 'something new', tries: 2, madeAt: 0, diedAt: 1 },
  ],
};

describe('what could not be done', () => {
  const asked: string[] = [];
  beforeEach(() => {
    asked.length = 0;
    global.fetch = jest.fn(async (path, init) => {
      const method = init?.method ?? 'GET';
      asked.push(`${method} ${path}`);
      if (method !== 'GET') return new Response(null, { status: 204 });
      return new Response(JSON.stringify(dead), { status: 200 });
    }) as typeof fetch;
  });

  const draw = (count: number) =>
    render(
      <QueryClientProvider client={clientForTest()}>
        <DeadJobs count={count} />
      </QueryClientProvider>,
    );

  it('is asked for and shown only where there is any', async () => {
    await draw(0);
    expect(screen.toJSON()).toBeNull();
    expect(asked.filter((one) => one.includes('jobs'))).toEqual([]);
  });

  it('says what, why and how often, and is tried again or left one by one', async () => {
    await draw(60);
    await screen.findAllByText('Bring back a conversation that was put by');
    expect(screen.getByText('60 things could not be done')).toBeTruthy();
    expect(screen.getByText(/^This took too long to arrive.*Tried 3 times/)).toBeTruthy();
    expect(screen.getByText(/^Nobody answered there\. Tried once/)).toBeTruthy();
    expect(screen.getByText(/^What was asked did not answer as it should\./)).toBeTruthy();
    expect(screen.getByText('The newest 3 are shown.')).toBeTruthy();
    const [again] = screen.getAllByLabelText(
      'Try again: Bring back a conversation that was put by',
    );
    if (!again) throw new Error('nothing can be tried again');
    await fireEvent.press(again);
    await waitFor(() => expect(asked).toContain('POST /api/jobs/7/again'));
    await fireEvent.press(screen.getByLabelText(/^Leave it: Something that had to happen/));
    await waitFor(() => expect(asked).toContain('DELETE /api/jobs/5'));
  });
});
