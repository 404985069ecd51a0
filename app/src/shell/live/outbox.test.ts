import type { DeedDone } from '@porch/contract/line';
import { outbox } from './outbox';

interface Asked {
  url: string;
  body: { id: string; do: string; text?: string };
}

/** A server that the test plays: it answers as told, and remembers what it was asked. */
const playServer = () => {
  const asked: Asked[] = [];
  let answer: () => Promise<Response> = async () => new Response('{}', { status: 200 });
  globalThis.fetch = (async (url: string, init: RequestInit) => {
    asked.push({ url, body: JSON.parse(String(init.body)) });
    return answer();
  }) as typeof fetch;
  return {
    asked,
    answerWith: (status: number, body: object = {}) => {
      answer = async () => new Response(JSON.stringify(body), { status });
    },
    beUnreachable: () => {
      answer = async () => {
        throw new TypeError('no line');
      };
    },
  };
};

const say = (text: string) => ({ do: 'say' as const, text, fileIds: [], files: [] });
const settled = () => jest.advanceTimersByTimeAsync(10);

describe('what waits to be sent from a device', () => {
  let taken: DeedDone[] = [];
  let refusedCount = 0;
  let refusedIn: string[] = [];

  beforeEach(async () => {
    jest.useFakeTimers();
    taken = [];
    refusedCount = 0;
    refusedIn = [];
    await outbox.start(
      (done) => taken.push(done),
      ({ lane }) => {
        refusedCount += 1;
        refusedIn.push(lane);
      },
    );
  });
  afterEach(() => {
    outbox.stop();
    outbox.clear();
    jest.useRealTimers();
  });

  it('leaves at once, under an id of its own, and is gone when it is on disk', async () => {
    const server = playServer();
    const id = outbox.add('conversation-1', say('Hello'));
    expect(outbox.count()).toBe(1);
    await settled();
    expect(server.asked).toEqual([
      {
        url: '/api/conversations/conversation-1/deeds',
        body: { do: 'say', id, text: 'Hello', fileIds: [] },
      },
    ]);
    expect(outbox.count()).toBe(0);
    expect(taken).toHaveLength(1);
  });

  it('waits without signal, then goes in order and under the same ids', async () => {
    const server = playServer();
    server.beUnreachable();
    const first = outbox.add('conversation-1', say('One'));
    const second = outbox.add('conversation-1', say('Two'));
    await settled();
    expect(outbox.count()).toBe(2);
    server.answerWith(200);
    outbox.connected();
    await settled();
    expect(server.asked.map(({ body }) => body.id)).toEqual([first, first, second]);
    expect(outbox.count()).toBe(0);
  });

  it('tries again by itself after a moment', async () => {
    const server = playServer();
    server.answerWith(503);
    outbox.add('conversation-1', say('Hello'));
    await settled();
    server.answerWith(200);
    await jest.advanceTimersByTimeAsync(1_100);
    expect(outbox.count()).toBe(0);
  });

  it('keeps what was refused and lets what comes behind it pass', async () => {
    const server = playServer();
    server.answerWith(400, { code: 'text-too-long', limit: 4_000 });
    const id = outbox.add('conversation-1', say('Too long'));
    await settled();
    expect(refusedCount).toBe(1);
    server.answerWith(200);
    outbox.add('conversation-1', say('Short'));
    await settled();
    expect(outbox.count()).toBe(1);
    outbox.retry(id);
    await settled();
    expect(outbox.count()).toBe(0);
  });

  it('waits for somebody to sign in again rather than being thrown away', async () => {
    const server = playServer();
    server.answerWith(401, { code: 'sign-in-needed' });
    outbox.add('conversation-1', say('Hello'));
    await settled();
    expect([outbox.count(), refusedCount]).toEqual([1, 0]);
  });

  it('tells in which conversation something was refused, and keeps it with what was refused', async () => {
    const server = playServer();
    server.answerWith(400, { code: 'time-not-ahead' });
    outbox.add('conversation-2', { do: 'put-by', until: 5, files: [] });
    await settled();
    expect(refusedIn).toEqual(['conversation-2']);
    expect(outbox.count()).toBe(1);
  });

  it('forgets that something was seen where nobody wants to know', async () => {
    const server = playServer();
    server.answerWith(404, { code: 'not-found' });
    outbox.add('conversation-2', { do: 'read', upTo: 5, files: [] });
    await settled();
    expect([outbox.count(), refusedIn]).toEqual([0, []]);
  });

  it('keeps everything while the house cannot write, and sends it once it can', async () => {
    const server = playServer();
    server.answerWith(507, { code: 'cannot-write' });
    outbox.add('conversation-1', say('Hello'));
    await settled();
    expect([outbox.count(), refusedCount]).toEqual([1, 0]);
    server.answerWith(200);
    await jest.advanceTimersByTimeAsync(1_100);
    expect(outbox.count()).toBe(0);
  });
});
