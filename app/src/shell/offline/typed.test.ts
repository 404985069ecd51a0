import { act, renderHook } from '@testing-library/react-native';
import { forgetTyped, SET_UP, useTyped } from './typed';

const saved = { name: 'Quillfern', address: '' };

const form = async (place = 'business', now: typeof saved = saved) =>
  (await renderHook(() => useTyped(place, now))).result;

describe('what is typed into a form', () => {
  beforeEach(() => forgetTyped());

  it('is what is saved until somebody changes it, and stays over leaving until it is saved', async () => {
    const first = await form();
    expect(first.current).toMatchObject({ typed: saved, isChanged: false });
    await act(async () => first.current.set({ name: 'Quillfern Nursery' }));
    const again = await form();
    expect(again.current.typed).toEqual({ name: 'Quillfern Nursery', address: '' });
    expect(again.current.isChanged).toBe(true);
    await act(async () => again.current.drop());
    expect((await form()).current).toMatchObject({ typed: saved, isChanged: false });
  });

  it('keeps what was not changed as it is saved by then', async () => {
    const first = await form();
    await act(async () => first.current.set({ name: 'Another' }));
    const later = await form('business', { name: 'Quillfern', address: 'hello@quillfern.example' });
    expect(later.current.typed).toEqual({ name: 'Another', address: 'hello@quillfern.example' });
  });

  it('is nothing once it is as it was, is apart for each form, and gone with whoever typed it', async () => {
    const first = await form();
    await act(async () => first.current.set({ name: 'Another' }));
    expect((await form('me')).current.isChanged).toBe(false);
    await act(async () => first.current.set({ name: 'Quillfern' }));
    expect(first.current.isChanged).toBe(false);
    expect((await form()).current.isChanged).toBe(false);
    await act(async () => first.current.set({ address: 'x@y.example' }));
    forgetTyped();
    expect((await form()).current.typed).toEqual(saved);
  });

  it('stays where a house is being set up, where nobody is signed in at any time', async () => {
    const setUp = await form(SET_UP);
    await act(async () => setUp.current.set({ name: 'Quillfern Nursery' }));
    const business = await form();
    await act(async () => business.current.set({ name: 'Another' }));
    forgetTyped();
    expect((await form(SET_UP)).current.typed.name).toBe('Quillfern Nursery');
    expect((await form()).current.isChanged).toBe(false);
    await act(async () => setUp.current.drop());
  });
});
