import { api } from './api';
import { ApiError, isFinal, isWorthAskingAgain } from './refused';

const signal = (isThere: boolean): void => {
  Object.defineProperty(globalThis, 'navigator', {
    value: { onLine: isThere },
    configurable: true,
  });
};
const neverArrived = new ApiError(0, { code: 'our-fault' });

describe('what is asked again by itself', () => {
  afterEach(() => signal(true));

  it('is what never arrived, three times', () => {
    signal(true);
    expect([0, 1, 2, 3].map((failures) => isWorthAskingAgain(failures, neverArrived))).toEqual([
      true,
      true,
      true,
      false,
    ]);
  });

  it('is nothing that was refused', () => {
    signal(true);
    expect(isWorthAskingAgain(0, new ApiError(404, { code: 'not-found' }))).toBe(false);
    expect(isWorthAskingAgain(0, new ApiError(500, { code: 'our-fault' }))).toBe(false);
  });

  it('is nothing at all without signal: it is said at once', () => {
    signal(false);
    expect(isWorthAskingAgain(0, neverArrived)).toBe(false);
  });
});

describe('an answer that changes nothing by asking again', () => {
  it('is a refusal; not one that was lost, that failed or that says to come back later', () => {
    expect(isFinal(new ApiError(404, { code: 'link-stale' }))).toBe(true);
    const unsettled = [
      null,
      neverArrived,
      new Error('aborted'),
      new ApiError(502, { code: 'our-fault' }),
      new ApiError(429, { code: 'too-many' }),
    ];
    expect(unsettled.map(isFinal)).toEqual([false, false, false, false, false]);
  });
});

describe('an answer of something between us and the house', () => {
  it.each([
    [413, 'too-large'],
    [400, 'our-fault'],
  ])('of %d is judged by its status', async (status, code) => {
    globalThis.fetch = (async () =>
      new Response('<html>nginx</html>', { status })) as unknown as typeof fetch;
    const refused = await api
      .upload('file-0000001', 'leaf.png', new Blob(['x']))
      .catch((error: ApiError) => error);
    expect(refused).toMatchObject({ status, refusal: { code } });
  });
});

describe('a request', () => {
  afterEach(() => jest.useRealTimers());

  it('is given up when no answer comes, as if it had never arrived', async () => {
    jest.useFakeTimers();
    globalThis.fetch = ((_path: string, { signal }: RequestInit) =>
      new Promise((_resolve, reject) => {
        signal?.addEventListener('abort', () => reject(new Error('given up')));
      })) as typeof fetch;
    const asked = api.get('/api/line').catch((error: ApiError) => error.status);
    await jest.advanceTimersByTimeAsync(20_000);
    expect(await asked).toBe(0);
  });
});
