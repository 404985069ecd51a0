import { act, renderHook } from '@testing-library/react-native';
import { answered, rowOf, said } from '../../../../test-kit/talk';
import { useSelected } from './selected';

const rows = ['a', 'b', 'c'].map((id, at) => rowOf(said(at + 1, id), answered(at + 10, id)));
const [a, b] = rows as [(typeof rows)[0], (typeof rows)[0]];

const select = async () => {
  const { result, rerender } = await renderHook((shown: typeof rows) => useSelected(shown), {
    initialProps: rows,
  });
  return {
    now: () => result.current,
    ids: () => result.current.selected.map(({ id }) => id),
    see: (shown: typeof rows) => rerender(shown),
  };
};

describe('what is selected in the line', () => {
  it('begins with the first one, and ends with the last', async () => {
    const selecting = await select();
    expect(selecting.now().isSelecting).toBe(false);
    await act(async () => selecting.now().toggle(a));
    await act(async () => selecting.now().toggle(b));
    expect(selecting.ids()).toEqual(['a', 'b']);
    await act(async () => selecting.now().toggle(a));
    await act(async () => selecting.now().toggle(b));
    expect(selecting.now().isSelecting).toBe(false);
  });

  it('is a whole group at once, and none of it by the same tap', async () => {
    const selecting = await select();
    await act(async () => selecting.now().toggle(a));
    await act(async () => selecting.now().toggleAll(rows));
    expect(selecting.ids()).toEqual(['a', 'b', 'c']);
    await act(async () => selecting.now().toggleAll(rows));
    expect(selecting.now().isSelecting).toBe(false);
  });

  it('is no longer what somebody has written in meanwhile: nobody is wrapped up who waits', async () => {
    const selecting = await select();
    await act(async () => selecting.now().toggleAll(rows));
    const again = rowOf(said(1, 'a'), answered(10, 'a'), said(20, 'a'));
    expect(again.group).toBe('waiting');
    await selecting.see([again, ...rows.slice(1)]);
    expect(selecting.ids()).toEqual(['b', 'c']);
    expect(selecting.now().isSelected(again)).toBe(false);
    // Meant all the same, it is selected by a tap.
    await act(async () => selecting.now().toggle(again));
    expect(selecting.ids()).toEqual(['a', 'b', 'c']);
  });
});
