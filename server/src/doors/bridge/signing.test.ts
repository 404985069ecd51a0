import { Webhook } from 'standardwebhooks';
import { changedKeys, keysFrom, keysToText, newKey, provenId, signed } from './signing';

const now = 1_796_000_000_000;
const body = '{"type":"message"}';
const keysOf = (key = newKey()) => ({ key, before: null });

describe('what is signed for a bridge', () => {
  // The example of the Standard Webhooks specification, by whose values every library is tried.
  it('is signed as the specification’s example is', () => {
    const keys = keysOf('whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw');
    const payload = '{"test": 2432232314}';
    const at = 1_614_265_330_000;
    expect(signed(keys, 'msg_p5jXN8AQM9LWM0D4loKWxJek', payload, at)).toEqual({
      'webhook-id': 'msg_p5jXN8AQM9LWM0D4loKWxJek',
      'webhook-timestamp': '1614265330',
      'webhook-signature': 'v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=',
    });
  });

  it('is taken by the library on the other end, and what that signs is taken here', () => {
    const keys = keysOf();
    const library = new Webhook(keys.key);
    const at = Date.now();
    expect(library.verify(body, signed(keys, 'msg-1', body, at))).toEqual(JSON.parse(body));
    const theirs = {
      'webhook-id': 'msg-2',
      'webhook-timestamp': String(Math.floor(at / 1_000)),
      'webhook-signature': library.sign('msg-2', new Date(at), body),
    };
    expect(provenId(keys, theirs, Buffer.from(body), at)).toBe('msg-2');
  });

  it('is good by either key for a day after one was changed, on both sides', () => {
    const before = keysOf();
    const after = changedKeys(before, newKey(), now);
    const day = 24 * 3_600_000;
    const late = now + day;
    const byOld = (at: number) => signed(before, 'msg-1', body, at);
    expect(provenId(after, byOld(now), Buffer.from(body), now)).toBe('msg-1');
    expect(provenId(after, byOld(late), Buffer.from(body), late)).toBeNull();
    expect(provenId(before, signed(after, 'msg-2', body, now), Buffer.from(body), now)).toBe(
      'msg-2',
    );
    expect(
      provenId(before, signed(after, 'msg-2', body, late), Buffer.from(body), late),
    ).toBeNull();
    expect(keysFrom(keysToText(after))).toEqual(after);
  });

  it.each([
    ['another body', {}, `${body} `, 0],
    ['another id', { 'webhook-id': 'msg-9' }, body, 0],
    ['another time', { 'webhook-timestamp': '1796000001' }, body, 0],
    ['a time that is none', { 'webhook-timestamp': 'now' }, body, 0],
    ['no signature', { 'webhook-signature': undefined }, body, 0],
    ['a signature of nothing', { 'webhook-signature': 'v1,' }, body, 0],
    ['two of a header', { 'webhook-id': ['msg-1', 'msg-1'] }, body, 0],
    ['six minutes on the way', {}, body, 6 * 60_000],
    ['six minutes ahead', {}, body, -6 * 60_000],
  ])('is not taken with %s', (_what, change, given, later) => {
    const keys = keysOf();
    const headers = { ...signed(keys, 'msg-1', body, now), ...change };
    expect(provenId(keys, headers, Buffer.from(given), now + later)).toBeNull();
  });

  it('is not taken by the key of another door', () => {
    expect(
      provenId(keysOf(), signed(keysOf(), 'msg-1', body, now), Buffer.from(body), now),
    ).toBeNull();
  });
});
