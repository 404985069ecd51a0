import { emptyThread } from '@porch/core/conversation';
import { createStore, newConversation, openDatabase, withThreads } from '.';
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
      kind: 'website',
      name: 'Shop',
      settings: { sites: [] },
      memberIds: null,
      closedAt: null,
      removedAt: null,
    };
    const writer = { doorId: 'door-1', address: 'hash-1' };
    const thread = { ...writer, id: 'thread-1', conversationId: 'thread-1' };
    const named = (name: string) =>
      withThreads(newConversation('thread-1', 'door-1'), [
        { ...emptyThread('thread-1', 'door-1'), name, lastSeq: 1 },
      ]);
    store.doors.add(door, 0);
    return { store, door, writer, thread, named };
  };

  it('is what was written last', () => {
    const { store, door, thread, named } = open();
    const kept = store.conversations.write(named(''));
    store.threads.add(thread, 0);
    expect(store.conversations.byId('thread-1')?.state.name).toBe('');
    store.conversations.write({ ...named('Wren'), placed: kept.placed });
    expect(store.conversations.byId('thread-1')?.state.name).toBe('Wren');
    expect(store.doors.byPublicId('public-1')?.closedAt).toBeNull();
    store.doors.update({ ...door, closedAt: 5 });
    expect(store.doors.byPublicId('public-1')?.closedAt).toBe(5);
    store.close();
  });

  it('is nothing of a transaction that came to nothing', () => {
    const { store, door, writer, thread, named } = open();
    const write = (): void => {
      store.conversations.write(named('x'));
      store.threads.add(thread, 0);
      store.doors.update({ ...door, name: 'Another' });
      expect(store.threads.byWriter(writer)).toEqual(thread);
      expect(store.threads.byId('thread-1')).toEqual(thread);
      expect(store.conversations.byId('thread-1')?.state.name).toBe('x');
      throw new Error('refused');
    };
    expect(() => store.atOnce(write)).toThrow('refused');
    expect(store.threads.byWriter(writer)).toBeNull();
    expect(store.threads.byId('thread-1')).toBeNull();
    expect(store.conversations.byId('thread-1')).toBeNull();
    expect(store.doors.byPublicId('public-1')?.name).toBe('Shop');
    store.close();
  });
});
