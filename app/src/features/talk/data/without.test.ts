import { withoutGone } from './without';

const thing = (id: string) => ({
  id,
  kind: 'offer',
  name: id,
  lines: [],
  link: '',
  linkWords: '',
  files: [],
});
const said = (text: string, ...ids: string[]) =>
  ({
    load: { do: 'say', text, fileIds: [], files: [], shelf: ids, shown: ids.map(thing) },
  }) as never;
const over = (field: string) => ({ code: 'offer-over', field }) as const;

describe('an answer whose thing of the shelf is gone', () => {
  it('goes without that one, with everything else', () => {
    expect(withoutGone(said('Yes:', 'one', 'two'), over('one'))).toMatchObject({
      text: 'Yes:',
      shown: [{ id: 'two' }],
    });
    const gone = { code: 'shelf-gone', field: 'two' } as const;
    expect(withoutGone(said('', 'one', 'two'), gone)).toMatchObject({ shown: [{ id: 'one' }] });
  });

  it('cannot go where nothing of it is left, or where it was refused for something else', () => {
    expect(withoutGone(said(' ', 'one'), over('one'))).toBeNull();
    expect(withoutGone(said('Yes', 'one'), { code: 'door-closed' })).toBeNull();
    expect(withoutGone(said('Yes', 'one'), undefined)).toBeNull();
    expect(withoutGone({ load: { do: 'wrap-up' } } as never, over('one'))).toBeNull();
  });
});
