import { entryKinds } from '@porch/core/conversation';
import { EntrySchema } from './entries';
import { errorCodes, errorStatus, isErrorCode, isWorthRetrying } from './errors';
import { DeedSchema } from './line';
import { FromVisitorSchema } from './visitor';

describe('the contract', () => {
  it('has a schema for every kind of entry that core knows', () => {
    const kinds = EntrySchema.options.map((option) => option.shape.kind.value);
    expect([...kinds].sort()).toEqual([...entryKinds].sort());
  });

  it('gives every refusal a status of its kind, and retries only what may pass by itself', () => {
    for (const code of errorCodes) expect(errorStatus[code]).toBeGreaterThanOrEqual(400);
    expect(errorCodes.filter((code) => isWorthRetrying(errorStatus[code]))).toEqual([
      'order-not-now',
      'too-slow',
      'too-many',
      'our-fault',
      'secret-sealed',
      'cannot-write',
    ]);
    expect(isErrorCode('no-such-code')).toBe(false);
  });

  it.each<[object, string]>([
    [{ do: 'say', id: 'x', text: '', fileIds: [], page: null }, 'an id that is too short'],
    [
      { do: 'say', id: 'long-enough-id', text: 'x'.repeat(8_001), fileIds: [], page: null },
      'a text beyond all bounds',
    ],
    [
      {
        do: 'say',
        id: 'long-enough-id',
        text: '',
        fileIds: Array(7).fill('long-enough-id'),
        page: null,
      },
      'too many files',
    ],
    [{ do: 'hello', token: 'short', since: 0, site: '' }, 'a token of the wrong form'],
    [{ do: 'has', upTo: -1 }, 'a seq below nothing'],
    [{ do: 'has', upTo: 1.5 }, 'half a seq'],
  ])('takes no %j: %s', (message) => {
    expect(FromVisitorSchema.safeParse(message).success).toBe(false);
  });

  it('takes no deed without an id', () => {
    expect(DeedSchema.safeParse({ do: 'wrap-up' }).success).toBe(false);
    expect(DeedSchema.safeParse({ do: 'wrap-up', id: 'long-enough-id' }).success).toBe(true);
  });
});
