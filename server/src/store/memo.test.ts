import { emptyConversation } from '@porch/core/conversation';
import { createStore, openDatabase } from '.';
import { createMemo } from './memo';

describe('what was read lately', () => {
  it('is bounded: whoever was put in first leaves first', () => {
    const memo = createMemo<number>(2);
    for (const [index, key] of ['a', 'b', 'a', 'c'].entries()) memo.put(key, index);
    expect([memo.get('a'), memo.get('b'), memo.get('c')]).toEqual([undefined, 1, 3]);
    memo.forget();
    expect(memo.get('c')).toBeUndefined();
  });

  const open = () => {
    const store = createStore(openDatabase(':memory:'));
    const door = {
      id: 'door-1',
      publicId: 'public-1',
      name: 'Shop',
      sites: [],
      memberIds: null,
      closedAt: null,
    };
    const visitor = { id: 'visitor-1', doorId: 'door-1', tokenHash: 'hash-1' };
    const conversation = {
      id: 'conversation-1',
      doorId: 'door-1',
      visitorId: 'visitor-1',
      tokenHash: 'hash-1',
      state: emptyConversation,
    };
    store.doors.add(door, 0);
    return { store, door, visitor, conversation };
  };

  it('is what was written last', () => {
    const { store, door, visitor, conversation } = open();
    store.visitors.add(visitor, 0);
    store.conversations.add(conversation);
    expect(store.conversations.ofVisitor('visitor-1')?.state.name).toBe('');
    const state = { ...emptyConversation, name: 'Wren' };
    store.conversations.update({ ...conversation, state });
    expect(store.conversations.ofVisitor('visitor-1')?.state.name).toBe('Wren');
    expect(store.doors.byPublicId('public-1')?.closedAt).toBeNull();
    store.doors.update({ ...door, closedAt: 5 });
    expect(store.doors.byPublicId('public-1')?.closedAt).toBe(5);
    store.close();
  });

  it('is nothing of a transaction that came to nothing', () => {
    const { store, door, visitor, conversation } = open();
    const write = (): void => {
      store.visitors.add(visitor, 0);
      store.conversations.add(conversation);
      store.conversations.update({ ...conversation, state: { ...emptyConversation, name: 'x' } });
      store.doors.update({ ...door, name: 'Another' });
      expect(store.visitors.byToken('hash-1')).toEqual(visitor);
      expect(store.conversations.ofVisitor('visitor-1')?.state.name).toBe('x');
      throw new Error('refused');
    };
    expect(() => store.atOnce(write)).toThrow('refused');
    expect(store.visitors.byToken('hash-1')).toBeNull();
    expect(store.conversations.ofVisitor('visitor-1')).toBeNull();
    expect(store.doors.byPublicId('public-1')?.name).toBe('Shop');
    store.close();
  });
});
