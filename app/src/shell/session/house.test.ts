import type { Row } from '@porch/contract/entries';
import { emptyConversation } from '@porch/core/conversation';
import { clientForTest } from '../../../test-kit/client';
import { houseKey, isForMe } from './house';

const row = (id: string, doorId: string): Row => ({
  id,
  doorId,
  group: 'waiting',
  place: 0,
  dueAt: null,
  state: emptyConversation,
  threads: [],
});

const signedInAs = (me: string, doors: { id: string; memberIds: string[] | null }[]) => {
  const client = clientForTest();
  client.setQueryData(houseKey, { me: { id: me }, doors });
  return client;
};

describe('whose bell a message rings', () => {
  const doors = [
    { id: 'front', memberIds: null },
    { id: 'bench', memberIds: ['tobias'] },
  ];
  const rows = [row('one', 'front'), row('two', 'bench')];

  it('is everybody\u2019s where the door concerns everybody', () => {
    expect(isForMe(signedInAs('maren', doors), rows, ['one'])).toBe(true);
  });

  it('is only theirs whom the door concerns', () => {
    expect(isForMe(signedInAs('maren', doors), rows, ['two'])).toBe(false);
    expect(isForMe(signedInAs('tobias', doors), rows, ['two'])).toBe(true);
  });

  it('is nobody\u2019s where nothing was said, and rather everybody\u2019s while the doors are not known', () => {
    expect(isForMe(signedInAs('maren', doors), rows, [])).toBe(false);
    expect(isForMe(clientForTest(), rows, ['two'])).toBe(true);
  });
});
